#include "io/config.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "colour/conversion.hpp"
#include "colour/primaries.hpp"
#include "colour/space.hpp"
#include "io/config_circle.hpp"
#include "io/ocio_shader.hpp"
#include "io/trial.hpp"

#include <algorithm>
#include <cctype>
#include <cstdlib>
#include <fmt/format.h>
#include <iterator>
#include <map>
#include <mutex>
#include <system_error>

namespace kasuri::io {
namespace {

constexpr int max_spaces = 1000; ///< a second of work

/// A processor between a space of the config and the light that it shares with us.
class Conversion final : public ir::External, public ShaderSource {
public:
    explicit Conversion(OCIO::ConstProcessorRcPtr whole)
        : whole_(std::move(whole)), processor_(whole_->getOptimizedCPUProcessor(OCIO::OPTIMIZATION_LOSSLESS)) {}
    void apply(float* const planes[3], std::size_t count) const override {
        try {
            OCIO::PlanarImageDesc image(planes[0], planes[1], planes[2], nullptr, static_cast<long>(count), 1);
            processor_->apply(image);
        } catch (const std::exception&) { // it was tried before; numbers that are not converted must not pass for it
            fill_with_nan(planes, count);
        }
    }
    std::string identity() const override { return processor_->getCacheID(); }
    std::optional<ShaderCode> shader_code(const std::string& name) const override {
        return shader_code_of(whole_, name);
    }

private:
    OCIO::ConstProcessorRcPtr whole_;
    OCIO::ConstCPUProcessorRcPtr processor_;
};

std::string without_newlines(std::string text) {
    for (char& c : text)
        if (c == '\n' || c == '\r')
            c = ' ';
    return text;
}

OCIO::MatrixTransformRcPtr matrix_of(const colour::Matrix3& m) {
    auto matrix = OCIO::MatrixTransform::Create();
    const double values[16] = {m[0][0], m[0][1], m[0][2], 0, m[1][0], m[1][1], m[1][2], 0,
                               m[2][0], m[2][1], m[2][2], 0, 0,       0,       0,       1};
    matrix->setMatrix(values);
    return matrix;
}

/// From one space of the config to another. Where they meet us in XYZ under D65, that end goes on to linear BT.709.
OCIO::ConstProcessorRcPtr joined(const OCIO::ConstConfigRcPtr& config, const std::string& from, const std::string& to,
                                 bool xyz) {
    if (!xyz)
        return config->getProcessor(from.c_str(), to.c_str());
    const colour::Space& light = *colour::find_space(colour::default_space);
    const bool in = from == "cie_xyz_d65_interchange";
    const auto matrix = matrix_of(in ? colour::to_xyz(light) : colour::from_xyz(light));
    auto step = OCIO::ColorSpaceTransform::Create();
    step->setSrc(from.c_str());
    step->setDst(to.c_str());
    auto both = OCIO::GroupTransform::Create();
    if (in)
        both->appendTransform(matrix);
    both->appendTransform(step);
    if (!in)
        both->appendTransform(matrix);
    return config->getProcessor(both);
}

/// What goes to a display through a view and its looks, from the light that the config shares with us; or the way back.
OCIO::ConstProcessorRcPtr seen(const OCIO::ConstConfigRcPtr& config, const std::string& exchange,
                               const std::string& display, const std::string& view, bool xyz, bool back) {
    auto step = OCIO::DisplayViewTransform::Create();
    step->setSrc(exchange.c_str());
    step->setDisplay(display.c_str());
    step->setView(view.c_str());
    auto all = OCIO::GroupTransform::Create();
    if (xyz)
        all->appendTransform(matrix_of(colour::to_xyz(*colour::find_space(colour::default_space))));
    all->appendTransform(step);
    return config->getProcessor(all, back ? OCIO::TRANSFORM_DIR_INVERSE : OCIO::TRANSFORM_DIR_FORWARD);
}

/// Where there is no way back from what a display shows.
class NoWay final : public ir::External {
public:
    void apply(float* const planes[3], std::size_t count) const override { fill_with_nan(planes, count); }
    std::string identity() const override { return "no-way"; }
};

/// Which roles the config gives to each space.
std::multimap<std::string, std::string> roles_of(const OCIO::ConstConfigRcPtr& config) {
    std::multimap<std::string, std::string> roles;
    for (int i = 0; i < config->getNumRoles(); ++i)
        if (const auto of = config->getColorSpace(config->getRoleName(i)))
            roles.emplace(of->getName(), config->getRoleName(i));
    return roles;
}

/// Further names of a space: its aliases, and its roles.
std::vector<std::string> names_of(const OCIO::ConstColorSpaceRcPtr& space,
                                  const std::multimap<std::string, std::string>& roles) {
    std::vector<std::string> names;
    for (std::size_t i = 0; i < space->getNumAliases(); ++i)
        names.emplace_back(space->getAlias(i));
    const auto [begin, end] = roles.equal_range(space->getName());
    for (auto role = begin; role != end; ++role)
        names.push_back(role->second);
    return names;
}

/// Every view of every display, as far as it makes colours that are seen.
void add_views(const OCIO::ConstConfigRcPtr& config, const std::string& exchange, bool xyz,
               const colour::AddedSpace& light, std::vector<colour::AddedSpace>& into,
               std::vector<std::string>& notes) {
    constexpr std::size_t most = 200;
    std::size_t left_out = 0, found = 0;
    for (int d = 0; d < config->getNumDisplays(); ++d) {
        const std::string display = config->getDisplay(d);
        for (int v = 0; v < config->getNumViews(display.c_str()); ++v) {
            const std::string view = config->getView(display.c_str(), v), name = view + " on " + display;
            const char* shows = config->getDisplayViewColorSpaceName(display.c_str(), view.c_str());
            if (const auto space = shows ? config->getColorSpace(shows) : nullptr; space && space->isData())
                continue;
            if (++found > most) {
                ++left_out;
                continue;
            }
            try {
                colour::AddedSpace added{
                    name,
                    "",
                    light.source,
                    light.primaries,
                    light.white,
                    nullptr,
                    std::make_unique<Conversion>(seen(config, exchange, display, view, xyz, false))};
                added.is_view = true;
                try {
                    added.to_light = std::make_unique<Conversion>(seen(config, exchange, display, view, xyz, true));
                } catch (const OCIO::Exception&) {
                    added.to_light = std::make_unique<NoWay>();
                }
                into.push_back(std::move(added));
            } catch (const OCIO::Exception& problem) {
                notes.push_back(
                    said("the config's view {} cannot be shown: {}", name, without_newlines(problem.what())));
            }
        }
    }
    if (left_out > 0)
        notes.push_back(said("the config has more than {} views; {} were left out", most, left_out));
}

/// A function's name: letters, digits and single low lines.
std::string function_name(const std::string& name) {
    std::string made = "config_";
    for (const unsigned char c : name)
        if (std::isalnum(c) != 0)
            made += static_cast<char>(std::tolower(c));
        else if (made.back() != '_')
            made += '_';
    return made.back() == '_' ? made.substr(0, made.size() - 1) : made;
}

/// The config's named transforms, which belong to no space, as functions of rules.
void add_named_transforms(const OCIO::ConstConfigRcPtr& config, const std::string& file,
                          std::vector<colour::Conversion>& into, std::vector<std::string>& notes) {
    constexpr int most = 200;
    const int count = config->getNumNamedTransforms();
    for (int i = 0; i < std::min(count, most); ++i) {
        const char* const name = config->getNamedTransformNameByIndex(i);
        const auto transform = config->getNamedTransform(name);
        for (const bool back : {false, true})
            try {
                const std::string function = function_name(name) + (back ? "_inverse" : "");
                // It says one way or both; the other one is what undoes it.
                const auto wanted = back ? OCIO::TRANSFORM_DIR_INVERSE : OCIO::TRANSFORM_DIR_FORWARD,
                           other = back ? OCIO::TRANSFORM_DIR_FORWARD : OCIO::TRANSFORM_DIR_INVERSE;
                const auto own = transform->getTransform(wanted);
                auto code = std::make_unique<Conversion>(
                    own ? config->getProcessor(own, OCIO::TRANSFORM_DIR_FORWARD)
                        : config->getProcessor(transform->getTransform(other), OCIO::TRANSFORM_DIR_INVERSE));
                if (std::any_of(into.begin(), into.end(), [&](const auto& each) { return each.name == function; }))
                    notes.push_back(
                        said("the config's named transform {} has a name like another's and was left out", name));
                else
                    into.push_back(
                        {function,
                         said("The named transform {} of the colour config{}. {}", name,
                              back ? said(", inverted") : std::string(), without_newlines(transform->getDescription())),
                         said("OpenColorIO config {}", file), std::move(code)});
            } catch (const OCIO::Exception& problem) {
                if (!back)
                    notes.push_back(said("the config's named transform {} cannot be used: {}", name,
                                         without_newlines(problem.what())));
            }
    }
    if (count > most)
        notes.push_back(said("the config has more than {} named transforms; {} were left out", most, count - most));
}

/// Whether a name is what a pattern with * and ? says. Goes back to the last * alone, so that no pattern takes long.
bool matches(std::string_view pattern, std::string_view name, bool any_case) {
    const auto same = [any_case](char a, char b) {
        return a == '?' || a == b ||
            (any_case && std::tolower(static_cast<unsigned char>(a)) == std::tolower(static_cast<unsigned char>(b)));
    };
    std::size_t p = 0, n = 0, star = std::string_view::npos, from = 0;
    while (n < name.size())
        if (p < pattern.size() && pattern[p] == '*') {
            star = p++;
            from = n;
        } else if (p < pattern.size() && same(pattern[p], name[n])) {
            ++p;
            ++n;
        } else if (star != std::string_view::npos) {
            p = star + 1;
            n = ++from;
        } else {
            return false;
        }
    return pattern.find_first_not_of('*', p) == std::string_view::npos;
}

/// A file rule that says what a file is by a pattern and an ending. The library matches them by regular expressions,
/// with which a config could keep a reader of pictures for ever.
struct NameRule {
    std::string pattern, ending, space;
};
std::mutex rules_mutex;
std::vector<NameRule> name_rules; ///< of the config that was read last, the first that fits counts

std::vector<NameRule> name_rules_of(const OCIO::ConstConfigRcPtr& config, std::vector<std::string>& notes) {
    std::vector<NameRule> all;
    const auto rules = config->getFileRules();
    const auto text = [](const char* x) { return std::string(x ? x : ""); };
    for (std::size_t i = 0; rules && i + 1 < rules->getNumEntries(); ++i) { // the last one is for all other files
        const std::string pattern = text(rules->getPattern(i)), name = text(rules->getName(i));
        const auto space = config->getColorSpace(text(rules->getColorSpace(i)).c_str());
        if (pattern.empty() || pattern.find_first_of("[]") != std::string::npos)
            notes.push_back(said("the config's file rule {} is not by * and ? and was left out", name));
        else if (space && !space->isData())
            all.push_back({pattern, text(rules->getExtension(i)), space->getName()});
    }
    return all;
}

} // namespace

std::string space_by_file_rule(const std::filesystem::path& path) {
    const std::string name = path.string();
    const std::size_t dot = name.rfind('.');
    if (dot == std::string::npos)
        return {};
    const std::string_view stem = std::string_view(name).substr(0, dot),
                           ending = std::string_view(name).substr(dot + 1);
    const std::lock_guard lock(rules_mutex);
    for (const NameRule& rule : name_rules)
        if (matches(rule.ending, ending, true) && matches(rule.pattern, stem, false))
            return rule.space;
    return {};
}

std::filesystem::path config_of_environment() {
    const char* named = std::getenv("OCIO");
    return named ? named : "";
}

std::optional<std::pair<std::string, std::string>> read_context(std::string_view text) {
    const std::size_t equals = text.find('=');
    const std::string_view name = text.substr(0, equals);
    const bool plain = !name.empty() &&
        std::all_of(name.begin(), name.end(), [](unsigned char c) { return std::isalnum(c) != 0 || c == '_'; });
    if (equals == std::string_view::npos || !plain || text.find('\n') != std::string_view::npos)
        return std::nullopt;
    return std::pair(std::string(name), std::string(text.substr(equals + 1)));
}

std::string context_text(const ConfigContext& context) {
    std::string text;
    for (const auto& [name, value] : context)
        text += name + "=" + value + "\n";
    return text;
}

ConfigContext context_of(std::string_view text) {
    ConfigContext context;
    for (const std::string_view line : split(text, '\n'))
        if (auto entry = read_context(line))
            context.insert(std::move(*entry));
    return context;
}

namespace {

/// The config with these values for its variables.
OCIO::ConstConfigRcPtr in_context(const OCIO::ConstConfigRcPtr& config, const ConfigContext& context,
                                  std::vector<std::string>& notes) {
    if (context.empty())
        return config;
    const OCIO::ConfigRcPtr made = config->createEditableCopy();
    for (const auto& [name, value] : context) {
        bool known = made->getEnvironmentMode() == OCIO::ENV_ENVIRONMENT_LOAD_ALL;
        for (int i = 0; i < made->getNumEnvironmentVars(); ++i)
            known = known || name == made->getEnvironmentVarNameByIndex(i);
        if (!known)
            notes.push_back(said("the config has no variable {}", name));
        made->addEnvironmentVar(name.c_str(), value.c_str());
    }
    return made;
}

} // namespace

Result<LoadedConfig> load_config(const std::filesystem::path& path, const ConfigContext& context) {
    std::error_code failure;
    if (!std::filesystem::exists(path, failure) || std::filesystem::is_directory(path, failure))
        return Error{"there is no such colour config", path.string(), "Name a file that ends with .ocio."};
    if (const Status readable = readable_file(path); !readable)
        return readable.error();
    if (const Status tried = try_file(wire::Message::Kind::config, path, context_text(context)); !tried)
        return tried.error();
    return load_config_here(path, context);
}

Result<LoadedConfig> load_config_here(const std::filesystem::path& path, const ConfigContext& context) {
    OCIO::SetLoggingLevel(OCIO::LOGGING_LEVEL_NONE);
    try {
        LoadedConfig loaded;
        const OCIO::ConstConfigRcPtr config =
            in_context(OCIO::Config::CreateFromFile(path.string().c_str()), context, loaded.notes);
        // The library looks every space up from the first to the last, so that its work grows with their square.
        if (const int count = config->getNumColorSpaces(OCIO::SEARCH_REFERENCE_SPACE_ALL, OCIO::COLORSPACE_ALL);
            count > max_spaces)
            return Error{said("the config has {} colour spaces; the limit is {}", count, max_spaces), path.string(),
                         "Take those out of it that are not needed."};
        if (const std::vector<std::string> circle = circle_in(config); !circle.empty())
            return Error{said("the config's spaces are worked out from each other in a circle: {}",
                              fmt::to_string(fmt::join(circle, " -> "))),
                         path.string(), "Let one of them begin from the reference."};
        config->validate();
        const bool aces = config->hasRole("aces_interchange"),
                   xyz = !aces && config->hasRole("cie_xyz_d65_interchange");
        const std::string exchange = aces ? "aces_interchange" : xyz ? "cie_xyz_d65_interchange" : "scene_linear";
        if (!aces && !xyz) {
            if (!config->hasRole("scene_linear"))
                return Error{"the config names no space by which it meets others (the roles aces_interchange, "
                             "cie_xyz_d65_interchange or scene_linear)",
                             path.string(), "Add one of these roles to it."};
            loaded.notes.push_back(said("the config does not say how its light relates to other light (role "
                                        "aces_interchange): its scene_linear is taken as linear BT.709"));
        }
        const auto& primaries = aces ? colour::aces_primaries : colour::rec709_primaries;
        const colour::Chromaticity white = aces ? colour::aces_white : colour::d65;
        std::vector<colour::AddedSpace> made;
        const auto roles = roles_of(config);
        for (int i = 0; i < config->getNumColorSpaces(); ++i) {
            const std::string name = config->getColorSpaceNameByIndex(i);
            const OCIO::ConstColorSpaceRcPtr space = config->getColorSpace(name.c_str());
            if (space->isData())
                continue;
            const colour::Space* known = colour::find_space(name);
            if (known && !known->to_light) {
                loaded.notes.push_back(
                    said("the config's space {} has the name of a built-in one and was left out", name));
                continue;
            }
            try {
                colour::AddedSpace added{name,
                                         without_newlines(space->getDescription()),
                                         said("OpenColorIO config {}", path.filename().string()),
                                         primaries,
                                         white,
                                         std::make_unique<Conversion>(joined(config, name, exchange, xyz)),
                                         std::make_unique<Conversion>(joined(config, exchange, name, xyz)),
                                         names_of(space, roles)};
                made.push_back(std::move(added));
            } catch (const OCIO::Exception& problem) {
                loaded.notes.push_back(
                    said("the config's space {} cannot be used both ways: {}", name, without_newlines(problem.what())));
            }
        }
        std::vector<colour::AddedSpace> views;
        const colour::AddedSpace light{
            "", "", said("OpenColorIO config {}", path.filename().string()), primaries, white, nullptr, nullptr};
        add_views(config, exchange, xyz, light, views, loaded.notes);
        std::move(views.begin(), views.end(), std::back_inserter(made));
        std::vector<colour::Conversion> functions;
        add_named_transforms(config, path.filename().string(), functions, loaded.notes);
        if (made.empty())
            return Error{"the config has no colour space that can be used", path.string(),
                         loaded.notes.empty() ? "" : loaded.notes.back()};
        {
            std::vector<NameRule> rules = name_rules_of(config, loaded.notes);
            const std::lock_guard lock(rules_mutex);
            name_rules = std::move(rules);
        }
        colour::retire_added_spaces();
        colour::retire_conversions();
        for (colour::Conversion& function : functions) {
            loaded.functions.push_back(function.name);
            colour::add_conversion(std::move(function));
        }
        for (colour::AddedSpace& space : made) {
            (space.is_view ? loaded.views : loaded.spaces).push_back(space.name);
            colour::add_space(std::move(space));
        }
        return loaded;
    } catch (const OCIO::Exception& problem) {
        std::string reason = without_newlines(problem.what());
        const std::string told = "Error: Loading the OCIO profile '" + path.string() + "' failed. ";
        if (reason.starts_with(told)) // as the line says already
            reason.erase(0, told.size());
        return Error{said("cannot be used as a colour config ({})", reason), path.string(),
                     "Does another program accept it?"};
    }
}

} // namespace kasuri::io
