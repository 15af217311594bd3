#include "subject.hpp"

#include "base/file_kind.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "handover/render.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "opening/open.hpp"
#include "streams.hpp"

#include <fmt/format.h>

namespace kasuri::cli {
int say_not_measured(const std::string& file, const std::vector<std::string>& sources) {
    complain({fmt::format("not measured: no picture for {}", fmt::join(sources, ", ")), file,
              fmt::format("Give --source {}=FILE", sources.front())});
    return Exit::not_measured;
}

LoadedSubject load_subject(const RuleOptions& asked) {
    LoadedSubject made;
    RuleOptions options = asked;
    if (!options.lut_ending.empty() && options.filter == standard_stream) {
        auto file = standard_input(options.lut_ending);
        if (!file) {
            made.exit = complain(file.error());
            return made;
        }
        options.filter = std::move(file.value());
    }
    made.is_filter = !opening::is_look_or_lut(options.filter);
    if (made.is_filter) {
        Loaded filter = load(options);
        made.exit = filter.exit;
        made.text = std::move(filter.text);
        made.diagnostics = std::move(filter.diagnostics);
        if (made.exit == Exit::good)
            made.subject = subject::Subject(std::move(filter.rule), filter.values);
    } else {
        const bool is_lut = is_kind(options.filter, FileKind::lut);
        if (!options.settings.empty() || !options.preset.empty()) {
            made.exit = refuse(Exit::usage, "{}; --set and --preset are for filters",
                               is_lut ? "a LUT has no values" : "a look has its own values");
            return made;
        }
        if (is_lut && !known_space(options.lut_space)) {
            made.exit = Exit::usage;
            return made;
        }
        Result<document::Look> look = opening::look_of(options.filter, {options.lut_space, options.trilinear});
        if (!look) {
            made.exit = complain(look.error());
            return made;
        }
        made.look = std::move(look.value());
        // A look's own files are looked for beside it; a LUT is named from where we are.
        Result<look::Made> runs = look::make(
            made.look, is_lut ? std::filesystem::path() : std::filesystem::path(options.filter).parent_path());
        if (const auto read = is_lut && !runs ? std::optional(io::read_lut(options.filter)) : std::nullopt;
            read && !*read) { // the file by itself, not the step that was made of it
            made.exit = complain(read->error());
            return made;
        }
        if (!runs) {
            complain(within(options.filter, runs.error()));
            // A LUT is data that came in, not a rule that failed.
            made.exit = is_lut ? Exit::input_output : Exit::rule_failed;
            return made;
        }
        made.subject = std::move(runs.value().subject);
        made.notes = std::move(runs.value().notes);
        for (const std::string& note : made.notes)
            say_note(options.filter, note);
    }
    if (made.exit != Exit::good || options.sources.empty())
        return made;
    Result<subject::Subject> bound = handover::with_sources(made.subject, options.sources);
    if (bound)
        made.subject = std::move(bound.value());
    else
        made.exit = complain(bound.error());
    return made;
}

} // namespace kasuri::cli
