#pragma once
#include "base/cancel.hpp"
#include "model/rule_state.hpp"
#include "proof/look.hpp"

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::app {

/// Measures what the look around the active rule promises as a whole; keeps what it has understood of the lines.
class LookPromise {
public:
    /// Behind what is in `into`, `came` being called after each. `fault`: what is wrong with the lines, or the step
    /// that is left out, without which the look is another one. False if called off. While the look is shown up to the
    /// active step nothing is measured: the promise is about all of it.
    bool measure(const RuleState& rule, const Around& around, std::vector<proof::Outcome>& into, std::string& fault,
                 const CancelToken& cancel, const std::function<void()>& came);

private:
    std::string lines_, space_;
    std::shared_ptr<const lang::Rule> statements_;
};

} // namespace kasuri::app
