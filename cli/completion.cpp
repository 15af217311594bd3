#include "completion.hpp"

#include "arguments.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "common.hpp"
#include "fit/fit.hpp"
#include "proof/proof.hpp"
#include "readings/reading.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace kasuri::cli {
namespace {

/// The line until the word in question.
struct Line {
    const DescribedCommand* command = nullptr;
    std::map<std::string, std::vector<std::string>> options; ///< by their long names
    std::vector<std::string> positionals;
    std::string word;

    /// The value of a positional argument or an option; empty: it is not there.
    std::string value_of(const std::string& name) const {
        if (const auto found = options.find(name); found != options.end() && !found->second.empty())
            return found->second.back();
        std::size_t index = 0;
        for (const DescribedOption& option : command->options) {
            if (option.positional && option.name == name)
                return index < positionals.size() ? positionals[index] : std::string();
            index += option.positional ? 1 : 0;
        }
        return {};
    }
};

lang::Rule rule_of(const Line& line) {
    RuleOptions options;
    options.filter = line.value_of("FILTER");
    options.text = line.value_of("rule");
    if (options.filter == standard_stream)
        return {};
    return load(options, {}, {}, true).rule;
}

/// The part until the = of NAME=VALUE; empty: the name is still being written.
std::string name_before(const std::string& word) {
    const std::size_t equals = word.find('=');
    return equals == std::string::npos ? std::string() : word.substr(0, equals);
}

Candidates of_settings(std::span<const Setting> settings, const Line& line) {
    Candidates all;
    const std::string name = name_before(line.word);
    for (const Setting& setting : settings)
        if (name.empty())
            all.values.push_back({std::string(setting.name) + "=", described(setting)});
        else if (name == setting.name)
            for (const std::string_view choice : setting.choices)
                all.values.push_back({fmt::format("{}={}", name, choice), ""});
    return all;
}

Candidates of_spaces(const Line&) {
    Candidates all;
    for (const colour::Space& space : colour::spaces())
        all.values.push_back({std::string(space.name), std::string(space.doc)});
    for (const auto& further : {colour::added_spaces(), colour::added_views()})
        for (const std::string& name : further)
            all.values.push_back({name, ""});
    return all;
}

Candidates of_presets(const Line& line) {
    Candidates all;
    for (const lang::Preset& preset : rule_of(line).presets)
        all.values.push_back({preset.name, ""});
    return all;
}

Candidates of_parameters(const Line& line) {
    Candidates all;
    const std::string name = name_before(line.word);
    for (const lang::Parameter& parameter : rule_of(line).parameters) {
        if (name.empty())
            all.values.push_back(
                {parameter.name + "=",
                 fmt::format("{} .. {}", number_text(parameter.low, 6), number_text(parameter.high, 6))});
        else if (name == parameter.name && parameter.kind == lang::ParameterKind::toggle)
            for (const char* value : {"true", "false"})
                all.values.push_back({name + "=" + value, ""});
        else if (name == parameter.name)
            for (const std::string& option : parameter.options)
                all.values.push_back({name + "=" + option, ""});
    }
    return all;
}

Candidates of_targets(const Line&) {
    Candidates all;
    for (const targets::Target* target : targets::all())
        all.values.push_back({std::string(target->name), std::string(target->doc)});
    return all;
}

Candidates of_sources(const Line& line) {
    Candidates all;
    const std::string name = name_before(line.word);
    if (name.empty()) {
        for (const lang::SourceInput& source : rule_of(line).sources)
            all.values.push_back({source.name + "=", "a further picture"});
        return all;
    }
    for (const Candidate& target : of_targets(line).values)
        all.values.push_back({fmt::format("{}=target:{}", name, target.value), target.doc});
    all.files = true;
    return all;
}

Candidates of_readings(const Line&) {
    Candidates all;
    for (const readings::Reading* reading : readings::all())
        all.values.push_back({std::string(reading->name), std::string(reading->doc)});
    return all;
}

Candidates of_families(const Line&) {
    Candidates all;
    for (const fit::Family& family : fit::families())
        all.values.push_back({family.name, family.title});
    return all;
}

/// One row: how the candidates of a kind are found.
struct Row {
    Completes what;
    Candidates (*found)(const Line&);
};
constexpr Row rows[] = {
    {Completes::nothing, [](const Line&) { return Candidates{}; }},
    {Completes::file,
     [](const Line&) {
         return Candidates{{}, true};
     }},
    {Completes::space, of_spaces},
    {Completes::preset, of_presets},
    {Completes::setting, of_parameters},
    {Completes::source, of_sources},
    {Completes::target, of_targets},
    {Completes::target_setting,
     [](const Line& line) {
         const targets::Target* target = targets::find(line.value_of("NAME"));
         return target ? of_settings(target->settings, line) : Candidates{};
     }},
    {Completes::reading, of_readings},
    {Completes::reading_setting,
     [](const Line& line) {
         const readings::Reading* reading = readings::find(line.value_of("READING"));
         return reading ? of_settings(reading->settings, line) : Candidates{};
     }},
    {Completes::family, of_families},
};

Candidates values_of(const DescribedOption& option, const Line& line) {
    if (option.values.empty())
        return std::find_if(std::begin(rows), std::end(rows),
                            [&](const Row& row) { return row.what == option.completes; })
            ->found(line);
    Candidates all;
    for (const std::string& value : option.values)
        all.values.push_back({value, ""});
    return all;
}

const DescribedOption* named(const DescribedCommand& command, const std::string& word) {
    const auto is = [&](const DescribedOption& option) {
        const auto among = [&](const std::vector<std::string>& names, const char* dashes) {
            return std::any_of(names.begin(), names.end(), [&](const auto& name) { return word == dashes + name; });
        };
        return among(option.words, "--") || among(option.letters, "-");
    };
    const auto found = std::find_if(command.options.begin(), command.options.end(), is);
    return found == command.options.end() ? nullptr : &*found;
}

std::string long_name(const DescribedOption& option) {
    return option.words.empty() ? option.name : option.words.front();
}

} // namespace

Candidates candidates(const std::vector<std::string>& words) {
    const std::vector<DescribedCommand> commands = described_commands();
    // Before the command, for all of them.
    constexpr const char* general[][2] = {{"--config", "An OpenColorIO config"},
                                          {"--context", "NAME=VALUE of a variable of the config"},
                                          {"--print", "The ICC profile of a press"}};
    std::string config;
    std::vector<std::string> context;
    std::size_t at = 0;
    const DescribedOption* waits = nullptr;
    bool general_waits = false;
    Line line;
    line.word = words.empty() ? std::string() : words.back();
    for (; at + 1 < words.size() && !line.command; ++at) {
        const std::string& word = words[at];
        if (general_waits) {
            (words[at - 1] == "--config" ? config : context.emplace_back()) = word;
            general_waits = false;
        } else if (word.starts_with("--")) {
            general_waits = std::any_of(std::begin(general), std::end(general),
                                        [&](const auto& option) { return word == option[0]; });
        } else {
            const auto found = std::find_if(commands.begin(), commands.end(), [&](const DescribedCommand& command) {
                return word == command.name || word == command.also;
            });
            if (found == commands.end())
                return {};
            line.command = &*found;
        }
    }
    Candidates all;
    if (!line.command) {
        if (general_waits)
            return {{}, true};
        for (const DescribedCommand& command : commands)
            for (const std::string& name : {command.name, command.also})
                if (!name.empty())
                    all.values.push_back({name, command.help});
        for (const auto& option : general)
            all.values.push_back({option[0], option[1]});
        return all;
    }
    if (!config.empty() || !context.empty())
        (void)use_config(config, context);
    for (; at + 1 < words.size(); ++at) {
        const std::string& word = words[at];
        if (waits) {
            line.options[long_name(*waits)].push_back(word);
            waits = nullptr;
        } else if (const DescribedOption* option = named(*line.command, word)) {
            waits = option->takes_value ? option : nullptr;
        } else if (const std::size_t equals = word.find('='); word.starts_with("--") && equals != std::string::npos) {
            line.options[word.substr(2, equals - 2)].push_back(word.substr(equals + 1));
        } else if (!word.starts_with('-') || word == standard_stream) {
            line.positionals.push_back(word);
        }
    }
    if (waits)
        return values_of(*waits, line);
    if (line.word.starts_with('-')) {
        for (const DescribedOption& option : line.command->options)
            for (const std::string& word : option.words)
                all.values.push_back({"--" + word, option.help});
        all.values.push_back({"--help", "What the command takes"});
        return all;
    }
    const DescribedOption* last = nullptr;
    std::size_t index = 0;
    for (const DescribedOption& option : line.command->options)
        if (option.positional && index++ <= line.positionals.size())
            last = &option;
    return last ? values_of(*last, line) : Candidates{};
}

} // namespace kasuri::cli
