#include "fit/errors.hpp"

#include "colour/difference.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::fit {
namespace {

constexpr std::size_t most_delta_e = 4096; ///< colours whose CIEDE2000 is measured; the differences are of all

std::array<double, 3> lab_of(const std::string& space, const Planes& planes, std::size_t i) {
    static const colour::Model& lab = *colour::find_model("lab");
    const colour::Space* known = colour::find_space(space);
    const colour::Triple rgb{static_cast<double>(planes[0][i]), static_cast<double>(planes[1][i]),
                             static_cast<double>(planes[2][i])};
    return colour::from_rgb(lab, known ? *known : *colour::find_space(colour::default_space), rgb);
}

std::array<float, 3> colour_at(const Planes& planes, std::size_t i) {
    return {planes[0][i], planes[1][i], planes[2][i]};
}

} // namespace

Truth::Truth(const Pairs& pairs) : pairs_(pairs) {
    const std::size_t count = pairs.size(), every = std::max<std::size_t>(1, count / most_delta_e);
    for (std::size_t i = 0; i < count; i += every) {
        picked_.push_back(i);
        lab_.push_back(lab_of(pairs.space, pairs.to, i));
    }
}

Errors Truth::errors_of(const Planes& made) const {
    Errors errors;
    errors.pairs = pairs_.size();
    double sum = 0;
    for (std::size_t i = 0; i < pairs_.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const double d = std::fabs(static_cast<double>(made[c][i]) - static_cast<double>(pairs_.to[c][i]));
            sum += d * d;
            if (!(d <= errors.largest)) { // also where it is no number
                errors.largest = d;
                errors.at = colour_at(pairs_.from, i);
            }
        }
    errors.rms = std::sqrt(sum / std::max<double>(1, 3 * static_cast<double>(pairs_.size())));
    std::vector<double> far;
    for (std::size_t k = 0; k < picked_.size(); ++k) {
        const double d = colour::ciede2000(lab_[k], lab_of(pairs_.space, made, picked_[k]));
        if (!(d <= errors.delta_e_largest)) {
            errors.delta_e_largest = d;
            errors.delta_e_at = colour_at(pairs_.from, picked_[k]);
        }
        errors.delta_e_mean += d / static_cast<double>(picked_.size());
        far.push_back(d);
    }
    if (!far.empty()) {
        const auto place = far.begin() + static_cast<std::ptrdiff_t>(0.95 * static_cast<double>(far.size() - 1));
        std::nth_element(far.begin(), place, far.end());
        errors.delta_e_95 = *place;
    }
    return errors;
}

double mean_delta_e(const Pairs& pairs, const Planes& made) { return Truth(pairs).errors_of(made).delta_e_mean; }

} // namespace kasuri::fit
