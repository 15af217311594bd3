#pragma once
#include <QImage>

#include <string>

namespace kasuri::app {

/// A small graph of a function of the language that takes each component by itself, as x goes from -0.25 to 1.25: its
/// other arguments are those of its first worked case. Nothing for other functions.
QImage function_picture(const std::string& name);

} // namespace kasuri::app
