#include "io/config_write.hpp"

#include "base/said.hpp"
#include "colour/space.hpp"
#include "io/ocio.hpp"

#include <algorithm>
#include <iterator>
#include <sstream>

namespace kasuri::io {
namespace {

OCIO::TransformRcPtr builtin(const char* style) {
    auto made = OCIO::BuiltinTransform::Create();
    made->setStyle(style);
    return made;
}

OCIO::TransformRcPtr bent(double gamma, double offset) {
    auto made = OCIO::ExponentWithLinearTransform::Create();
    const double gammas[4] = {gamma, gamma, gamma, 1}, offsets[4] = {offset, offset, offset, 0};
    made->setGamma(gammas);
    made->setOffset(offsets);
    made->setNegativeStyle(OCIO::NEGATIVE_LINEAR);
    return made;
}

OCIO::TransformRcPtr power(double gamma) {
    auto made = OCIO::ExponentTransform::Create();
    const double gammas[4] = {gamma, gamma, gamma, 1};
    made->setValue(gammas);
    made->setNegativeStyle(OCIO::NEGATIVE_MIRROR);
    return made;
}

/// One row: a curve of ours, decoded as OpenColorIO does it; null: nothing is to be done. Source of the numbers: those
/// of colour/transfer.
struct Curve {
    std::string_view transfer;
    OCIO::TransformRcPtr (*decode)();
};
constexpr Curve curves[] = {{"linear", [] { return OCIO::TransformRcPtr(); }},
                            {"srgb", [] { return bent(2.4, 0.055); }},
                            {"bt709", [] { return bent(1 / 0.45, 0.099); }},
                            {"bt1886", [] { return power(2.4); }},
                            {"gamma18", [] { return power(1.8); }},
                            {"gamma22", [] { return power(2.2); }},
                            {"gamma24", [] { return power(2.4); }},
                            {"gamma26", [] { return power(2.6); }}};

OCIO::TransformRcPtr matrix_between(const colour::Space& from, const colour::Space& to) {
    const colour::Matrix3 m = colour::linear_between(from, to);
    const double values[16] = {m[0][0], m[0][1], m[0][2], 0, m[1][0], m[1][1], m[1][2], 0,
                               m[2][0], m[2][1], m[2][2], 0, 0,       0,       0,       1};
    auto made = OCIO::MatrixTransform::Create();
    made->setMatrix(values);
    return made;
}

/// From a space of ours to ACES2065-1; null if OpenColorIO has no such curve.
OCIO::GroupTransformRcPtr to_aces(const colour::Space& space) {
    auto all = OCIO::GroupTransform::Create();
    if (space.name == "acescct" || space.name == "acescc") {
        all->appendTransform(builtin(space.name == "acescct" ? "ACEScct_to_ACES2065-1" : "ACEScc_to_ACES2065-1"));
        return all;
    }
    const auto curve = std::find_if(std::begin(curves), std::end(curves),
                                    [&](const Curve& row) { return row.transfer == space.transfer; });
    if (curve == std::end(curves) || space.to_light)
        return nullptr;
    if (const auto decode = curve->decode())
        all->appendTransform(decode);
    const colour::Space& aces = *colour::find_space("aces2065-1");
    if (space.name != aces.name)
        all->appendTransform(matrix_between(space, aces));
    return all;
}

OCIO::ColorSpaceRcPtr new_space(const colour::Space& space) {
    auto made = OCIO::ColorSpace::Create();
    made->setName(std::string(space.name).c_str());
    made->setDescription(std::string(space.doc).c_str());
    made->setBitDepth(OCIO::BIT_DEPTH_F32);
    return made;
}

/// ACES2065-1 is the reference, which has no transform.
OCIO::ConfigRcPtr new_config() {
    OCIO::ConfigRcPtr config = OCIO::Config::Create()->createEditableCopy();
    config->setVersion(2, 1);
    for (const char* name : {"aces2065-1", "acescg", "acescct", "srgb"}) {
        const colour::Space& space = *colour::find_space(name);
        const OCIO::ColorSpaceRcPtr added = new_space(space);
        if (std::string(name) != "aces2065-1")
            added->setTransform(to_aces(space), OCIO::COLORSPACE_DIR_TO_REFERENCE);
        config->addColorSpace(added);
    }
    config->setRole("aces_interchange", "aces2065-1");
    config->setRole("scene_linear", "acescg");
    config->setRole("color_timing", "acescct");
    config->setRole("default", "acescg");
    auto rules = OCIO::FileRules::Create();
    rules->setDefaultRuleColorSpace("default");
    config->setFileRules(rules);
    config->addDisplayView("sRGB", "plain", "srgb", "");
    return config;
}

/// The name by which the config knows a space; it is added if it does not.
Result<std::string> known(const OCIO::ConfigRcPtr& config, const std::string& name, std::vector<std::string>& notes) {
    if (const auto there = config->getColorSpace(name.c_str()))
        return std::string(there->getName());
    const colour::Space* space = colour::find_space(name);
    const OCIO::GroupTransformRcPtr way = space ? to_aces(*space) : nullptr;
    if (!way)
        return Error{said("OpenColorIO has no space {} and no curve for it", name), "",
                     "Carry the look to acescct, acescg or srgb first (kasuri-cli carry)."};
    if (!config->hasRole("aces_interchange"))
        return Error{said("the config does not say how its light relates to other light (role aces_interchange)"), "",
                     "Add that role, or the space itself, to the config."};
    // To the config's own reference, by way of the space that stands for ACES2065-1 in it.
    const auto aces = config->getColorSpace("aces_interchange");
    if (const auto further = aces->getTransform(OCIO::COLORSPACE_DIR_TO_REFERENCE))
        way->appendTransform(further->createEditableCopy());
    else if (const auto from = aces->getTransform(OCIO::COLORSPACE_DIR_FROM_REFERENCE)) {
        const OCIO::TransformRcPtr turned = from->createEditableCopy();
        turned->setDirection(OCIO::CombineTransformDirections(turned->getDirection(), OCIO::TRANSFORM_DIR_INVERSE));
        way->appendTransform(turned);
    }
    const OCIO::ColorSpaceRcPtr added = new_space(*space);
    added->setTransform(way, OCIO::COLORSPACE_DIR_TO_REFERENCE);
    config->addColorSpace(added);
    notes.push_back(said("the space {} was added to the config", name));
    return name;
}

Error failure(const std::filesystem::path& path, const std::exception& problem) {
    std::string reason = problem.what();
    std::replace(reason.begin(), reason.end(), '\n', ' ');
    return {said("cannot be used as a colour config ({})", reason), path.string(), "Does another program accept it?"};
}

/// Folders that are named from the base's own are named from where it goes.
void move_search_paths(OCIO::Config& config, const std::filesystem::path& base, const std::filesystem::path& out) {
    const auto whole = [](const std::filesystem::path& path) {
        return std::filesystem::weakly_canonical(std::filesystem::absolute(path));
    };
    const std::filesystem::path from = whole(base).parent_path(), to = whole(out).parent_path();
    if (from == to)
        return;
    std::vector<std::string> paths;
    for (int i = 0; i < config.getNumSearchPaths(); ++i)
        paths.emplace_back(config.getSearchPath(i));
    if (paths.empty())
        paths.emplace_back("."); // where files are looked for when nothing is said
    config.clearSearchPaths();
    for (const std::string& path : paths)
        config.addSearchPath(path.starts_with('/') || path.starts_with('$')
                                 ? path.c_str()
                                 : (from / path).lexically_normal().lexically_relative(to).string().c_str());
}

} // namespace

Result<std::string> config_with(const std::filesystem::path& base, const std::filesystem::path& out,
                                const std::string& search_path, std::span<const ConfigLook> looks,
                                std::vector<std::string>& notes) {
    try {
        const OCIO::ConfigRcPtr config =
            base.empty() ? new_config() : OCIO::Config::CreateFromFile(base.string().c_str())->createEditableCopy();
        if (!base.empty())
            move_search_paths(*config, base, out);
        config->addSearchPath(search_path.c_str());
        const std::string display = config->getDefaultDisplay();
        if (display.empty())
            return Error{said("the config has no display"), base.string(), "Add one to it."};
        const std::string view = config->getDefaultView(display.c_str());
        const auto or_nothing = [](const char* text) { return std::string(text ? text : ""); };
        const std::string shows = or_nothing(config->getDisplayViewColorSpaceName(display.c_str(), view.c_str())),
                          by = or_nothing(config->getDisplayViewTransformName(display.c_str(), view.c_str())),
                          before = or_nothing(config->getDisplayViewLooks(display.c_str(), view.c_str()));
        for (const ConfigLook& look : looks) {
            if (config->getLook(look.name.c_str()))
                return Error{said("the config has a look named {} already", look.name), base.string(),
                             "Give ours another title."};
            const auto space = known(config, look.space, notes);
            if (!space)
                return Error{space.error().what, base.string(), space.error().remedy};
            auto file = OCIO::FileTransform::Create();
            file->setSrc(look.file.c_str());
            file->setInterpolation(OCIO::INTERP_TETRAHEDRAL);
            auto made = OCIO::Look::Create();
            made->setName(look.name.c_str());
            made->setProcessSpace(space.value().c_str());
            made->setDescription(look.note.c_str());
            made->setTransform(file);
            config->addLook(made);
            const std::string all = before.empty() ? look.name : before + ", " + look.name;
            config->addDisplayView(display.c_str(), look.name.c_str(), by.c_str(), shows.c_str(), all.c_str(), "",
                                   look.note.c_str());
            notes.push_back(said("the view {} on {} shows {} through the look", look.name, display, view));
        }
        config->validate();
        std::ostringstream text;
        config->serialize(text);
        return text.str();
    } catch (const OCIO::Exception& problem) {
        return failure(base, problem);
    }
}

Result<std::vector<colour::Triple>> through_look(const std::filesystem::path& path, const std::string& name,
                                                 const std::string& space, std::span<const colour::Triple> colours) {
    try {
        const OCIO::ConstConfigRcPtr config = OCIO::Config::CreateFromFile(path.string().c_str());
        const auto look = config->getLook(name.c_str());
        if (!look)
            return Error{said("has no look {}", name), path.string(), ""};
        const bool by_aces = config->hasRole("aces_interchange");
        const colour::Space *ours = colour::find_space(space), *aces = colour::find_space("aces2065-1");
        const char* const meets = by_aces ? "aces_interchange" : look->getProcessSpace();
        auto step = OCIO::LookTransform::Create();
        step->setSrc(meets);
        step->setDst(meets);
        step->setLooks(name.c_str());
        const auto processor = config->getProcessor(step)->getDefaultCPUProcessor();
        std::vector<colour::Triple> made;
        for (const colour::Triple& colour : colours) {
            const colour::Triple in = by_aces ? colour::converted(colour, *ours, *aces) : colour;
            float pixel[3] = {static_cast<float>(in[0]), static_cast<float>(in[1]), static_cast<float>(in[2])};
            processor->applyRGB(pixel);
            const colour::Triple out = {static_cast<double>(pixel[0]), static_cast<double>(pixel[1]),
                                        static_cast<double>(pixel[2])};
            made.push_back(by_aces ? colour::converted(out, *aces, *ours) : out);
        }
        return made;
    } catch (const OCIO::Exception& problem) {
        return failure(path, problem);
    }
}

} // namespace kasuri::io
