#include "handover/cdl.hpp"
#include "base/file.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "json.hpp"
#include "subject.hpp"

#include "base/file_kind.hpp"
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string out, space;
    bool clamped = false, json = false;
};

constexpr struct {
    const char *name, *words;
} forms[] = {
    {"open", "in the form without clamps"},
    {"clamped", "in the form that is clamped to 0 .. 1"},
    {"above-0", "where no base (in * slope + offset) is below 0; there it goes another way than the standard"}};

using T = JsonType;
constexpr const char* of_filter = "of a filter or a look";
constexpr JsonField answer[] = {
    {"slope", T::numbers, "r, g, b", of_filter},
    {"offset", T::numbers, "r, g, b", of_filter},
    {"power", T::numbers, "r, g, b", of_filter},
    {"saturation", T::number, "1 keeps it", of_filter},
    {"space", T::text, "in which the numbers are meant"},
    {"form", T::text, "open: without clamps; clamped: to 0 .. 1; above-0: where no base of a power is negative",
     of_filter},
    {"exact", T::flag, "whether it is the list for all numbers", of_filter},
    {"largest", T::number, "how far a channel is off, on colours from -0.25 to 1.25", of_filter},
    {"filters", T::objects, "what became of the corrections", "of a list"},
    {"filters/id", T::text, "of the correction; empty: it has none"},
    {"filters/file", T::text, "what was written; empty: nothing"},
    {"filters/rule", T::text, "the filter's text"},
};

/// A colour decision list becomes a filter.
int into_filter(const Options& options) {
    const auto all = io::read_cdl(options.rule.filter);
    if (!all)
        return complain(all.error());
    const std::string space = options.space.empty() ? "acescct" : options.space;
    Json made = Json::array();
    for (std::size_t i = 0; i < all.value().size(); ++i) {
        const io::Cdl& cdl = all.value()[i];
        const std::string text = handover::filter_of(
            cdl, cdl.id.empty() ? std::filesystem::path(options.rule.filter).stem().string() : cdl.id, space,
            options.clamped);
        if (options.json && options.out.empty()) {
            made.push_back({{"id", cdl.id}, {"file", ""}, {"rule", text}});
            continue;
        }
        if (options.out.empty() || options.out == standard_stream) {
            if (const Status there = free_output(); !there)
                return complain(there.error());
            fmt::print("{}{}", i > 0 ? "\n" : "", text);
            continue;
        }
        std::filesystem::path out = options.out;
        if (all.value().size() > 1) // one file each
            out.replace_filename(fmt::format("{}-{}{}", out.stem().string(), i + 1, out.extension().string()));
        if (const Status written = write_file(out, text); !written)
            return complain(written.error());
        if (options.json)
            made.push_back({{"id", cdl.id}, {"file", out.string()}, {"rule", text}});
        else
            fmt::print("{}\n", out.string());
    }
    if (options.json)
        return print_json({{"space", space}, {"filters", made}});
    return Exit::good;
}

int run(const Options& options) {
    if (!known_space(options.space))
        return Exit::usage;
    if (is_kind(options.rule.filter, FileKind::correction))
        return into_filter(options);
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const auto found = handover::cdl_of(loaded.subject, options.space);
    if (!found)
        return refuse(Exit::rule_failed,
                      "{}: is not a colour decision list in {}: neither gains, offsets and a "
                      "saturation, nor three curves (x * slope + offset) ^ power",
                      options.rule.filter, options.space.empty() ? loaded.subject.space() : options.space);
    if (!options.out.empty()) {
        if (!is_kind(options.out, FileKind::correction))
            return refuse(Exit::usage, "{}: write .cc, .ccc or .cdl", options.out);
        io::Cdl cdl = found->cdl;
        cdl.description = loaded.subject.title();
        if (const Status written = io::write_cdl(options.out, cdl); !written)
            return complain(written.error());
    }
    if (options.json)
        return print_json({{"slope", json_numbers(found->cdl.slope)},
                           {"offset", json_numbers(found->cdl.offset)},
                           {"power", json_numbers(found->cdl.power)},
                           {"saturation", found->cdl.saturation},
                           {"space", options.space.empty() ? loaded.subject.space() : options.space},
                           {"form", forms[static_cast<std::size_t>(found->form)].name},
                           {"exact", found->exact},
                           {"largest", json_number(found->largest)}});
    const auto line = [](const char* name, const std::array<double, 3>& x) {
        fmt::print("{} {} {} {}\n", name, number_text(x[0], 9), number_text(x[1], 9), number_text(x[2], 9));
    };
    line("slope", found->cdl.slope);
    line("offset", found->cdl.offset);
    line("power", found->cdl.power);
    fmt::print("saturation {}\n", number_text(found->cdl.saturation, 9));
    fmt::print("{}, {}\n",
               found->exact ? std::string("exact")
                            : fmt::format("within {} on colours from -0.25 to 1.25", number_text(found->largest, 3)),
               forms[static_cast<std::size_t>(found->form)].words);
    return Exit::good;
}

} // namespace

extern const Command cdl_command;
const Command cdl_command = {
    "cdl", "A filter as a colour decision list (ASC CDL) where it is one, or a list as a filter",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, false);
        arguments.value("-o,--out", options->out, "File to write: .cc, .ccc, .cdl; of a list: .kasuri")
            .completes(Completes::file);
        arguments
            .value("--space", options->space,
                   "In which the numbers are meant (default: the working space; of a list: acescct)")
            .completes(Completes::space);
        arguments.flag("--clamped", options->clamped,
                       "Of a list: the filter begins in the standard's clamped form; its parameter clamped says which");
        define_json(arguments, options->json, {answer});
        arguments.footer("FILTER may be a look, or a .cc, .ccc or .cdl file, which becomes a filter. What is "
                         "no such list is an error: exit code 1.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
