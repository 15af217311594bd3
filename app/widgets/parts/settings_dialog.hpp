#pragma once
#include "base/setting.hpp"

#include <QString>

#include <functional>
#include <vector>

class QWidget;

namespace kasuri::app {

/// A small window of typed numbers and choices beside the work; every change is told at once. It does not stop
/// anything.
void edit_settings(QWidget* parent, const QString& title, std::span<const Setting> settings,
                   const std::vector<double>& values, const std::function<void(const std::vector<double>&)>& changed);

} // namespace kasuri::app
