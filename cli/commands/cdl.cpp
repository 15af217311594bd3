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

/// A colour decision list becomes a filter.
int into_filter(const Options& options) {
    const auto all = io::read_cdl(options.rule.filter);
    if (!all)
        return complain(all.error());
    const std::string space = options.space.empty() ? "acescct" : options.space;
    for (std::size_t i = 0; i < all.value().size(); ++i) {
        const io::Cdl& cdl = all.value()[i];
        const std::string text = handover::filter_of(
            cdl, cdl.id.empty() ? std::filesystem::path(options.rule.filter).stem().string() : cdl.id, space,
            options.clamped);
        if (options.out.empty() || options.out == standard_stream) {
            fmt::print("{}{}", i > 0 ? "\n" : "", text);
            continue;
        }
        std::filesystem::path out = options.out;
        if (all.value().size() > 1) // one file each
            out.replace_filename(fmt::format("{}-{}{}", out.stem().string(), i + 1, out.extension().string()));
        if (const Status written = write_file(out, text); !written)
            return complain(written.error());
        fmt::print("{}\n", out.string());
    }
    return Exit::good;
}

int run(const Options& options) {
    if (!known_space(options.space))
        return Exit::usage;
    if (is_kind(options.rule.filter, FileKind::correction))
        return into_filter(options);
    const LoadedSubject loaded = load_subject(options.rule, "cdl");
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const auto found = handover::cdl_of(loaded.subject, options.space);
    if (!found) {
        fmt::print(stderr,
                   "kasuri-cli cdl: {}: is not a colour decision list in {}: neither gains, offsets and a "
                   "saturation, nor three curves (x * slope + offset) ^ power\n",
                   options.rule.filter, options.space.empty() ? loaded.subject.space() : options.space);
        return Exit::rule_failed;
    }
    if (!options.out.empty()) {
        if (!is_kind(options.out, FileKind::correction)) {
            fmt::print(stderr, "kasuri-cli cdl: {}: write .cc, .ccc or .cdl\n", options.out);
            return Exit::usage;
        }
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
        arguments.value("-o,--out", options->out, "File to write: .cc, .ccc, .cdl; of a list: .kasuri");
        arguments.value("--space", options->space,
                        "In which the numbers are meant (default: the working space; of a list: acescct)");
        arguments.flag("--clamped", options->clamped,
                       "Of a list: the filter begins in the standard's clamped form; its parameter clamped says which");
        define_json(arguments, options->json);
        arguments.footer("FILTER may be a look, or a .cc, .ccc or .cdl file, which becomes a filter. What is "
                         "no such list is an error: exit code 1.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
