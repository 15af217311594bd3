#include "insight/summary.hpp"

#include "base/said.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "engine/lower.hpp"
#include "insight/algebra.hpp"

#include <fmt/format.h>

namespace kasuri::insight {
namespace {

std::string rows_of(const Affine& map) {
    std::string text;
    constexpr char letters[] = "rgb";
    for (std::size_t row = 0; row < 3; ++row) {
        text += fmt::format("  {} =", letters[row]);
        for (std::size_t i = 0; i < 3; ++i)
            text += fmt::format(" {:>10}", number_text(map.matrix[row][i], 6));
        text += fmt::format("   + {}\n", number_text(map.offset[row], 6));
    }
    return text;
}

} // namespace

Known known(const subject::Subject& subject) {
    Known made;
    made.matrix = shown_matrix(subject);
    made.identity = made.matrix ? made.matrix->is_identity() : shown_identity(subject);
    made.curves = separable(subject);
    std::vector<double> defaults;
    for (const subject::Parameter& p : subject.parameters())
        defaults.push_back(p.value);
    made.identity_at_defaults = shown_identity(subject.at(defaults));
    made.neutral = shown_neutral(subject);
    made.grey_kept = made.neutral && shown_grey_kept(subject);
    const colour::Space& space = *colour::find_space(subject.space());
    made.luminance_kept =
        colour::is_linear(space) && !space.to_light && shown_sum_kept(subject, colour::luminance_weights(space));
    return made;
}

std::string described(const Known& known) {
    std::string text;
    if (known.identity)
        text += said("changes nothing at these values\n");
    if (known.matrix && !known.identity) {
        const Affine& map = *known.matrix;
        const auto sums = map.row_sums();
        text += "exactly this matrix at these values:\n" + rows_of(map);
        text += said("  rows sum to {}, {}, {}; determinant {}\n", number_text(sums[0], 6), number_text(sums[1], 6),
                     number_text(sums[2], 6), number_text(map.determinant(), 6));
        if (const auto inverse = map.inverse())
            text += "  undone by:\n" + rows_of(*inverse);
        else
            text += said("  cannot be undone: a dimension is lost\n");
    }
    if (known.curves && !known.identity)
        text += said("three independent curves\n");
    if (known.identity_at_defaults)
        text += said("changes nothing at the defaults: proved\n");
    if (known.grey_kept)
        text += said("greys keep their value, for all values of the parameters: proved\n");
    else if (known.neutral)
        text += said("greys stay grey, for all values of the parameters: proved\n");
    if (known.luminance_kept)
        text += said("luminance is kept, for all values of the parameters: proved\n");
    return text;
}

std::string in_short(const Known& known) {
    return known.identity              ? std::string()
        : known.matrix && known.curves ? said("three gains")
        : known.matrix                 ? said("an exact matrix")
        : known.curves                 ? said("three curves")
                                       : std::string();
}

} // namespace kasuri::insight
