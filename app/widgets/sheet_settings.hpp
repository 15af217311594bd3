#pragma once

namespace kasuri::app {

class SheetModel;

/// What is kept of the sheet from one session to the next: the screen, and what the user said of pictures' spaces.
void restore_settings(SheetModel& sheet);
void store_settings(const SheetModel& sheet);

} // namespace kasuri::app
