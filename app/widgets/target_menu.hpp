#pragma once
#include "targets/target.hpp"

#include <functional>

class QMenu;

namespace kasuri::app {

/// One action for each target that `wanted` takes, with its documentation as tip.
void add_target_actions(QMenu& menu, const std::function<bool(const targets::Target&)>& wanted,
                        const std::function<void(const targets::Target&)>& chosen);

} // namespace kasuri::app
