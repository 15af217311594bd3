#pragma once
#include "handover/look.hpp"

#include <span>
#include <string>

namespace kasuri::handover {

/// What the steps of a look amount to at these parameters, as far as it is certain: the matrix that they are together,
/// and which steps in a row undo one another. Lines of text, the first one fit to stand alone; empty if nothing is
/// certain.
std::string described_look(const RunnableLook& look, std::span<const double> parameters);

} // namespace kasuri::handover
