#pragma once
#include "targets/target.hpp"

#include <functional>

class QMenu;

namespace kasuri::app {

/// One action for each target that `wanted` takes, with its documentation as tip.
void add_target_actions(QMenu& menu, const std::function<bool(const targets::Target&)>& wanted,
                        const std::function<void(const targets::Target&)>& chosen);

class ReadingsModel;
class SheetModel;
/// Everything that can be added to the sheet, and to the readings.
void fill_targets(QMenu& menu, SheetModel& sheet);
void fill_readings(QMenu& menu, ReadingsModel& model);

} // namespace kasuri::app
