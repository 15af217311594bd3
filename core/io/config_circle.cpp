#include "io/config_circle.hpp"

#include <algorithm>
#include <map>
#include <set>

namespace kasuri::io {
namespace {

/// What a space or a look is worked out from, by name.
using Needs = std::map<std::string, std::set<std::string>>;

class Reader {
public:
    explicit Reader(const OCIO::ConstConfigRcPtr& config) : config_(config) {}

    Needs read() {
        const auto all = OCIO::SEARCH_REFERENCE_SPACE_ALL;
        for (int i = 0; i < config_->getNumColorSpaces(all, OCIO::COLORSPACE_ALL); ++i)
            if (const auto space =
                    config_->getColorSpace(config_->getColorSpaceNameByIndex(all, OCIO::COLORSPACE_ALL, i)))
                for (const auto way : {OCIO::COLORSPACE_DIR_TO_REFERENCE, OCIO::COLORSPACE_DIR_FROM_REFERENCE})
                    add(space->getName(), space->getTransform(way));
        for (int i = 0; i < config_->getNumLooks(); ++i)
            if (const auto look = config_->getLook(config_->getLookNameByIndex(i))) {
                const std::string name = look_name(look->getName());
                needs(name, look->getProcessSpace());
                add(name, look->getTransform());
                add(name, look->getInverseTransform());
            }
        return std::move(needs_);
    }

private:
    static std::string look_name(const std::string& name) { return "look " + name; }

    /// By whatever name a space is called: a role, an alias.
    void needs(const std::string& who, const char* space) {
        if (const auto found = space ? config_->getColorSpace(space) : nullptr)
            needs_[who].insert(found->getName());
    }

    void add(const std::string& who, const OCIO::ConstTransformRcPtr& transform) {
        if (!transform)
            return;
        if (const auto group = OCIO_DYNAMIC_POINTER_CAST<const OCIO::GroupTransform>(transform)) {
            for (int i = 0; i < group->getNumTransforms(); ++i)
                add(who, group->getTransform(i));
        } else if (const auto between = OCIO_DYNAMIC_POINTER_CAST<const OCIO::ColorSpaceTransform>(transform)) {
            needs(who, between->getSrc());
            needs(who, between->getDst());
        } else if (const auto shown = OCIO_DYNAMIC_POINTER_CAST<const OCIO::DisplayViewTransform>(transform)) {
            needs(who, shown->getSrc());
            needs(who, config_->getDisplayViewColorSpaceName(shown->getDisplay(), shown->getView()));
        } else if (const auto look = OCIO_DYNAMIC_POINTER_CAST<const OCIO::LookTransform>(transform)) {
            needs(who, look->getSrc());
            needs(who, look->getDst());
            // A list of names, each perhaps with a sign before it.
            std::string names = look->getLooks() ? look->getLooks() : "";
            std::replace_if(
                names.begin(), names.end(), [](char c) { return c == ',' || c == '|' || c == ':'; }, ' ');
            for (std::size_t at = 0; at < names.size();) {
                const std::size_t from = names.find_first_not_of(" +-", at);
                if (from == std::string::npos)
                    break;
                at = std::min(names.find(' ', from), names.size());
                needs_[who].insert(look_name(names.substr(from, at - from)));
            }
        }
    }

    const OCIO::ConstConfigRcPtr& config_;
    Needs needs_;
};

} // namespace

std::vector<std::string> circle_in(const OCIO::ConstConfigRcPtr& config) {
    const Needs needs = Reader(config).read();
    std::set<std::string> done; // from which no circle is reached
    for (const auto& [start, unused] : needs) {
        // Down and up again without recursion: a config may be a long chain.
        std::vector<std::pair<std::string, std::vector<std::string>>> path;
        const auto enter = [&](const std::string& name) {
            const auto found = needs.find(name);
            path.emplace_back(name,
                              found == needs.end()
                                  ? std::vector<std::string>()
                                  : std::vector<std::string>(found->second.begin(), found->second.end()));
        };
        if (!done.contains(start))
            enter(start);
        while (!path.empty()) {
            if (path.back().second.empty()) {
                done.insert(path.back().first);
                path.pop_back();
                continue;
            }
            const std::string next = path.back().second.back();
            path.back().second.pop_back();
            const auto known =
                std::find_if(path.begin(), path.end(), [&](const auto& each) { return each.first == next; });
            if (known != path.end()) {
                std::vector<std::string> circle;
                for (auto each = known; each != path.end(); ++each)
                    circle.push_back(each->first);
                circle.push_back(next);
                return circle;
            }
            if (!done.contains(next))
                enter(next);
        }
    }
    return {};
}

} // namespace kasuri::io
