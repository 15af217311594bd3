#pragma once
#include "proof/report.hpp"

#include <string>

namespace kasuri::proof {

/// What a look promises as a whole: its proof lines, as a rule that changes nothing, in the space of the look. The
/// error says what is wrong in which line: no proof line, or a fault in one. `open` as in lang::CheckOptions, for
/// filters that it is compared with.
Result<lang::Rule> look_statements(const std::string& proofs, const std::string& space,
                                   std::function<Result<std::string>(const std::string&)> open = {});

/// Measures one of them. Nothing if cancelled.
std::optional<Outcome> check_look(const handover::Subject& look, const engine::Program& program,
                                  const lang::Rule& statements, const lang::ProofLine& line,
                                  const CancelToken& cancel = {});
/// The program that this wants: of the look at its values.
engine::ProgramPtr program_of(const handover::Subject& look);

/// All of them into `into.outcomes`. Returns false if cancelled.
bool check_look(const handover::Subject& look, const lang::Rule& statements, FilterReport& into,
                const CancelToken& cancel = {});

} // namespace kasuri::proof
