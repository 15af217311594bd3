#pragma once
#include "look/make.hpp"

#include <string>

namespace kasuri::look {

/// What the steps of a look amount to at their values, as far as it is certain: the matrix that they are together, and
/// which steps in a row undo one another. Lines of text, the first one fit to stand alone; empty if nothing is certain.
std::string described(const subject::Subject& subject);

} // namespace kasuri::look
