#include "base/file.hpp"
#include "base/parallel.hpp"
#include "command.hpp"
#include "common.hpp"
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "handover/render.hpp"
#include "json.hpp"
#include "look/make.hpp"
#include "proof/look.hpp"
#include "proof/report.hpp"
#include "subject.hpp"

#include "base/file_kind.hpp"
#include <algorithm>
#include <atomic>
#include <filesystem>
#include <fmt/format.h>
#include <memory>
#include <unistd.h>

namespace fs = std::filesystem;

namespace kasuri::cli {
namespace {

using T = JsonType;
constexpr JsonField answer[] = {
    {"filters", T::objects, "filters, steps of looks and looks as a whole; with --quiet only what fails"},
    {"filters/file", T::text, "its name; of a step, the look's and which one"},
    {"filters/good", T::flag, "whether nothing fails"},
    {"filters/fault", T::text, "why nothing could be measured", "where that is so"},
    {"filters/proofs", T::objects, "those of its lines, or where it has none what could be promised"},
    {"filters/proofs/title", T::text, "as it is written"},
    {"filters/proofs/function", T::text, "what it measures, such as neutral"},
    {"filters/proofs/promised", T::flag, "whether it is a line of the filter; else it judges nothing"},
    {"filters/proofs/passed", T::flag, "whether it holds"},
    {"filters/proofs/proved", T::flag, "whether algebra shows it for all colours; else it is bounded or was sampled"},
    {"filters/proofs/bounded", T::flag,
     "whether interval arithmetic bounds it for every colour of the cube or ramp it is measured on"},
    {"filters/proofs/bounded-values", T::flag, "whether it does for every value of every parameter, too"},
    {"filters/proofs/figure", T::number, "what was measured"},
    {"filters/proofs/relation", T::text, "how that must be to the limit: <=, >= or empty"},
    {"filters/proofs/limit", T::number, "the limit"},
    {"filters/proofs/samples", T::whole, "how many colours"},
    {"filters/proofs/settings", T::whole, "at how many settings of its parameters"},
    {"filters/proofs/without-picture", T::texts, "further pictures that were not given, and taken to be many things"},
    {"filters/proofs/worst", T::object, "where it is worst"},
    {"filters/proofs/worst/target", T::text, "the target that the colour is of; empty: none"},
    {"filters/proofs/worst/index", T::whole, "which of its pixels"},
    {"filters/proofs/worst/before", T::numbers, "r, g, b, a that come in"},
    {"filters/proofs/worst/after", T::numbers, "r, g, b, a that come out"},
    {"filters/proofs/worst/values", T::values, "of the parameters"},
    {"failed", T::whole, "how many of all fail"},
    {"all", T::whole, "how many there are"},
};

struct Options {
    RuleOptions rule;
    std::vector<std::string> paths;
    std::string junit;
    bool quiet = false, json = false;
};

/// The filters that the paths name: files as they are, folders with all that lie below, in the order of their
/// names.
std::optional<std::vector<std::string>> filters_of(const std::vector<std::string>& paths) {
    std::vector<std::string> files;
    for (const std::string& path : paths) {
        std::error_code failure;
        if (!fs::is_directory(path, failure)) {
            files.push_back(path);
            continue;
        }
        if (const Status readable = readable_folder(path); !readable) {
            complain(readable.error());
            return std::nullopt;
        }
        std::vector<std::string> found;
        for (fs::recursive_directory_iterator entry(path, fs::directory_options::skip_permission_denied, failure), end;
             !failure && entry != end; entry.increment(failure))
            if ((is_kind(entry->path(), FileKind::filter) || is_kind(entry->path(), FileKind::look)) &&
                entry->is_regular_file(failure))
                found.push_back(entry->path().string());
        if (failure) {
            complain({fmt::format("cannot be read: {}", failure.message()), path, ""});
            return std::nullopt;
        }
        if (found.empty()) {
            complain({"has no filter in it", path, "Filters are files that end in .kasuri, looks end in .kasurilook."});
            return std::nullopt;
        }
        std::sort(found.begin(), found.end());
        files.insert(files.end(), found.begin(), found.end());
    }
    return files;
}

struct Work {
    proof::FilterReport report;
    subject::Subject subject{};
    std::vector<std::vector<double>> settings{};
    int exit = Exit::good;
    std::optional<lang::Rule> statements{}; ///< of a look as a whole: what it promises
};

/// Says what is wrong with the text on standard error, in order, so that lines of several filters do not mix.
Work prepared(const Options& options, const std::string& file) {
    RuleOptions rule = options.rule;
    rule.filter = file;
    const std::size_t before = said_messages().size();
    LoadedSubject loaded = load_subject(rule);
    Work work;
    work.report.file = file;
    work.report.say(loaded.diagnostics, loaded.text);
    work.exit = loaded.exit;
    if (loaded.exit != Exit::good) {
        const bool said = said_messages().size() > before;
        work.report.fault = said ? said_messages().back().what : "the rule does not compile";
        return work;
    }
    work.subject = std::move(loaded.subject);
    work.settings = rule.settings.empty() && rule.preset.empty()
        ? proof::settings_of(*work.subject.rule())
        : std::vector<std::vector<double>>{work.subject.values()};
    return work;
}

/// Those that the subject reads: of a look's steps each reads some of them.
Result<subject::Subject> with_known_sources(const subject::Subject& subject, const std::vector<std::string>& sources) {
    std::vector<std::string> mine;
    for (const std::string& text : sources)
        if (std::any_of(subject.sources().begin(), subject.sources().end(),
                        [&](const lang::SourceInput& source) { return text.starts_with(source.name + "="); }))
            mine.push_back(text);
    return handover::with_sources(subject, mine);
}

/// What a look promises as a whole.
void prepare_whole(const document::Look& look, const std::filesystem::path& folder, const std::string& name,
                   const std::vector<std::string>& sources, std::vector<Work>& all) {
    Work work;
    work.report.file = name + ", as a whole";
    const auto fail = [&](const Error& error) {
        complain(within(name, error));
        work.report.fault = error.what;
        work.exit = Exit::rule_failed;
    };
    Result<look::Made> runs = look::make(look, folder);
    if (!runs) { // masks, blend modes, LUTs
        fail(runs.error());
        all.push_back(std::move(work));
        return;
    }
    if (look.proofs.empty())
        return;
    if (Result<subject::Subject> bound = with_known_sources(runs.value().subject, sources))
        work.subject = std::move(bound.value());
    else
        fail(bound.error());
    Result<lang::Rule> statements =
        proof::look_statements(look.proofs, work.subject.space(), document::used_beside(folder / "look"));
    if (statements)
        work.statements = std::move(statements.value());
    else
        fail(statements.error());
    all.push_back(std::move(work));
}

/// The steps of a look, each at its values: a look keeps what its filters promise only if they keep it there.
/// Steps that are off are passed over.
void prepare_look(const std::vector<document::LookStep>& steps, const std::filesystem::path& folder,
                  const std::string& name, const std::vector<std::string>& sources, std::vector<Work>& all) {
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const document::LookStep& step = steps[i];
        const std::string title =
            fmt::format("{}, step {}{}", name, i + 1, step.label.empty() ? "" : " (" + step.label + ")");
        if (!step.on || !step.lut.empty())
            continue;
        if (step.is_look) {
            document::Look within;
            within.steps = step.within;
            within.proofs = step.proofs;
            prepare_look(within.steps, folder, title, sources, all);
            if (!within.proofs.empty())
                prepare_whole(within, folder, title, sources, all);
            continue;
        }
        Work work;
        work.report.file = title;
        lang::CheckOptions with;
        with.open = document::used_by(step, folder);
        lang::Checked checked = lang::check(step.text, proof::vocabulary(), with);
        say_diagnostics(checked.diagnostics, step.text, title);
        work.report.say(checked.diagnostics, step.text);
        if (!checked.ok) {
            work.exit = Exit::rule_failed;
            work.report.fault = "the rule does not compile";
        } else {
            std::vector<double> values;
            for (const lang::Parameter& p : checked.rule.parameters) {
                const auto chosen = step.values.find(p.name);
                values.push_back(chosen == step.values.end() ? p.value : lang::allowed_value(p, chosen->second));
            }
            work.settings = {values};
            work.subject = subject::Subject(std::move(checked.rule), values);
            if (Result<subject::Subject> bound = with_known_sources(work.subject, sources)) {
                work.subject = std::move(bound.value());
            } else {
                work.exit = complain(bound.error());
                work.report.fault = bound.error().what;
            }
        }
        all.push_back(std::move(work));
    }
}

void print_table(const Work& work, bool several) {
    if (several)
        fmt::print("{}\n", work.report.file);
    if (!work.report.fault.empty()) {
        fmt::print("{}\n", work.report.fault);
        return;
    }
    if (!work.statements && work.subject.rule()->proofs.empty())
        fmt::print("Nothing is promised: the filter has no proof lines. What could be promised:\n");
    for (const proof::Outcome& outcome : work.report.outcomes)
        fmt::print("{}\n", proof::report(outcome));
    if (work.report.promised() > 0)
        fmt::print("{} of {} proofs fail\n", work.report.failed(), work.report.promised());
}

Json json_of(const Work& work) {
    const proof::FilterReport& report = work.report;
    Json made = {{"file", report.file}, {"good", report.good()}};
    if (!report.fault.empty())
        made["fault"] = report.fault;
    made["proofs"] = Json::array();
    for (const proof::Outcome& outcome : report.outcomes) {
        Json values = Json::object();
        const auto parameters = work.subject.parameters();
        for (std::size_t i = 0; !work.statements && i < outcome.values.size() && i < parameters.size(); ++i)
            values[parameters[i].name] = json_number(outcome.values[i]);
        made["proofs"].push_back({{"title", outcome.title},
                                  {"function", outcome.function},
                                  {"promised", !outcome.offered},
                                  {"passed", outcome.passed},
                                  {"proved", outcome.proved},
                                  {"bounded", outcome.bounded},
                                  {"bounded-values", outcome.bounded_values},
                                  {"figure", json_number(outcome.figure)},
                                  {"relation", outcome.relation},
                                  {"limit", json_number(outcome.limit)},
                                  {"samples", outcome.samples},
                                  {"settings", outcome.settings},
                                  {"without-picture", outcome.varied},
                                  {"worst",
                                   {{"target", outcome.worst.target},
                                    {"index", outcome.worst.index},
                                    {"before", json_numbers(outcome.worst.before)},
                                    {"after", json_numbers(outcome.worst.after)},
                                    {"values", values}}}});
    }
    return made;
}

int run(const Options& options) {
    const auto files = filters_of(options.paths);
    if (!files)
        return Exit::input_output;
    bool several = false;
    std::vector<Work> all;
    for (const std::string& file : *files) {
        if (!is_kind(file, FileKind::look)) {
            all.push_back(prepared(options, file));
            continue;
        }
        const Result<document::Look> look = document::load_look(file);
        if (!look)
            return complain(look.error());
        const std::filesystem::path folder = std::filesystem::path(file).parent_path();
        const std::size_t before = all.size();
        prepare_whole(look.value(), folder, file, options.rule.sources, all);
        if (all.size() > before && all.back().exit != Exit::good && !all.back().statements) // it cannot run
            continue;
        prepare_look(look.value().steps, folder, file, options.rule.sources, all);
    }
    several = all.size() > 1;
    std::atomic<std::size_t> done{0};
    const bool told = several && isatty(STDERR_FILENO) != 0;
    parallel_ranges(all.size(), 1, {}, [&](std::size_t first, std::size_t last) {
        for (std::size_t i = first; i < last; ++i) {
            Work& work = all[i];
            if (work.exit == Exit::good)
                proof::check_all(work.subject, work.settings, work.report, {},
                                 work.statements ? &*work.statements : nullptr);
            const std::size_t now = ++done;
            if (told)
                fmt::print(stderr, "\r{} of {} filters", now, all.size());
        }
    });
    if (told)
        fmt::print(stderr, "\r{:40}\r", "");
    int exit = Exit::good;
    std::size_t failed = 0;
    for (const Work& work : all) {
        exit = std::max(
            exit, work.exit == Exit::good && !work.report.good() ? static_cast<int>(Exit::rule_failed) : work.exit);
        failed += work.report.good() ? 0 : 1;
        if (!options.json && (!options.quiet || !work.report.good()))
            if (work.exit == Exit::good || several)
                print_table(work, several);
    }
    if (!options.json && several)
        fmt::print("{} of {} filters fail\n", failed, all.size());
    if (!options.junit.empty()) {
        std::vector<proof::FilterReport> reports;
        for (const Work& work : all)
            reports.push_back(work.report);
        if (const Status written = write_out(options.junit, proof::junit(reports)); !written)
            return complain(written.error());
    }
    if (!options.json)
        return exit;
    Json filters = Json::array();
    for (const Work& work : all)
        if (!options.quiet || !work.report.good())
            filters.push_back(json_of(work));
    return print_json({{"filters", filters}, {"failed", failed}, {"all", all.size()}}, exit);
}

} // namespace

extern const Command check_command;
const Command check_command = {
    "check", "Measure the proofs of filters, and of the steps of looks",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments
            .value("FILTER", options->paths, "Filters (.kasuri), looks (.kasurilook), or folders: all of them below")
            .required();
        arguments.value("--preset", options->rule.preset, "Measure at the values of this preset")
            .completes(Completes::preset);
        arguments.value("--set", options->rule.settings, "NAME=VALUE of a parameter; may be given several times")
            .completes(Completes::setting)
            .take_all();
        options->rule.define_sources(arguments);
        arguments.value("--junit", options->junit, "Also write a JUnit XML file, for a build server")
            .completes(Completes::file);
        arguments.flag("--quiet", options->quiet, "Only what fails");
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "Without --set and --preset every proof is measured at the defaults, at every preset, and with "
            "each\n"
            "parameter at either end of its range; with them, at those values. Proofs about the defaults\n"
            "(identity) are always measured at the defaults. Steps of looks, and looks as a whole, are "
            "measured at their values. \"proved\": certain for all colours by algebra;\n"
            "\"bounded\": by interval arithmetic, for every colour of the cube or ramp that is measured;\n"
            "\"sampled\": measured on so many. Exit code 1 if anything fails.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
