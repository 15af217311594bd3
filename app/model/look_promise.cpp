#include "model/look_promise.hpp"

#include "document/filter_file.hpp"

namespace kasuri::app {

bool LookPromise::measure(const RuleState& rule, const Around& around, std::vector<proof::Outcome>& into,
                          std::string& fault, const CancelToken& cancel, const std::function<void()>& came) {
    if (around.look.proofs.empty() || around.up_to_here)
        return true;
    if (const auto& faults = rule.faults(); !faults.empty()) { // of less than the look nothing is said
        fault = "step " + std::to_string(faults.front().first + 1) + " is left out: " + faults.front().second.text();
        return true;
    }
    const subject::Subject& look = rule.whole();
    if (!statements_ || lines_ != around.look.proofs || space_ != look.space()) {
        statements_.reset();
        lines_ = around.look.proofs;
        space_ = look.space();
        Result<lang::Rule> read = proof::look_statements(lines_, space_, document::used_beside(around.folder / "look"));
        if (!read) {
            fault = read.error().text();
            return true;
        }
        statements_ = std::make_shared<const lang::Rule>(std::move(read.value()));
    }
    for (const lang::ProofLine& line : statements_->proofs) {
        std::optional<proof::Outcome> outcome = proof::check(look, line, {}, cancel, statements_.get());
        if (!outcome)
            return false;
        into.push_back(std::move(*outcome));
        came();
    }
    return true;
}

} // namespace kasuri::app
