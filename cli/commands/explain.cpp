#include "command.hpp"
#include "common.hpp"
#include "engine/lower.hpp"
#include "handover/look_sums.hpp"
#include "insight/summary.hpp"
#include "ir/printed.hpp"
#include "json.hpp"
#include "lang/parser.hpp"
#include "lang/printed.hpp"
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

/// What a stage can look at; `rule` is null before the rule is checked.
struct Subject {
    std::string_view text;
    const lang::Rule* rule;
    std::span<const double> values;
    const Options& options;
};

engine::CompileOptions compile_options(const Subject& s) {
    engine::CompileOptions options;
    options.rewrite = options.fuse = !s.options.plain;
    options.in_space = s.options.in_space;
    options.out_space = s.options.out_space;
    return options;
}

/// One row: a stage that a rule goes through.
struct Stage {
    std::string_view name;
    bool checked; ///< needs a rule without errors
    std::string (*dump)(const Subject&);
};
constexpr Stage stages[] = {
    {"tokens", false, [](const Subject& s) { return lang::printed(lang::lex(s.text, nullptr), s.text); }},
    {"tree", false,
     [](const Subject& s) {
         std::vector<lang::Diagnostic> said_later;
         return lang::printed(lang::parse(s.text, said_later));
     }},
    {"types", true, [](const Subject& s) { return lang::printed(*s.rule, proof::vocabulary()); }},
    {"graph", true,
     [](const Subject& s) {
         const engine::CompileOptions options = compile_options(s);
         ir::Graph graph(options.rewrite);
         const std::vector<ir::NodeId> outputs = engine::lower(*s.rule, graph, options);
         return ir::printed(graph, outputs);
     }},
    {"tiles", true, [](const Subject& s) { return engine::compile(*s.rule, compile_options(s))->printed(); }},
    {"known", true,
     [](const Subject& s) {
         const std::string text = insight::described(insight::known(*s.rule, s.values));
         return text.empty() ? std::string("nothing is certain without trying colours\n") : text;
     }},
};

/// Stages in order; as words, each under its name unless it is the only one.
int tell(const std::vector<std::pair<std::string, std::string>>& dumps, const Options& options,
         const insight::Known* known, int exit) {
    if (options.json) {
        Json made = Json::object();
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

/// A look is a graph, tiles, and what is certain of it; its steps are rules by themselves.
int run_look(const Options& options) {
    const LoadedSubject loaded = load_subject(options.rule, "explain");
    if (loaded.exit != Exit::good)
        return loaded.exit;
    engine::CompileOptions with;
    with.rewrite = with.fuse = !options.plain;
    with.in_space = options.in_space.empty() ? std::string_view(loaded.subject.space) : options.in_space;
    with.out_space = options.out_space.empty() ? std::string_view(loaded.subject.space) : options.out_space;
    ir::Graph graph(with.rewrite);
    const std::vector<ir::NodeId> outputs = loaded.subject.lower(graph, with);
    std::vector<std::pair<std::string, std::string>> dumps;
    const auto add = [&](std::string_view name, const auto& dump) {
        if (options.stage.empty() || options.stage == name)
            dumps.emplace_back(name, dump());
    };
    add("graph", [&] { return ir::printed(graph, outputs); });
    add("tiles", [&] { return engine::Program(graph, outputs, with.fuse).printed(); });
    add("known", [&] {
        const auto runs =
            handover::runnable(loaded.look, std::filesystem::path(options.rule.filter).parent_path()).value();
        const std::string text = handover::described_look(*runs, runs->parameters);
        return text.empty() ? std::string("nothing is certain without trying colours\n") : text;
    });
    if (dumps.empty()) {
        fmt::print(
            stderr,
            "kasuri-cli explain: a look has no stage {}: it is graph, tiles and known; its filters have the others\n",
            options.stage);
        return Exit::usage;
    }
    return tell(dumps, options, nullptr, Exit::good);
}

int run(const Options& options) {
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    if (options.rule.filter.ends_with(document::look_ending) || document::is_lut_name(options.rule.filter))
        return run_look(options);
    const Loaded loaded = load(options.rule);
    if (loaded.exit == Exit::input_output)
        return loaded.exit;
    const bool good = loaded.exit == Exit::good;
    std::vector<std::pair<std::string, std::string>> dumps;
    for (const Stage& stage : stages) {
        if (!options.stage.empty() && stage.name != options.stage)
            continue;
        if (stage.checked && !good)
            break;
        dumps.emplace_back(stage.name,
                           stage.dump({loaded.text, good ? &loaded.rule : nullptr, loaded.values, options}));
    }
    const std::optional<insight::Known> known =
        good && options.json ? std::optional(insight::known(loaded.rule, loaded.values)) : std::nullopt;
    return tell(dumps, options, known ? &*known : nullptr, loaded.exit);
}

} // namespace

extern const Command explain_command;
const Command explain_command = {
    "explain", "Show what the compiler makes of a rule or a look, stage by stage",
    [](CLI::App& app) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(app, true);
        std::vector<std::string> names;
        for (const Stage& stage : stages)
            names.emplace_back(stage.name);
        app.add_option("--stage", options->stage, "Only this one: tokens, tree, types, graph, tiles or known")
            ->check(CLI::IsMember(names));
        app.add_option("--in-space", options->in_space, "Show the conversions of a picture of this space, too");
        app.add_option("--out-space", options->out_space, "And those into this space");
        app.add_flag("--plain", options->plain, "Graph and tiles without rewrites and fused operations");
        define_json(app, options->json, "One JSON object: the stages as texts, and what is known as numbers");
        app.footer("tokens: words of the text; tree: its grammar; types: with types and rates, functions checked;\n"
                   "graph: scalar operations after rewriting; tiles: passes over the picture, u computed once, r "
                   "registers of\n"
                   "a tile, i inputs (0 to 3 are r g b a); known: what is certain about the rule at its values.");
        return [options]() -> int {
            if (options->rule.filter.empty() && !options->rule.text_given) {
                fmt::print(stderr, "kasuri-cli explain: give FILTER or --rule TEXT\n");
                return Exit::usage;
            }
            return run(*options);
        };
    }};

} // namespace kasuri::cli
