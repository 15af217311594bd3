#pragma once
#include <QString>

#include <functional>
#include <string>

class QMenu;

namespace kasuri::app {

/// Adds every space, or those that are encoded, the current one checked; `chosen` is told which. Tool tips say what
/// each is.
void add_spaces(QMenu& menu, const std::string& current, const std::function<void(const std::string&)>& chosen,
                bool encoded_only = false);

} // namespace kasuri::app
