// Colours that shall not become alike, whoever looks at them.
#include "colour/difference.hpp"
#include "colour/models/models.hpp"
#include "colour/space.hpp"
#include "colour/vision.hpp"
#include "proof/measure.hpp"

#include <functional>

namespace kasuri::proof {
namespace {

/// One way of seeing linear light of BT.709.
struct Eyes {
    std::string name;
    std::function<colour::Triple(const colour::Triple&)> see;
};

std::vector<Eyes> most_eyes() {
    using colour::operator*;
    std::vector<Eyes> all = {{"most people", [](const colour::Triple& light) { return light; }}};
    for (const colour::Deficiency& who : colour::deficiencies())
        all.push_back(
            {std::string(who.name), [&who](const colour::Triple& light) { return colour::seen_by(who, 1) * light; }});
    for (const colour::Dichromat& who : colour::dichromats())
        all.push_back({std::string(who.name), [&who](const colour::Triple& light) { return seen_by(who, light); }});
    return all;
}

std::vector<Eyes> all_eyes() {
    std::vector<Eyes> all = most_eyes();
    all.push_back({"achromat", [](const colour::Triple& light) {
                       const double y = colour::luminance(light);
                       return colour::Triple{y, y, y};
                   }});
    return all;
}

/// The smallest CIEDE2000 between any two of the colours, through any of the eyes; a colour that is no number is alike
/// to all.
std::optional<Measurement> smallest(const Task& task, const std::vector<Eyes>& everyone) {
    if (task.colours.size() < 2)
        return Measurement(); // nothing is apart from nothing: that does not hold
    const image::Picture picture = picture_of(task.colours);
    const auto after = task.applied(picture);
    if (!after)
        return std::nullopt;
    const colour::Space &from = *colour::find_space(task.subject.out_space()),
                        &display = *colour::find_space("rec709-linear");
    Measurement result;
    result.figure = std::numeric_limits<double>::infinity();
    for (const Eyes& eyes : everyone) {
        std::vector<colour::Triple> seen;
        for (std::size_t i = 0; i < picture.pixels(); ++i) {
            const auto c = after->at(i);
            const colour::Triple light = colour::converted(
                {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])}, from, display);
            seen.push_back(colour::from_rgb(colour::lab_model, display, eyes.see(light)));
        }
        for (std::size_t i = 0; i < seen.size(); ++i)
            for (std::size_t j = i + 1; j < seen.size(); ++j) {
                double figure = colour::ciede2000(seen[i], seen[j]);
                if (std::isnan(figure))
                    figure = 0;
                if (figure < result.figure)
                    result = {figure,
                              {"these colours, seen by " + eyes.name, static_cast<int>(j),
                               static_cast<int>(picture.pixels()), picture.at(j), after->at(j)},
                              result.samples};
                ++result.samples;
            }
    }
    return result;
}

std::optional<Measurement> measure(const Task& task) {
    static const std::vector<Eyes> eyes = most_eyes();
    return smallest(task, eyes);
}
std::optional<Measurement> measure_everyone(const Task& task) {
    static const std::vector<Eyes> eyes = all_eyes();
    return smallest(task, eyes);
}

constexpr double told_apart = 5; ///< CIEDE2000; two patches side by side are told apart from about 1 on

} // namespace

extern const Function apart, apart_for_everyone;
const Function apart = {
    "apart",
    "these colours stay apart for other eyes",
    "The smallest CIEDE2000 between any two of the colours after the rule, as most people see them and as those do who "
    "lack one kind of cone (Machado, Oliveira and Fernandes 2009 at 1; Vi\u00e9not, Brettel and Mollon 1999; Brettel, "
    "Vi\u00e9not and Mollon 1997).",
    told_apart,
    false,
    measure,
    false,
    nullptr,
    false,
    true,
};
const Function apart_for_everyone = {
    "apart_for_everyone",
    "these colours stay apart for everyone",
    "The same, and through the eyes of those who see no colour at all, only luminance.",
    told_apart,
    false,
    measure_everyone,
    false,
    nullptr,
    false,
    true,
};

} // namespace kasuri::proof
