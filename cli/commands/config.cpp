#include "io/config_write.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "handover/cube.hpp"
#include "inverse/invert.hpp"
#include "json.hpp"
#include "subject.hpp"

#include <cmath>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

using T = JsonType;
constexpr JsonField answer[] = {
    {"file", T::text, "the config that was written"},
    {"looks", T::objects, "those that are in it now"},
    {"looks/look", T::text, "its name there"},
    {"looks/space", T::text, "the space it works in"},
    {"looks/largest", T::number, "how far a channel is off when OpenColorIO applies it, on colours from 0 to 1"},
    {"looks/at", T::numbers, "r, g, b that come in there"},
};

struct Options {
    std::vector<std::string> looks;
    std::string base, out;
    int size = 33;
    bool json = false;
};

/// A name for a file and for a look: what is no letter, digit or - becomes -.
std::string plain(std::string name) {
    for (char& c : name)
        if (std::isalnum(static_cast<unsigned char>(c)) == 0 && c != '-')
            c = '-';
    return name;
}

struct Handed {
    subject::Subject subject;
    io::ConfigLook look;
    double stated = 0; ///< how far its CLF is off
    double largest = 0;
    std::array<double, 3> at{};
};

/// What OpenColorIO makes by the config that was written, against the engine, on colours from 0 to 1.
Status measure(const std::string& config, Handed& handed) {
    const std::vector<std::array<double, 3>> colours = inverse::lattice(16);
    const auto by_config = io::through_look(config, handed.look.name, handed.look.space, colours);
    if (!by_config)
        return by_config.error();
    const auto by_us = inverse::results(handed.subject.between(handed.look.space, handed.look.space), colours);
    for (std::size_t i = 0; i < colours.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const double by = std::fabs(by_us[i][c] - by_config.value()[i][c]);
            if (by > handed.largest || std::isnan(by)) {
                handed.largest = std::isnan(by) ? std::numeric_limits<double>::infinity() : by;
                handed.at = colours[i];
            }
        }
    return {};
}

int run(const Options& options) {
    const std::filesystem::path out = options.out;
    const std::string folder = out.stem().string() + "-luts";
    std::vector<Handed> all;
    for (const std::string& file : options.looks) {
        RuleOptions rule;
        rule.filter = file;
        const LoadedSubject loaded = load_subject(rule);
        if (loaded.exit != Exit::good)
            return loaded.exit;
        const std::string title = plain(std::filesystem::path(file).stem().string());
        all.push_back({loaded.subject,
                       {title, title + ".clf", loaded.subject.space(),
                        "By Kasuri, from " + std::filesystem::path(file).filename().string()},
                       0});
    }
    std::vector<io::ConfigLook> looks;
    for (const Handed& each : all)
        looks.push_back(each.look);
    std::vector<std::string> notes;
    const auto text = io::config_with(options.base, out, folder, looks, notes);
    if (!text)
        return complain(text.error());
    for (Handed& each : all) {
        baking::BakeOptions wanted;
        wanted.size = options.size;
        const auto baked = baking::bake(each.subject, wanted);
        if (!baked) {
            complain(baked.error());
            return Exit::rule_failed;
        }
        const std::filesystem::path file = out.parent_path() / folder / each.look.file;
        std::error_code failed;
        std::filesystem::create_directories(file.parent_path(), failed);
        if (failed)
            return complain({fmt::format("cannot be made ({})", failed.message()), file.parent_path().string(), ""});
        const auto written = handover::write_lut(file, each.subject, baked.value());
        if (!written)
            return complain(written.error());
        each.stated = written.value().tetrahedral.largest;
    }
    if (const Status written = write_file(options.out, text.value()); !written)
        return complain(written.error());
    constexpr double rounding = 1e-3; // of single precision there and back through a logarithm or a curve, at most
    bool same = true;
    Json rows = Json::array();
    for (Handed& each : all) {
        if (const Status measured = measure(options.out, each); !measured)
            return complain(measured.error());
        if (!(each.largest <= 2 * each.stated + rounding)) {
            same = false;
            complain({fmt::format("what the config calls {} is not what Kasuri calls so", each.look.space),
                      each.look.name, ""});
        }
        if (options.json)
            rows.push_back({{"look", each.look.name},
                            {"space", each.look.space},
                            {"largest", json_number(each.largest)},
                            {"at", json_numbers(each.at)}});
        else
            fmt::print("{}: in {}, OpenColorIO makes the same by this config within {} on 4096 colours from 0 to 1, at "
                       "worst ({}, {}, {})\n",
                       each.look.name, each.look.space, number_text(each.largest, 3), number_text(each.at[0], 4),
                       number_text(each.at[1], 4), number_text(each.at[2], 4));
    }
    for (const std::string& note : notes)
        say_note(options.out, note);
    if (options.json)
        return print_json({{"file", options.out}, {"looks", rows}}, same ? Exit::good : Exit::rule_failed);
    return same ? Exit::good : Exit::rule_failed;
}

} // namespace

extern const Command config_command;
const Command config_command = {
    "config", "Write an OpenColorIO config with filters and looks as its looks, and views through them",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("LOOK", options->looks, "Filters (.kasuri) and looks (.kasurilook), at their values")
            .required()
            .expected(1, 1000);
        arguments.value("-o,--out", options->out, "The config to write (.ocio); its LUTs go into a folder beside it")
            .completes(Completes::file)
            .required();
        arguments
            .value("--base", options->base,
                   "A config that they are added to (default: a new one, with ACES2065-1, ACEScg, ACEScct and an "
                   "sRGB display)")
            .completes(Completes::file);
        arguments.value("--size", options->size, "Points a side of what is a table").show_default().between(9, 129);
        define_json(arguments, options->json, {answer});
        arguments.footer("Each becomes a look with a CLF in its own working space, and a view on the config's own "
                         "display, which is its\nusual view through that look. What OpenColorIO makes by the config is "
                         "measured on the file and said.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
