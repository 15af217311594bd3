#pragma once
#include <QString>

class QWidget;

namespace kasuri::app {

/// Where a tool's window goes, before it is shown: where it was last, as kept under `key`; the first time beside `part`
/// of its parent (to its right, or to its left where the screen ends), so that what it speaks of is seen.
void place_beside(QWidget& window, const QWidget& part, const QString& key);

} // namespace kasuri::app
