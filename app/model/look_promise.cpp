#include "model/look_promise.hpp"

#include "document/filter_file.hpp"

namespace kasuri::app {

bool LookPromise::measure(const RuleState& rule, const Around& around, std::vector<proof::Outcome>& into,
                          std::string& fault, const CancelToken& cancel) {
    if (around.look.proofs.empty() || around.up_to_here || !rule.whole())
        return true;
    if (const auto& faults = rule.whole()->faults; !faults.empty()) { // of less than the look nothing is said
        fault = "step " + std::to_string(faults.front().first + 1) + " is left out: " + faults.front().second.text();
        return true;
    }
    handover::Subject look = handover::subject_of(rule.whole(), around.look);
    for (std::size_t i = 0; i < look.parameters.size() && i < rule.all_values().size(); ++i)
        look.parameters[i].value = rule.all_values()[i]; // the look is made once for all values
    if (!statements_ || lines_ != around.look.proofs || space_ != look.space) {
        statements_.reset();
        lines_ = around.look.proofs;
        space_ = look.space;
        Result<lang::Rule> read = proof::look_statements(lines_, space_, document::used_beside(around.folder / "look"));
        if (!read) {
            fault = read.error().text();
            return true;
        }
        statements_ = std::make_shared<const lang::Rule>(std::move(read.value()));
    }
    const engine::ProgramPtr program = proof::program_of(look);
    for (const lang::ProofLine& line : statements_->proofs) {
        std::optional<proof::Outcome> outcome = proof::check_look(look, *program, *statements_, line, cancel);
        if (!outcome)
            return false;
        into.push_back(std::move(*outcome));
    }
    return true;
}

} // namespace kasuri::app
