#include "model/tuning.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {
namespace {
constexpr double share = 0.25; ///< of the range that is left when it is narrowed

bool holds(const std::vector<std::string>& group, const std::string& name) {
    return std::find(group.begin(), group.end(), name) != group.end();
}
} // namespace

Tuning::Tuning(Session& session, QObject* parent) : QObject(parent), session_(session) {}

void Tuning::set(int parameter, double value) {
    const lang::Rule* rule = session_.rule();
    if (!rule || parameter < 0 || static_cast<std::size_t>(parameter) >= rule->parameters.size())
        return;
    const auto index = static_cast<std::size_t>(parameter);
    const std::vector<std::string> others = linked_with(rule->parameters[index].name);
    if (others.empty())
        return session_.set_value(parameter, value);
    std::vector<double> values = session_.values();
    const double by = lang::allowed_value(rule->parameters[index], value) - values[index];
    for (std::size_t i = 0; i < values.size(); ++i)
        if (i == index || holds(others, rule->parameters[i].name))
            values[i] = lang::allowed_value(rule->parameters[i], values[i] + by);
    session_.set_values(values, tr("%1 and what is linked").arg(QString::fromStdString(rule->parameters[index].name)),
                        parameter);
}

std::vector<std::string> Tuning::linked_with(const std::string& name) const {
    for (const std::vector<std::string>& group : kept_.links)
        if (holds(group, name)) {
            std::vector<std::string> others = group;
            std::erase(others, name);
            return others;
        }
    return {};
}

void Tuning::link(const std::string& a, const std::string& b) {
    if (a == b || holds(linked_with(a), b))
        return;
    document::KeptTuning kept = kept_;
    std::vector<std::string> together;
    for (const std::string& name : {a, b}) {
        together.push_back(name);
        for (const std::string& other : linked_with(name))
            together.push_back(other);
    }
    std::erase_if(kept.links, [&](const auto& group) { return holds(group, a) || holds(group, b); });
    kept.links.push_back(std::move(together));
    change(std::move(kept), tr("%1 linked with %2").arg(QString::fromStdString(a), QString::fromStdString(b)));
}

void Tuning::unlink(const std::string& name) {
    if (linked_with(name).empty())
        return;
    document::KeptTuning kept = kept_;
    for (auto& group : kept.links)
        std::erase(group, name);
    std::erase_if(kept.links, [](const auto& group) { return group.size() < 2; });
    change(std::move(kept), tr("%1 by itself").arg(QString::fromStdString(name)));
}

std::pair<double, double> Tuning::range(const lang::Parameter& parameter, double value) const {
    const auto found = kept_.ranges.find(parameter.name);
    if (found == kept_.ranges.end())
        return {parameter.low, parameter.high};
    const double low = std::max(parameter.low, found->second.first),
                 high = std::min(parameter.high, found->second.second);
    return low < high && value >= low && value <= high ? std::pair(low, high)
                                                       : std::pair(parameter.low, parameter.high);
}

void Tuning::narrow(const lang::Parameter& parameter, double low, double high) {
    document::KeptTuning kept = kept_;
    low = std::max(low, parameter.low);
    high = std::min(high, parameter.high);
    if (!(low < high) || (low <= parameter.low && high >= parameter.high))
        kept.ranges.erase(parameter.name);
    else
        kept.ranges[parameter.name] = {low, high};
    if (kept != kept_)
        change(std::move(kept), tr("range of %1").arg(QString::fromStdString(parameter.name)));
}

void Tuning::narrow_around(const lang::Parameter& parameter, double value) {
    const auto [low, high] = range(parameter, value);
    const double size = (high - low) * share;
    const double from = std::clamp(value - size / 2, low, high - size);
    narrow(parameter, from, from + size);
}

void Tuning::change(document::KeptTuning kept, const QString& name) {
    const document::KeptTuning before = std::exchange(kept_, std::move(kept));
    emit rearranged(name, {}, before);
    emit changed();
}

void Tuning::arrange(document::KeptTuning kept) {
    if (kept == kept_)
        return;
    kept_ = std::move(kept);
    emit changed();
}

} // namespace kasuri::app
