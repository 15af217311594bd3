#pragma once
#include "fit/family.hpp"

namespace kasuri::fit {

// The files of families: each adds its rows.
void add_simple(std::vector<Family>& table);
void add_matrices(std::vector<Family>& table);
void add_curves(std::vector<Family>& table);
void add_models(std::vector<Family>& table);
void add_tones(std::vector<Family>& table);
void add_root_polynomials(std::vector<Family>& table);

} // namespace kasuri::fit
