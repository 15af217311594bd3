#include "command.hpp"
#include "common.hpp"
#include "engine/lower.hpp"
#include "insight/summary.hpp"
#include "ir/printed.hpp"
#include "json.hpp"
#include "lang/parser.hpp"
#include "lang/printed.hpp"
#include "look/sums.hpp"
#include "proof/proof.hpp"
#include "subject.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string stage, in_space, out_space;
    bool plain = false, json = false;
};

using T = JsonType;
constexpr const char* good_ones = "where it compiles";
constexpr JsonField answer[] = {
    {"stages", T::words, "each stage as a text"},
    {"identity", T::flag, "whether it does nothing, at its values", good_ones},
    {"identity-at-defaults", T::flag, "whether it does nothing at its defaults", good_ones},
    {"curves", T::flag, "whether each channel comes of itself alone", good_ones},
    {"greys-stay-grey", T::flag, "whether r = g = b stays so", good_ones},
    {"greys-keep-their-value", T::flag, "whether they stay as they are", good_ones},
    {"luminance-kept", T::flag, "whether luminance stays", good_ones},
    {"matrix", T::rows, "three rows of three", "where it is a matrix with an offset"},
    {"offset", T::numbers, "r, g, b", "where it is a matrix with an offset"},
    {"determinant", T::number, "of the matrix", "where it is a matrix with an offset"},
};

/// What a stage can look at; `subject` is null before the rule is checked.
struct Seen {
    std::string_view text;
    const subject::Subject* subject;
    const Options& options;
};

/// The operations of all of it, between the spaces that were asked for.
std::pair<ir::Graph, std::vector<ir::NodeId>> lowered(const Seen& seen) {
    ir::Graph graph(!seen.options.plain);
    engine::CompileOptions options;
    options.rewrite = !seen.options.plain;
    options.in_space = seen.options.in_space;
    options.out_space = seen.options.out_space;
    std::vector<ir::NodeId> outputs = seen.subject->lower(graph, options);
    return {std::move(graph), std::move(outputs)};
}

std::string known_of(const subject::Subject& subject) {
    const std::string text = subject.rule() ? insight::described(insight::known(subject)) : look::described(subject);
    return text.empty() ? std::string("nothing is certain without trying colours\n") : text;
}

/// One row: a stage that a rule goes through.
struct Stage {
    std::string_view name;
    enum class Needs { text, rule, subject } needs; ///< a text; a rule without errors; a rule, a look or a LUT
    std::string (*dump)(const Seen&);
};
constexpr Stage stages[] = {
    {"tokens", Stage::Needs::text, [](const Seen& s) { return lang::printed(lang::lex(s.text, nullptr), s.text); }},
    {"tree", Stage::Needs::text,
     [](const Seen& s) {
         std::vector<lang::Diagnostic> said_later;
         return lang::printed(lang::parse(s.text, said_later));
     }},
    {"types", Stage::Needs::rule, [](const Seen& s) { return lang::printed(*s.subject->rule(), proof::vocabulary()); }},
    {"graph", Stage::Needs::subject,
     [](const Seen& s) {
         const auto [graph, outputs] = lowered(s);
         return ir::printed(graph, outputs);
     }},
    {"tiles", Stage::Needs::subject,
     [](const Seen& s) {
         const auto [graph, outputs] = lowered(s);
         return engine::Program(graph, outputs, !s.options.plain).printed();
     }},
    {"known", Stage::Needs::subject, [](const Seen& s) { return known_of(*s.subject); }},
};

/// Stages in order; as words, each under its name unless it is the only one.
int tell(const std::vector<std::pair<std::string, std::string>>& dumps, const Options& options,
         const insight::Known* known, int exit) {
    if (options.json) {
        Json made = {{"stages", Json::object()}};
        for (const auto& [name, text] : dumps)
            made["stages"][name] = text;
        if (known) {
            made["identity"] = known->identity;
            made["identity-at-defaults"] = known->identity_at_defaults;
            made["curves"] = known->curves;
            made["greys-stay-grey"] = known->neutral;
            made["greys-keep-their-value"] = known->grey_kept;
            made["luminance-kept"] = known->luminance_kept;
            if (known->matrix) {
                Json rows = Json::array();
                for (const auto& row : known->matrix->matrix)
                    rows.push_back(json_numbers(row));
                made["matrix"] = rows;
                made["offset"] = json_numbers(known->matrix->offset);
                made["determinant"] = json_number(known->matrix->determinant());
            }
        }
        return print_json(made, exit);
    }
    std::string all;
    for (const auto& [name, text] : dumps)
        all += (options.stage.empty() ? fmt::format("{}== {}\n", all.empty() ? "" : "\n", name) : std::string()) + text;
    std::fwrite(all.data(), 1, all.size(), stdout);
    return std::fflush(stdout) == 0 ? exit : static_cast<int>(Exit::input_output);
}

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    const LoadedSubject loaded = load_subject(options.rule);
    if (loaded.exit == Exit::input_output || (!loaded.is_filter && loaded.exit != Exit::good))
        return loaded.exit;
    const bool good = loaded.exit == Exit::good;
    const Seen seen{loaded.text, good ? &loaded.subject : nullptr, options};
    std::vector<std::pair<std::string, std::string>> dumps;
    for (const Stage& stage : stages) {
        if (!options.stage.empty() && stage.name != options.stage)
            continue;
        const bool has = stage.needs == Stage::Needs::subject ? good
            : stage.needs == Stage::Needs::rule               ? good && loaded.is_filter
                                                              : loaded.is_filter;
        if (has)
            dumps.emplace_back(stage.name, stage.dump(seen));
    }
    if (dumps.empty() && good) {
        return refuse(Exit::usage,
                      "a {} has no stage {}: it is graph, tiles and known; its filters "
                      "have the others",
                      loaded.subject.noun(), options.stage);
    }
    const std::optional<insight::Known> known = good && options.json
        ? std::optional(insight::known(loaded.is_filter ? loaded.subject : loaded.subject.fixed()))
        : std::nullopt;
    return tell(dumps, options, known ? &*known : nullptr, loaded.exit);
}

} // namespace

extern const Command explain_command;
const Command explain_command = {
    "explain", "Show what the compiler makes of a rule or a look, stage by stage",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, true);
        std::vector<std::string> names;
        for (const Stage& stage : stages)
            names.emplace_back(stage.name);
        arguments.value("--stage", options->stage, "Only this one: tokens, tree, types, graph, tiles or known")
            .one_of(names);
        arguments.value("--in-space", options->in_space, "Show the conversions of a picture of this space, too")
            .completes(Completes::space);
        arguments.value("--out-space", options->out_space, "And those into this space").completes(Completes::space);
        arguments.flag("--plain", options->plain, "Graph and tiles without rewrites and fused operations");
        define_json(arguments, options->json, {answer});
        arguments.footer(
            "tokens: words of the text; tree: its grammar; types: with types and rates, functions checked;\n"
            "graph: scalar operations after rewriting; tiles: passes over the picture, u computed once, r "
            "registers of\n"
            "a tile, i inputs (0 to 3 are r g b a); known: what is certain about the rule at its values.");
        return [options]() -> int {
            if (options->rule.filter.empty() && !options->rule.text_given)
                return refuse(Exit::usage, "give FILTER or --rule TEXT");
            return run(*options);
        };
    }};

} // namespace kasuri::cli
