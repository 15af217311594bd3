#pragma once
#include "base/result.hpp"
#include "proof/proof.hpp"

#include <functional>
#include <string>

namespace kasuri::proof {

/// What a look promises as a whole: its proof lines, as a rule that changes nothing, in the space of the look. The
/// error says what is wrong in which line: no proof line, or a fault in one. `open` as in lang::CheckOptions, for
/// filters that it is compared with.
Result<lang::Rule> look_statements(const std::string& proofs, const std::string& space,
                                   std::function<Result<std::string>(const std::string&)> open = {});

} // namespace kasuri::proof
