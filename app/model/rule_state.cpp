#include "model/rule_state.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/lower.hpp"
#include "io/stretch.hpp"
#include "proof/proof.hpp"

#include <chrono>

namespace kasuri::app {

RuleState::Change RuleState::check(const std::string& text, const std::filesystem::path& path,
                                   const std::map<std::string, std::string>& uses) {
    const std::uint64_t spaces = colour::spaces_generation();
    if (checked_ && text == text_ && path == path_ && uses == uses_ && spaces == spaces_)
        return Change::none;
    spaces_ = spaces;
    text_ = text;
    path_ = path;
    uses_ = uses;
    const auto from = std::chrono::steady_clock::now();
    lang::CheckOptions options;
    options.open = opener();
    checked_ = std::make_shared<const lang::Checked>(lang::check(text, proof::vocabulary(), options));
    if (checked_->ok) {
        peeks_.clear();
        good_ = checked_;
        good_text_ = text_;
        programs_.clear();
        sources_.clear();
        own_program_.reset();
        own_program();
    }
    check_ms_ = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count();
    return checked_->ok ? Change::rule : Change::faulty;
}

std::function<Result<std::string>(const std::string&)> RuleState::opener() const {
    document::LookStep step;
    step.filter = path_.string();
    step.uses = uses_;
    return document::used_by(step, folder_);
}

std::string RuleState::working() const { return std::string(engine::working_space(rule())); }

std::string RuleState::entry() const {
    return whole_ && !whole_->steps.empty() ? std::string(engine::space_of(whole_->steps.front())) : working();
}

bool RuleState::set_values(std::vector<double> values) {
    if (values == values_)
        return false;
    values_ = std::move(values);
    return true;
}

bool RuleState::set_given(GivenSources given) {
    if (given == given_)
        return false;
    given_ = std::move(given);
    sources_.clear();
    programs_.clear(); // they know the spaces of their sources
    own_program_.reset();
    peeks_.clear();
    return true;
}

bool RuleState::set_around(AroundPtr around, Part part) {
    if (!around && !around_)
        return false;
    if (!around || around->look.steps.empty()) {
        around_.reset();
        whole_.reset();
        before_.reset();
        structure_ = {};
        programs_.clear();
        sources_.clear();
        peeks_.clear();
        return true;
    }
    const std::vector<double> values = all_values_;
    const auto was = whole_;
    around_ = std::move(around);
    part_ = part;
    look_again();
    return whole_ != was || all_values_ != values;
}

void RuleState::look_again() {
    document::Look look = around_->look;
    document::LookStep& mine = look.steps[around_->in_hand];
    if (!document::is_no_rule(mine)) { // the last text that compiled stays in view
        mine.text = good_text_;
        mine.values.clear();
        for (std::size_t i = 0; i < values_.size() && i < rule().parameters.size(); ++i)
            mine.values[rule().parameters[i].name] = values_[i];
    }
    document::Look before = look;
    before.steps.resize(around_->in_hand);
    look.steps.resize(part_ == Part::before     ? around_->in_hand
                          : around_->up_to_here ? around_->in_hand + 1
                                                : look.steps.size());
    document::Look structure = handover::structure_of(look), first = handover::structure_of(before);
    if (!before_ || first != first_) {
        before_ = handover::runnable_so_far(before, folder_);
        first_ = std::move(first);
        peeks_.clear();
        std::erase_if(sources_, [](const auto& entry) { return std::get<0>(entry.first) == Whose::before; });
    }
    before_values_ = handover::parameters_of(*before_, before);
    if (!whole_ || structure != structure_) {
        whole_ = handover::runnable_so_far(look, folder_);
        structure_ = std::move(structure);
        programs_.clear();
        peeks_.clear();
        sources_.clear();
    }
    all_values_ = handover::parameters_of(*whole_, look);
}

std::vector<std::pair<std::size_t, Error>> RuleState::faults() const {
    return whole_ ? whole_->faults : std::vector<std::pair<std::size_t, Error>>();
}

std::vector<std::string> RuleState::spaces_of(std::span<const lang::SourceInput> sources,
                                              const std::string& space) const {
    std::vector<std::string> spaces;
    for (const lang::SourceInput& source : sources) {
        const auto given = given_.find(source.name);
        spaces.push_back(given != given_.end() && given->second ? given->second->space
                                                                : space); // else of the same file
    }
    return spaces;
}

engine::ProgramPtr RuleState::compiled(std::span<const engine::ChainStep> steps, const std::string& in,
                                       const std::string& out) const {
    engine::CompileOptions options;
    options.in_space = in;
    options.out_space = out;
    options.source_spaces = spaces_of(handover::sources_of(steps), in);
    return engine::compile_chain(steps, options);
}

const engine::Program& RuleState::program(const std::string& space) {
    engine::ProgramPtr& made = programs_[space];
    if (!made && whole_) {
        const std::string& own = space.empty() ? entry() : space;
        made = compiled(whole_->steps, own, own);
    } else if (!made && space.empty()) {
        own_program();
        made = own_program_;
    } else if (!made) {
        engine::CompileOptions options;
        options.in_space = space;
        options.out_space = space;
        options.source_spaces = spaces_of(rule().sources, space);
        made = engine::compile(rule(), options);
    }
    return *made;
}

const engine::Program& RuleState::own_program() {
    if (!own_program_) {
        engine::CompileOptions options;
        options.source_spaces = spaces_of(rule().sources, "");
        own_program_ = engine::compile(rule(), options);
    }
    return *own_program_;
}

RuleState::Peek RuleState::made_peek(const Lens& lens, const std::string& space) const {
    Peek peek;
    const bool in_look = before_ && !before_->steps.empty();
    // What it is evaluated on: the picture as it is, or what comes into the rule, in its working space.
    const std::string in = in_look ? std::string() : space;
    if (in_look) {
        peek.first = compiled(before_->steps, space.empty() ? entry() : space, working());
        peek.first_is_look = true;
    }
    if (lens.step_mask) {
        document::LookStep step;
        if (around_)
            step = around_->look.steps[around_->in_hand];
        if (step.mask.empty())
            step.mask = "1.0";
        const Result<lang::Rule> mask = handover::mask_rule(step, working(), "", true);
        if (!mask) {
            peek.fault = mask.error().what;
            return peek;
        }
        engine::CompileOptions options;
        options.in_space = in;
        options.print = true;
        options.source_spaces = spaces_of(mask.value().sources, space);
        peek.sources = mask.value().sources;
        peek.is_mask = true;
        peek.program = engine::compile(mask.value(), options);
        return peek;
    }
    if (lens.measure) {
        peek.program = insight::measured(rule(), *lens.measure, spaces_of(rule().sources, space));
        if (!in_look && !space.empty() && space != working()) {
            const lang::Checked nothing =
                lang::check(rule().working.empty() ? "" : "working " + rule().working, proof::vocabulary());
            engine::CompileOptions options;
            options.in_space = space;
            peek.first = engine::compile(nothing.rule, options);
        }
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
    engine::CompileOptions options;
    options.in_space = in;
    options.print = true;
    options.source_spaces = spaces_of(rule().sources, space);
    peek.program = engine::compile(checked.rule, options);
    return peek;
}

const RuleState::Peek& RuleState::peek(const Lens& lens, const std::string& space) {
    const auto [entry, fresh] = peeks_.try_emplace({lens.peeks.empty() ? lens.id : lens.peeks, space});
    if (fresh)
        entry->second = made_peek(lens, space);
    return entry->second;
}

PicturePtr RuleState::source(const lang::SourceInput& source, const ImagePtr& file) const {
    if (const auto given = given_.find(source.name); given != given_.end() && given->second)
        return given->second;
    return file ? engine::source_in(*file, source.name) : nullptr;
}

std::vector<lang::SourceInput> RuleState::sources() const {
    return whole_ ? handover::sources_of(whole_->steps) : rule().sources;
}

std::vector<PicturePtr> RuleState::pictures_for(std::span<const lang::SourceInput> sources, const ImagePtr& file,
                                                int width, int height) const {
    std::vector<PicturePtr> pictures;
    for (const lang::SourceInput& each : sources) {
        PicturePtr picture = source(each, file);
        if (picture && (picture->width != width || picture->height != height))
            picture = std::make_shared<const image::Picture>(io::stretched(*picture, width, height));
        pictures.push_back(std::move(picture));
    }
    return pictures;
}

const engine::BoundSources& RuleState::bound(Whose whose, const ImagePtr& file, int width, int height) {
    // Without sources there is one for all sizes.
    const bool chain = whose != Whose::own && around_;
    const std::vector<engine::ChainStep>* const steps =
        chain ? &(whose == Whose::before ? before_ : whole_)->steps : nullptr;
    const std::vector<lang::SourceInput> sources = chain ? handover::sources_of(*steps) : rule().sources;
    const bool any = !sources.empty();
    const auto [entry, fresh] = sources_.try_emplace({whose, any ? file : nullptr, any ? width : 0, any ? height : 0});
    if (fresh) {
        const std::vector<PicturePtr> pictures = pictures_for(sources, file, width, height);
        entry->second = engine::bind_sources(sources, pictures);
    }
    return entry->second;
}

} // namespace kasuri::app
