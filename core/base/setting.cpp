#include "base/setting.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri {

std::vector<double> completed(std::span<const Setting> settings, Values given) {
    std::vector<double> all;
    for (std::size_t i = 0; i < settings.size(); ++i) {
        const Setting& setting = settings[i];
        const double value =
            std::clamp(i < given.size() && !std::isnan(given[i]) ? given[i] : setting.value, setting.low, setting.high);
        all.push_back(setting.whole ? std::round(value) : value);
    }
    return all;
}

} // namespace kasuri
