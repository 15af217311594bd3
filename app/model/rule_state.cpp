#include "model/rule_state.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/sources.hpp"
#include "insight/derivative.hpp"
#include "proof/proof.hpp"

#include <algorithm>
#include <chrono>

namespace kasuri::app {

RuleState::Change RuleState::check(const std::string& text, const std::filesystem::path& path,
                                   const std::map<std::string, std::string>& uses, std::uint64_t files,
                                   const CancelToken& cancel) {
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
        own_ = alone_ = subject::Subject(good_->rule);
        whole_ = {own_};
        made_ = false;
        peeks_.clear();
        (void)own_.program({}, {}, {}, false, &cancel); // so that the time says all
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

bool RuleState::put(const ValueMap& values, const subject::Bindings& bindings, const AroundPtr& around, Part part,
                    const CancelToken& cancel) {
    if (!has_rule())
        return true;
    const bool in_look = around && !around->look.steps.empty();
    if (const bool detached = own_.chain_ptr() != alone_.chain_ptr(); detached != in_look) {
        const bool looks_back = std::any_of(rule().sources.begin(), rule().sources.end(),
                                            [](const lang::SourceInput& s) { return !lang::is_external(s); });
        own_ = in_look && looks_back ? subject::Subject(engine::with_own_sources(rule())) : alone_;
        peeks_.clear();
    }
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
        return own_.chain().prepare(cancel);
    }
    around_ = around;
    document::Look look = around->look;
    document::LookStep& mine = look.steps[around->active];
    if (!document::is_no_rule(mine)) { // the last text that compiled stays in view
        mine.text = good_text_;
        mine.values.clear();
        for (std::size_t i = 0; i < rule().parameters.size(); ++i)
            mine.values[rule().parameters[i].name] = own_.values()[i];
    }
    document::Look before = look;
    before.steps.resize(around->active);
    look.steps.resize(part == Part::before     ? around->active
                          : around->up_to_here ? around->active + 1
                                               : look.steps.size());
    if (!made_ || !look::same_structure(before, first_)) {
        std::optional<look::Made> made = look::make_so_far(before, {}, cancel);
        made_ = made && made_; // or both are made again
        if (!made)
            return false;
        before_ = std::move(*made);
        first_ = std::move(before);
        peeks_.clear();
    } else {
        before_.subject = before_.subject.at(look::values_of(before_, before));
    }
    if (!made_ || !look::same_structure(look, look_)) {
        std::optional<look::Made> made = look::make_so_far(look, {}, cancel);
        made_ = false;
        if (!made)
            return false;
        whole_ = std::move(*made);
        look_ = std::move(look);
        peeks_.clear();
    } else {
        whole_.subject = whole_.subject.at(look::values_of(whole_, look));
    }
    made_ = true;
    before_.subject = before_.subject.with_bindings(bindings);
    whole_.subject = whole_.subject.with_bindings(bindings);
    return whole_.subject.chain().prepare(cancel);
}

bool RuleState::has_step(int number) const {
    return around_ && number >= 1 && static_cast<std::size_t>(number) <= around_->look.steps.size();
}

std::optional<subject::Subject> RuleState::up_to(int number) const {
    if (!around_)
        return whole_.subject;
    const auto end = std::partition_point(whole_.numbers.begin(), whole_.numbers.end(),
                                          [&](std::size_t step) { return static_cast<int>(step) < number; });
    const auto count = static_cast<std::size_t>(end - whole_.numbers.begin());
    return count > 0 ? std::optional(whole_.subject.part(0, count - 1)) : std::nullopt;
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

std::vector<RuleState::LookBack> RuleState::looks_back(const lang::Rule& rule, bool of_mask) const {
    std::vector<LookBack> all;
    if (!around_)
        return all;
    const auto place = std::find(whole_.numbers.begin(), whole_.numbers.end(), around_->active);
    if (place == whole_.numbers.end())
        return all; // it is off, or left out
    const engine::ChainStep& step = whole_.subject.steps()[static_cast<std::size_t>(place - whole_.numbers.begin())];
    const std::vector<int>& reads = of_mask ? step.mask_reads : step.rule_reads;
    for (std::size_t i = 0; i < rule.sources.size(); ++i)
        if (const lang::SourceInput& source = rule.sources[i]; !lang::is_external(source)) {
            const bool picture = source.reads == lang::SourceInput::Reads::picture || i >= reads.size();
            all.push_back({source.name, picture ? engine::ChainStep::before_all : reads[i], source.channel});
        }
    return all;
}

std::vector<RuleState::LookBack> RuleState::looks_back() const {
    return has_rule() ? looks_back(rule(), false) : std::vector<LookBack>();
}

RuleState::Peek RuleState::made_peek(const Lens& lens, const std::string& space) const {
    Peek peek;
    peek.subject = own_;
    peek.inside = !before_.subject.steps().empty();
    peek.looks_back = looks_back();
    engine::CompileOptions options;
    options.in_space = peek.inside ? std::string_view() : std::string_view(space);
    options.print = true;
    if (lens.step_mask) {
        document::LookStep step;
        if (around_)
            step = around_->look.steps[around_->active];
        if (step.mask.empty())
            step.mask = "1.0";
        Result<lang::Rule> mask = look::mask_rule(step, own_.space(), "", true);
        if (!mask) {
            peek.fault = translated(mask.error().what);
            return peek;
        }
        if (around_) {
            peek.looks_back = looks_back(mask.value(), true);
            mask = engine::with_own_sources(std::move(mask.value()));
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
    peek.program = engine::compile(around_ ? engine::with_own_sources(checked.rule) : checked.rule, options);
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
