#include "common.hpp"
#include "opening/open.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "command.hpp"
#include "document/filter_file.hpp"
#include "io/config.hpp"
#include "lang/lexer.hpp"
#include "proof/proof.hpp"
#include "streams.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <fmt/format.h>
#include <limits>

namespace kasuri::cli {

void RuleOptions::define(Arguments& arguments, bool alternative) {
    Argument file = arguments.value("FILTER", filter,
                                    "A filter file (.kasuri); most commands also take a look (.kasurilook) or a LUT");
    if (alternative) {
        Argument inline_rule = arguments.value("--rule", text, "The rule itself; statements end at a new line or at ;");
        inline_rule.excludes(file);
        inline_rule.on_each([this](const std::string&) { text_given = true; });
    } else {
        file.required();
    }
    arguments.value("--preset", preset, "Start from the values of this preset instead of the defaults")
        .completes(Completes::preset);
    arguments.value("--lut-space", lut_space, "What the numbers of a LUT mean (default: srgb)")
        .completes(Completes::space);
    arguments.value("--lut-ending", lut_ending, "FILTER is -, and standard input is a LUT of this kind, such as .cube");
    arguments.flag("--trilinear", trilinear, "Read a LUT trilinearly between its points (default: tetrahedrally)");
    arguments.value("--set", settings, "NAME=VALUE of a parameter; may be given several times")
        .take_all()
        .completes(Completes::setting);
}

void RuleOptions::define_sources(Arguments& arguments) {
    arguments
        .value("--source", sources,
               "NAME=FILE, NAME=FILE:LAYER or NAME=FILE:CHANNEL of a further picture that is read, or "
               "NAME=target:TARGET; may be given several times")
        .take_all()
        .completes(Completes::source);
}

bool known_space(const std::string& name) {
    if (name.empty() || colour::find_space(name))
        return true;
    std::vector<std::string> names;
    for (const colour::Space& space : colour::spaces())
        names.emplace_back(space.name);
    for (const auto& further : {colour::added_spaces(), colour::added_views()})
        names.insert(names.end(), further.begin(), further.end());
    const std::optional<std::string> meant = did_you_mean(name, names);
    refuse(Exit::usage, "there is no space {}. {}", name,
           meant ? fmt::format("Did you mean {}?", *meant) : fmt::format("Known are {}.", fmt::join(names, ", ")));
    return false;
}

int use_config(const std::string& named, const std::vector<std::string>& texts) {
    io::ConfigContext context;
    for (const std::string& text : texts) {
        const auto entry = io::read_context(text);
        if (!entry)
            return refuse(Exit::usage, "--context {}: write NAME=VALUE", text);
        context[entry->first] = entry->second;
    }
    const std::filesystem::path file = named.empty() ? io::config_of_environment() : std::filesystem::path(named);
    if (file.empty() && !context.empty())
        return refuse(Exit::usage, "--context is for a colour config, and there is none (--config, or $OCIO)");
    if (file.empty())
        return Exit::good;
    const auto loaded = io::load_config(file, context);
    if (!loaded && !named.empty())
        return complain(loaded.error());
    if (!loaded)
        say_note("$OCIO", loaded.error().text());
    else
        for (const std::string& note : loaded.value().notes)
            say_note(file.string(), note);
    return Exit::good;
}

std::string described(const Setting& setting) {
    if (setting.choices.empty())
        return fmt::format("{} = {} in {} .. {}: {}", setting.name, number_text(setting.value, 6),
                           number_text(setting.low, 6), number_text(setting.high, 6), setting.doc);
    return fmt::format("{} = {} of {}: {}", setting.name, setting.choices[static_cast<std::size_t>(setting.value)],
                       fmt::join(setting.choices, ", "), setting.doc);
}

std::optional<std::vector<double>> read_settings(std::span<const Setting> settings,
                                                 const std::vector<std::string>& texts, const std::string& whose) {
    std::vector<double> set(settings.size(), std::numeric_limits<double>::quiet_NaN()); // the usual ones
    const auto wrong = [&](const std::string& text, const std::string& what) {
        refuse(Exit::usage, "{}: {}; {} lists its settings", text, what, whose);
        return std::nullopt;
    };
    for (const std::string& text : texts) {
        const std::size_t equals = text.find('=');
        if (equals == std::string::npos)
            return wrong(text, "not of the form name=value");
        const std::string name = text.substr(0, equals), value = text.substr(equals + 1);
        const auto found =
            std::find_if(settings.begin(), settings.end(), [&](const Setting& s) { return s.name == name; });
        if (found == settings.end())
            return wrong(text, "there is no setting of that name");
        const auto choice = std::find(found->choices.begin(), found->choices.end(), value);
        const std::optional<double> number =
            choice != found->choices.end() ? static_cast<double>(choice - found->choices.begin()) : parse_number(value);
        if (!number || !(*number >= found->low && *number <= found->high))
            return wrong(text, number ? "outside of its range" : "neither a number nor one of its choices");
        set[static_cast<std::size_t>(found - settings.begin())] = *number;
    }
    return completed(settings, set);
}

Result<std::string> read_filter(const std::string& file) {
    if (file != standard_stream)
        return document::load_filter(file);
    static const std::string content = [] { // it can be read once, whoever asks how often
        std::string all;
        std::array<char, 1 << 16> block{};
        for (std::size_t count = 1; count > 0 && all.size() <= lang::longest_text;) {
            count = std::fread(block.data(), 1, block.size(), stdin);
            all.append(block.data(), count);
        }
        return all;
    }();
    if (content.size() > lang::longest_text)
        return Error{said("the file is longer than {} bytes", lang::longest_text), "standard input",
                     "Is it the file that was meant?"};
    return document::filter_text(content, "standard input");
}

std::string name_beside(const std::string& file, const std::string& out) {
    if (file.empty() || file == standard_stream)
        return {};
    std::error_code fault;
    const auto whole = [&](const std::string& path) {
        return std::filesystem::weakly_canonical(std::filesystem::absolute(path, fault), fault);
    };
    const std::filesystem::path folder = whole(out.empty() || out == standard_stream ? file : out).parent_path();
    const std::string name = whole(file).lexically_relative(folder).generic_string();
    return name.starts_with("..") ? std::string() : name;
}

Status free_output() {
    if (answers_in_json())
        return Error{"holds the JSON, and cannot hold a file too", "standard output",
                     "Name a file that is written, or leave --json out."};
    return {};
}

Status write_out(const std::string& file, std::string_view content) {
    if (!file.empty() && file != standard_stream)
        return write_file(file, content);
    if (Status there = free_output(); !there)
        return there;
    std::fwrite(content.data(), 1, content.size(), stdout);
    return {};
}

namespace {

int usage_error(const std::string& what) { return refuse(Exit::usage, what); }

std::vector<std::string> parameter_names(const lang::Rule& rule) {
    std::vector<std::string> names;
    for (const lang::Parameter& p : rule.parameters)
        names.push_back(p.name);
    return names;
}

int set_values(const RuleOptions& options, Loaded& loaded) {
    const lang::Rule& rule = loaded.rule;
    for (const lang::Parameter& p : rule.parameters)
        loaded.values.push_back(p.value);
    if (!options.preset.empty()) {
        std::vector<std::string> names;
        bool found = false;
        for (const lang::Preset& preset : rule.presets) {
            names.push_back(preset.name);
            if (preset.name == options.preset) {
                loaded.values = preset.values;
                found = true;
            }
        }
        if (!found)
            return usage_error(fmt::format("there is no preset \"{}\". The filter has: {}", options.preset,
                                           names.empty() ? "none" : fmt::format("{}", fmt::join(names, ", "))));
    }
    for (const std::string& setting : options.settings) {
        const auto equals = setting.find('=');
        if (equals == std::string::npos)
            return usage_error(fmt::format("--set {}: write NAME=VALUE", setting));
        const std::string name(trimmed(setting.substr(0, equals)));
        const std::string text = setting.substr(equals + 1);
        const std::vector<std::string> names = parameter_names(rule);
        auto found = std::find(names.begin(), names.end(), name);
        // A colour is three numbers; its name alone takes them all.
        std::vector<std::string_view> parts = {text};
        if (found == names.end()) {
            found = std::find(names.begin(), names.end(), name + ".r");
            parts = split(text, ',');
        }
        if (found == names.end()) {
            const auto meant = did_you_mean(name, names);
            return usage_error(fmt::format("--set {}: there is no parameter {}.{} The filter has: {}", setting, name,
                                           meant ? " Did you mean " + *meant + "?" : "",
                                           names.empty() ? "none" : fmt::format("{}", fmt::join(names, ", "))));
        }
        const std::size_t index = static_cast<std::size_t>(found - names.begin());
        const bool whole_colour = *found != name;
        if (whole_colour && parts.size() != 3)
            return usage_error(fmt::format("--set {}: a colour is three numbers, NAME=R,G,B", setting));
        for (std::size_t k = 0; k < parts.size(); ++k) {
            const lang::Parameter& p = rule.parameters[index + k];
            const std::optional<double> value = lang::parse_value(p, parts[k]);
            if (!value && p.kind == lang::ParameterKind::choice)
                return usage_error(
                    fmt::format("--set {}: {} is none of {}", setting, parts[k], fmt::join(p.options, ", ")));
            if (!value)
                return usage_error(fmt::format("--set {}: {} is not {}", setting, parts[k],
                                               p.kind == lang::ParameterKind::toggle ? "true or false" : "a number"));
            const bool on_a_step = p.kind != lang::ParameterKind::whole || *value == std::floor(*value);
            if (!(*value >= p.low && *value <= p.high) || !on_a_step)
                return usage_error(fmt::format("--set {}: {} goes {}from {} to {}", setting, p.name,
                                               p.kind == lang::ParameterKind::whole ? "in whole numbers " : "",
                                               number_text(p.low, 9), number_text(p.high, 9)));
            loaded.values[index + k] = *value;
        }
    }
    return Exit::good;
}

} // namespace

Loaded load(const RuleOptions& options, std::optional<std::string> print, std::vector<std::string> columns,
            bool quiet) {
    Loaded loaded;
    loaded.text = options.text;
    std::string name = "rule";
    if (!options.filter.empty()) {
        Result<std::string> read = options.filter == standard_stream
            ? read_filter(options.filter)
            : opening::filter_text_of(options.filter, {options.lut_space, options.trilinear});
        if (!read) {
            loaded.exit = complain(read.error());
            return loaded;
        }
        loaded.text = std::move(read.value());
        name = options.filter;
    }
    lang::CheckOptions check_options;
    if (print)
        check_options.print = *print;
    check_options.columns = std::move(columns);
    check_options.open = document::used_beside(options.filter);
    lang::Checked checked = lang::check(loaded.text, proof::vocabulary(), check_options);
    if (quiet) {
        loaded.rule = std::move(checked.rule);
        return loaded;
    }
    say_diagnostics(checked.diagnostics, loaded.text, name);
    if (print)
        say_diagnostics(checked.print_diagnostics, *print, "print");
    loaded.diagnostics = std::move(checked.diagnostics);
    if (!checked.ok) {
        loaded.exit = Exit::rule_failed;
        return loaded;
    }
    loaded.rule = std::move(checked.rule);
    loaded.exit = set_values(options, loaded);
    return loaded;
}

} // namespace kasuri::cli
