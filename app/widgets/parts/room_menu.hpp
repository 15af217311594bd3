#pragma once
#include <QString>

class QMenu;

namespace kasuri::app {

/// How bright the room is that the interface is for; the surround of pictures stays.
void fill_rooms(QMenu& menu);
void choose_room(const QString& name); ///< and remembers it
void restore_room();

} // namespace kasuri::app
