#pragma once

namespace kasuri::app {

class ReadingsModel;
class SheetModel;

/// What is kept of the sheet from one session to the next: the screen, strips, readings, and what the user said of pictures' spaces.
void restore_settings(SheetModel& sheet, ReadingsModel& readings);
void store_settings(const SheetModel& sheet, const ReadingsModel& readings);

} // namespace kasuri::app
