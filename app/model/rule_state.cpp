#include "model/rule_state.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "insight/derivative.hpp"
#include "proof/proof.hpp"

#include <chrono>

namespace kasuri::app {

RuleState::Change RuleState::check(const std::string& text, const std::filesystem::path& path,
                                   const std::map<std::string, std::string>& uses, std::uint64_t files) {
    const std::uint64_t spaces = colour::spaces_generation();
    if (checked_ && text == text_ && path == path_ && uses == uses_ && files == files_ && spaces == spaces_)
        return Change::none;
    spaces_ = spaces;
    files_ = files;
    text_ = text;
    path_ = path;
    uses_ = uses;
    const auto from = std::chrono::steady_clock::now();
    lang::CheckOptions options;
    options.open = opener();
    checked_ = std::make_shared<const lang::Checked>(lang::check(text, proof::vocabulary(), options));
    if (checked_->ok) {
        good_ = checked_;
        good_text_ = text_;
        own_ = subject::Subject(good_->rule);
        whole_ = {own_};
        made_ = false;
        peeks_.clear();
        (void)own_.program(); // so that the time says all
    }
    check_ms_ = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count();
    return checked_->ok ? Change::rule : Change::faulty;
}

std::function<Result<std::string>(const std::string&)> RuleState::opener() const {
    document::LookStep step;
    step.filter = path_.string();
    step.uses = uses_;
    return document::used_by(step, {}); // paths of filters in looks are absolute: no folder is ever asked
}

void RuleState::put(const ValueMap& values, const subject::Bindings& bindings, const AroundPtr& around, Part part) {
    if (!has_rule())
        return;
    if (bindings != own_.bindings()) {
        own_ = own_.with_bindings(bindings);
        peeks_.clear(); // they know the spaces of their sources
    }
    own_ = own_.at(values_for(rule(), values));
    if (!around || around->look.steps.empty()) {
        if (around_)
            peeks_.clear();
        around_.reset();
        before_ = {};
        whole_ = {own_};
        made_ = false;
        return;
    }
    around_ = around;
    document::Look look = around->look;
    document::LookStep& mine = look.steps[around->in_hand];
    if (!document::is_no_rule(mine)) { // the last text that compiled stays in view
        mine.text = good_text_;
        mine.values.clear();
        for (std::size_t i = 0; i < rule().parameters.size(); ++i)
            mine.values[rule().parameters[i].name] = own_.values()[i];
    }
    document::Look before = look;
    before.steps.resize(around->in_hand);
    look.steps.resize(part == Part::before     ? around->in_hand
                          : around->up_to_here ? around->in_hand + 1
                                               : look.steps.size());
    if (!made_ || !look::same_structure(before, first_)) {
        before_ = look::make_so_far(before, {});
        first_ = std::move(before);
        peeks_.clear();
    } else {
        before_.subject = before_.subject.at(look::values_of(before_, before));
    }
    if (!made_ || !look::same_structure(look, look_)) {
        whole_ = look::make_so_far(look, {});
        look_ = std::move(look);
        peeks_.clear();
    } else {
        whole_.subject = whole_.subject.at(look::values_of(whole_, look));
    }
    made_ = true;
    before_.subject = before_.subject.with_bindings(bindings);
    whole_.subject = whole_.subject.with_bindings(bindings);
}

std::vector<std::string> source_spaces_for(const subject::Subject& subject, const std::string& space) {
    std::vector<std::string> spaces;
    for (const lang::SourceInput& source : subject.sources()) {
        const auto bound = subject.bindings().find(source.name);
        spaces.push_back(bound != subject.bindings().end() && bound->second.picture ? bound->second.picture->space
                                                                                    : space);
    }
    return spaces;
}

RuleState::Peek RuleState::made_peek(const Lens& lens, const std::string& space) const {
    Peek peek;
    peek.subject = own_;
    peek.inside = !before_.subject.steps().empty();
    engine::CompileOptions options;
    options.in_space = peek.inside ? std::string_view() : std::string_view(space);
    options.print = true;
    if (lens.step_mask) {
        document::LookStep step;
        if (around_)
            step = around_->look.steps[around_->in_hand];
        if (step.mask.empty())
            step.mask = "1.0";
        Result<lang::Rule> mask = look::mask_rule(step, own_.space(), "", true);
        if (!mask) {
            peek.fault = mask.error().what;
            return peek;
        }
        peek.subject = subject::Subject(std::move(mask.value())).with_bindings(own_.bindings());
        options.source_spaces = source_spaces_for(peek.subject, space);
        peek.program = engine::compile(*peek.subject.rule(), options);
        return peek;
    }
    if (lens.measure) {
        peek.program = insight::measured(own_, *lens.measure, source_spaces_for(own_, space));
        peek.inside = peek.inside || space != own_.space();
        return peek;
    }
    lang::CheckOptions with;
    with.open = opener();
    with.print = lens.peeks;
    const lang::Checked checked = lang::check(good_text_, proof::vocabulary(), with);
    if (!checked.ok) {
        peek.fault = checked.print_diagnostics.empty() ? "the rule does not compile"
                                                       : lang::message(checked.print_diagnostics.front());
        return peek;
    }
    options.source_spaces = source_spaces_for(own_, space);
    peek.program = engine::compile(checked.rule, options);
    return peek;
}

const RuleState::Peek& RuleState::peek(const Lens& lens, const std::string& space) {
    const auto [entry, fresh] = peeks_.try_emplace({lens.peeks.empty() ? lens.id : lens.peeks, space});
    if (fresh)
        entry->second = made_peek(lens, space);
    if (!lens.step_mask)
        entry->second.subject = own_; // at the values of now
    return entry->second;
}

} // namespace kasuri::app
