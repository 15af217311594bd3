#include "fit/fit.hpp"

#include <algorithm>
#include <cmath>
#include <map>

namespace kasuri::fit {

Repeats repeats(const Pairs& pairs) {
    // Pairs of one small cell before: how far apart they came out. A function of a colour that is no steeper than
    // `steep` moves them no farther than that, and noise and whole numbers add their own.
    constexpr int cells = 96;
    constexpr double steep = 4, deviations = 5, whole_number = 1.0 / 255;
    float low = 0, high = 1;
    for (const auto& plane : pairs.from)
        for (const float x : plane) {
            low = std::min(low, x);
            high = std::max(high, x);
        }
    std::map<std::array<int, 3>, std::vector<std::size_t>> met;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        std::array<int, 3> cell{};
        for (std::size_t c = 0; c < 3; ++c)
            cell[c] = static_cast<int>((pairs.from[c][i] - low) / (high - low) * cells);
        met[cell].push_back(i);
    }
    const auto apart = [](const Planes& planes, std::size_t a, std::size_t b) {
        double most = 0;
        for (std::size_t c = 0; c < 3; ++c)
            most = std::max(most, std::fabs(static_cast<double>(planes[c][a]) - static_cast<double>(planes[c][b])));
        return most;
    };
    Repeats found;
    std::size_t apart_too_far = 0;
    const double noise = deviations * std::sqrt(2.0) * pairs.noise + whole_number;
    for (const auto& [cell, members] : met)
        for (std::size_t k = 1; k < members.size(); ++k) {
            ++found.compared;
            apart_too_far += apart(pairs.to, members[k - 1], members[k]) >
                noise + steep * apart(pairs.from, members[k - 1], members[k]);
        }
    constexpr std::size_t fewest = 20;
    if (found.compared >= fewest && pairs.noise > 0)
        found.unexplained = static_cast<double>(apart_too_far) / static_cast<double>(found.compared);
    return found;
}

} // namespace kasuri::fit
