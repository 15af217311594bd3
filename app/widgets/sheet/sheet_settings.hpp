#pragma once

namespace kasuri::app {

class Playback;
class ReadingsModel;
class SheetModel;

/// What is kept of the sheet from one session to the next: the screen, strips, readings, and what the user said of
/// pictures' spaces.
void restore_settings(SheetModel& sheet, ReadingsModel& readings);
/// The cells of the last session: targets and those pictures that are still there. False if there were none.
bool restore_cells(SheetModel& sheet);
void store_settings(const SheetModel& sheet, const ReadingsModel& readings);
/// How sequences are played, and how much memory their frames may take.
void restore_playback(Playback& playback);
void store_playback(const Playback& playback);

} // namespace kasuri::app
