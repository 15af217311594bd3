#include "subject.hpp"

#include "command.hpp"
#include "document/look_file.hpp"
#include "handover/look.hpp"

#include <fmt/format.h>

namespace kasuri::cli {
namespace {

/// A LUT by itself is a look of one step.
Result<document::Look> lut_alone(const std::string& file, const std::string& space) {
    Result<document::LookStep> step = document::step_from(file);
    if (!step)
        return step.error();
    if (!space.empty())
        step.value().space = space;
    document::Look look;
    look.title = std::filesystem::path(file).stem().string();
    look.steps.push_back(std::move(step.value()));
    return look;
}

} // namespace

LoadedSubject load_subject(const RuleOptions& options, const char* command) {
    LoadedSubject made;
    const bool is_lut = document::is_lut_name(options.filter);
    if (!options.filter.ends_with(document::look_ending) && !is_lut) {
        made.filter = load(options);
        made.exit = made.filter.exit;
        if (made.exit == Exit::good)
            made.subject = handover::subject_of(made.filter.rule, made.filter.values);
        return made;
    }
    if (!options.settings.empty() || !options.preset.empty()) {
        fmt::print(stderr, "kasuri-cli {}: {}; --set and --preset are for filters\n", command,
                   is_lut ? "a LUT has no values" : "a look has its own values");
        made.exit = Exit::usage;
        return made;
    }
    if (is_lut && !known_space(options.lut_space)) {
        made.exit = Exit::usage;
        return made;
    }
    const Result<document::Look> look =
        is_lut ? lut_alone(options.filter, options.lut_space) : document::load_look(options.filter);
    if (!look) {
        made.exit = complain(look.error());
        return made;
    }
    const auto runs = handover::runnable(look.value(), std::filesystem::path(options.filter).parent_path());
    if (!runs) {
        fmt::print(stderr, "{}: {}\n", options.filter, runs.error().text());
        made.exit = Exit::rule_failed;
        return made;
    }
    made.notes = runs.value()->notes;
    made.subject = handover::subject_of(runs.value(), look.value());
    made.look = look.value();
    for (const std::string& note : made.notes)
        fmt::print(stderr, "{}: note: {}\n", options.filter, note);
    return made;
}

} // namespace kasuri::cli
