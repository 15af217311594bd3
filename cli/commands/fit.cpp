#include "fit/fit.hpp"

#include "base/file_kind.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "json.hpp"
#include "pairing/pairing.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::vector<std::string> from;
    std::string out, take;
    pairing::PairingOptions pairing;
    fit::Options fit;
    bool all = false, json = false;
};

Json json_of(const fit::Candidate& candidate, bool marked) {
    return {{"family", candidate.family->name},
            {"working", candidate.working},
            {"numbers", candidate.values.size()},
            {"ciede2000",
             {{"mean", json_number(candidate.errors.delta_e_mean)},
              {"within-95%", json_number(candidate.errors.delta_e_95)},
              {"largest", json_number(candidate.errors.delta_e_largest)},
              {"at", json_numbers(candidate.errors.delta_e_at)}}},
            {"rms", json_number(candidate.errors.rms)},
            {"largest", json_number(candidate.errors.largest)},
            {"at", json_numbers(candidate.errors.at)},
            {"bits", json_number(candidate.bits)},
            {"marked", marked}};
}

void print_row(std::FILE* to, const fit::Candidate& candidate, bool marked) {
    fmt::print(to, "{} {:3} numbers  {:8} {:8} {:8}  {:9}  {} in {}\n", marked ? '*' : ' ', candidate.values.size(),
               number_text(candidate.errors.delta_e_mean, 3), number_text(candidate.errors.delta_e_95, 3),
               number_text(candidate.errors.delta_e_largest, 3), number_text(candidate.errors.largest, 3),
               candidate.family->name, candidate.working);
}

void tell(std::FILE* to, const Options& options, const pairing::Paired& paired, const fit::Found& found,
          std::size_t taken) {
    fmt::print(to, "{}: {}, numbers of {}; fitted on {} colours, measured on {}\n", paired.pairs.title, paired.detail,
               paired.pairs.space, found.fitted, found.candidates.front().errors.pairs);
    fmt::print(to, "  CIEDE2000:   mean     95 %     largest   a channel  family and working space\n");
    const std::vector<std::size_t> row = fit::simple_to_exact(found);
    for (std::size_t i = 0; i < found.candidates.size(); ++i)
        if (options.all || i == taken || std::find(row.begin(), row.end(), i) != row.end())
            print_row(to, found.candidates[i], i == found.best);
    if (found.unexplained > 0.02)
        fmt::print(
            to,
            "{:.0f} % of the colours came out differently in different places: no rule of a colour alone explains them "
            "(a mask, a vignette, a blur, a compression?)\n",
            100 * found.unexplained);
}

int run(const Options& options) {
    if (!options.take.empty() && !fit::find_family(options.take)) {
        std::vector<std::string> names;
        for (const fit::Family& family : fit::families())
            names.push_back(family.name);
        fmt::print(stderr, "kasuri-cli fit: there is no family {}; there are {}\n", options.take,
                   fmt::join(names, ", "));
        return Exit::usage;
    }
    for (const std::string& space : options.fit.spaces)
        if (!known_space(space))
            return Exit::usage;
    if (!known_space(options.pairing.lut_space) || !known_space(options.pairing.in_space))
        return Exit::usage;
    if (options.from.size() == 1 && !pairing::holds_pairs(options.from[0])) {
        fmt::print(
            stderr,
            "kasuri-cli fit: {} is no LUT, look, filter or table (.csv, .tsv, .txt); of pictures give two, before "
            "and after\n",
            options.from[0]);
        return Exit::usage;
    }
    if (options.pairing.domain.size() == 2 && !(options.pairing.domain[0] < options.pairing.domain[1])) {
        fmt::print(stderr, "kasuri-cli fit: the domain is empty; give the lower end first, such as 0 1\n");
        return Exit::usage;
    }
    const auto read = pairing::pairs_from(options.from, options.pairing);
    if (!read) { // a rule that cannot be fitted was read well
        const int exit = complain(read.error());
        return is_kind(options.from[0], FileKind::filter) || is_kind(options.from[0], FileKind::look)
            ? int{Exit::rule_failed}
            : exit;
    }
    const pairing::Paired& paired = read.value();
    for (const std::string& note : paired.notes)
        fmt::print(stderr, "note: {}\n", note);
    fit::Options with = options.fit;
    if (!options.take.empty())
        with.families = {options.take};
    const auto found = fit::fit(paired.pairs, with);
    if (!found) {
        complain(found.error());
        return Exit::rule_failed;
    }
    const std::size_t taken = found.value().best;
    const fit::Candidate& candidate = found.value().candidates[taken];
    const std::string text = fit::rule_text(candidate, paired.pairs);
    if (!options.out.empty())
        if (const Status written = write_out(options.out, text); !written)
            return complain(written.error());
    if (options.json) {
        Json rows = Json::array();
        for (std::size_t i = 0; i < found.value().candidates.size(); ++i)
            rows.push_back(json_of(found.value().candidates[i], i == taken));
        return print_json({{"from", options.from},
                           {"space", paired.pairs.space},
                           {"fitted", found.value().fitted},
                           {"measured", candidate.errors.pairs},
                           {"unexplained", json_number(found.value().unexplained)},
                           {"noise", json_number(paired.pairs.noise)},
                           {"rule", text},
                           {"candidates", rows}});
    }
    tell(options.out == standard_stream ? stderr : stdout, options, paired, found.value(), taken);
    return Exit::good;
}

} // namespace

extern const Command fit_command;
const Command fit_command = {
    "fit", "Find the simplest rule that explains a LUT, two pictures or a table of colours",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments
            .value("FROM", options->from,
                   "A LUT, a look or a filter; a table of six columns, r, g, b before and after (.csv); or two "
                   "pictures, before and after")
            .required()
            .expected(1, 2);
        arguments.value("-o,--out", options->out, "The rule to write (.kasuri); - is standard output");
        arguments.value("--family", options->take, "Only this family, not the one with the shortest description");
        arguments.value("--try-space", options->fit.spaces,
                        "Working spaces to try (default: the numbers' own, and light)");
        arguments.value("--lut-space", options->pairing.lut_space, "What the numbers of a LUT mean (default: srgb)");
        arguments.value("--in-space", options->pairing.in_space, "What the numbers of pictures or of a table mean");
        arguments.value("--layer", options->pairing.layer, "Of pictures: this layer");
        arguments
            .value("--domain", options->pairing.domain,
                   "Lowest and highest value that come in (default: the LUT's own, else 0 1)")
            .expected(2);
        arguments.value("--close", options->fit.close, "Differences that are as good as none (default: 1e-5)")
            .positive();
        arguments.flag("--keep-greys", options->fit.keep_greys,
                       "Only rules of which it is proved that every grey stays as it is");
        arguments.flag("--all", options->all,
                       "Show every family, not those alone that are better than all with fewer numbers");
        define_json(arguments, options->json);
        arguments.footer(
            "Every family of rules is fitted; * marks the one that says most with fewest numbers. Errors are "
            "measured on colours that were not\nfitted, of the very text that is written. How, and where it "
            "fails: docs/fitting.md.");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
