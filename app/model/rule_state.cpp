#include "model/rule_state.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/lower.hpp"
#include "io/stretch.hpp"
#include "proof/proof.hpp"

#include <chrono>

namespace kasuri::app {

RuleState::Change RuleState::check(const std::string& text, const std::filesystem::path& path) {
    const std::uint64_t spaces = colour::spaces_generation();
    if (checked_ && text == text_ && path == path_ && spaces == spaces_)
        return Change::none;
    spaces_ = spaces;
    text_ = text;
    path_ = path;
    const auto from = std::chrono::steady_clock::now();
    lang::CheckOptions options;
    options.open = document::used_beside(path);
    checked_ = std::make_shared<const lang::Checked>(lang::check(text, proof::vocabulary(), options));
    if (checked_->ok) {
        peeks_.clear();
        good_ = checked_;
        good_text_ = text_;
        programs_.clear();
        sources_.clear();
        program("");
    }
    check_ms_ = std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count();
    return checked_->ok ? Change::rule : Change::faulty;
}

std::string RuleState::working() const { return std::string(engine::working_space(rule())); }

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
    peeks_.clear();
    return true;
}

std::vector<std::string> RuleState::source_spaces(const std::string& space) const {
    std::vector<std::string> spaces;
    for (const lang::SourceInput& source : rule().sources) {
        const auto given = given_.find(source.name);
        spaces.push_back(given != given_.end() && given->second ? given->second->space : space); // else of the same file
    }
    return spaces;
}

const engine::Program& RuleState::program(const std::string& space) {
    engine::ProgramPtr& entry = programs_[space];
    if (!entry) {
        engine::CompileOptions options;
        options.in_space = space;
        options.out_space = space;
        options.source_spaces = source_spaces(space);
        entry = engine::compile(rule(), options);
    }
    return *entry;
}

const RuleState::Peek& RuleState::peek(const Lens& lens, const std::string& space) {
    const auto [entry, fresh] = peeks_.try_emplace({lens.measure ? lens.id : lens.peeks, space});
    Peek& peek = entry->second;
    if (!fresh)
        return peek;
    if (lens.measure) {
        peek.program = insight::measured(rule(), *lens.measure, source_spaces(space));
        if (!space.empty() && space != working()) {
            const lang::Checked nothing = lang::check(rule().working.empty() ? "" : "working " + rule().working, proof::vocabulary());
            engine::CompileOptions options;
            options.in_space = space;
            peek.first = engine::compile(nothing.rule, options);
        }
        return peek;
    }
    lang::CheckOptions with;
    with.open = document::used_beside(path_);
    with.print = lens.peeks;
    const lang::Checked checked = lang::check(good_text_, proof::vocabulary(), with);
    if (!checked.ok) {
        peek.fault = checked.print_diagnostics.empty() ? "the rule does not compile" : lang::message(checked.print_diagnostics.front());
        return peek;
    }
    engine::CompileOptions options;
    options.in_space = space;
    options.print = true;
    options.source_spaces = source_spaces(space);
    peek.program = engine::compile(checked.rule, options);
    return peek;
}

PicturePtr RuleState::source(const lang::SourceInput& source, const ImagePtr& file) const {
    if (const auto given = given_.find(source.name); given != given_.end() && given->second)
        return given->second;
    return file ? engine::source_in(*file, source.name) : nullptr;
}

const engine::BoundSources& RuleState::sources_in(const ImagePtr& file, int width, int height) {
    // Without sources there is one for all sizes.
    const bool any = !rule().sources.empty();
    const auto [entry, fresh] = sources_.try_emplace({any ? file : nullptr, any ? width : 0, any ? height : 0});
    if (fresh) {
        std::vector<PicturePtr> pictures;
        for (const lang::SourceInput& each : rule().sources) {
            PicturePtr picture = source(each, file);
            if (picture && (picture->width != width || picture->height != height))
                picture = std::make_shared<const image::Picture>(io::stretched(*picture, width, height));
            pictures.push_back(std::move(picture));
        }
        entry->second = engine::bind_sources(rule(), pictures);
    }
    return entry->second;
}

bool RuleState::missing(std::size_t source, const ImagePtr& file) const { return !this->source(rule().sources[source], file); }

} // namespace kasuri::app
