#include "subject.hpp"

#include "command.hpp"
#include "document/look_file.hpp"
#include "handover/look.hpp"

#include <fmt/format.h>

namespace kasuri::cli {

LoadedSubject load_subject(const RuleOptions& options, const char* command) {
    LoadedSubject made;
    if (!options.filter.ends_with(document::look_ending)) {
        made.filter = load(options);
        made.exit = made.filter.exit;
        if (made.exit == Exit::good)
            made.subject = handover::subject_of(made.filter.rule, made.filter.values);
        return made;
    }
    if (!options.settings.empty() || !options.preset.empty()) {
        fmt::print(stderr, "kasuri-cli {}: a look has its own values; --set and --preset are for filters\n", command);
        made.exit = Exit::usage;
        return made;
    }
    const Result<document::Look> look = document::load_look(options.filter);
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
    for (const std::string& note : made.notes)
        fmt::print(stderr, "{}: note: {}\n", options.filter, note);
    return made;
}

} // namespace kasuri::cli
