#pragma once
#include <QString>

#include <string_view>

namespace kasuri::app {

/// A text of the core's tables (titles, documentation) in the language of the window. The core knows no languages; what
/// there is to be translated of it is written down by `kasuri-cli docs words`. What somebody has typed comes back as it
/// is.
QString words(std::string_view text);

/// `one` for 1, else `many` with the number in the place of %1.
QString counted(int count, const QString& one, const QString& many);

struct Lens;
/// As `caption`: the title, and where it makes sense the range of what is shown.
QString lens_caption(const Lens& lens, bool with_range);

} // namespace kasuri::app
