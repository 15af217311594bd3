#pragma once
#include <QStringList>

namespace kasuri::app {

/// The files that were opened or written last, the latest first; those that are gone are left out.
QStringList recent_files();
/// Puts `file` in front.
void remember_file(const QString& file);

} // namespace kasuri::app
