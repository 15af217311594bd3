#include "engine/lower.hpp"
#include "insight/algebra.hpp"
#include "proof/measure.hpp"

#include <algorithm>

namespace kasuri::proof {
namespace {

/// The other rule, with the values and further pictures of this one where it has some of the same names; else its
/// defaults, and 0.
class Other {
public:
    explicit Other(const Task& task) : subject_(*task.other) {
        std::vector<double> values;
        const auto ours = task.subject.parameters();
        for (const lang::Parameter& theirs : task.other->parameters) {
            values.push_back(theirs.value);
            for (std::size_t i = 0; i < ours.size(); ++i)
                if (ours[i].name == theirs.name)
                    values.back() = lang::allowed_value(theirs, task.subject.values()[i]);
        }
        subject_ = subject_.at(std::move(values));
        subject_ = subject_.with_bindings(task.subject.bindings());
        sources_ = subject::source_settings(subject_)[subject_.sources().empty() ? 0 : task.variation];
        const std::string& space = task.subject.in_space(); // the other may work in another one
        program_ = subject_.program(space, space, subject::source_spaces(subject_));
    }

    std::optional<image::Picture> applied(const image::Picture& picture, const CancelToken& cancel) const {
        return engine::evaluate(*program_, picture, subject_.values(), cancel, nullptr, nullptr,
                                subject::constant_planes(sources_));
    }

private:
    subject::Subject subject_;
    std::vector<float> sources_;
    engine::ProgramPtr program_;
};

double apart(const std::array<float, 4>& a, const std::array<float, 4>& b) {
    double most = 0;
    for (std::size_t c = 0; c < 4; ++c) {
        const double x = static_cast<double>(a[c]), y = static_cast<double>(b[c]);
        if (std::isnan(x) && std::isnan(y)) // both have no answer
            continue;
        const double by = x == y ? 0 : std::fabs(x - y) / std::max({1.0, std::fabs(x), std::fabs(y)});
        if (std::isnan(by))
            return by;
        most = std::max(most, by);
    }
    return most;
}

std::optional<Measurement> measure_equal(const Task& task) {
    const image::Picture picture = targets::lattice(telling_levels);
    const auto other = Other(task).applied(picture, task.cancel);
    Measurement result;
    std::size_t at = 0;
    const bool whole = other && measure_on(task, picture, "lattice", result, [&](const auto&, const auto& after) {
                           return apart(after, other->at(at++));
                       });
    return whole ? std::optional(result) : std::nullopt;
}

std::optional<Measurement> measure_undone(const Task& task) {
    const std::vector<double> levels = middles(16);
    const image::Picture picture = targets::lattice(levels);
    const auto changed = Other(task).applied(picture, task.cancel);
    const auto back = changed ? task.applied(*changed) : std::nullopt;
    if (!back)
        return {};
    Measurement result;
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        double figure = apart(picture.at(i), back->at(i));
        if (std::isnan(figure))
            figure = std::numeric_limits<double>::infinity();
        if (i == 0 || figure > result.figure) {
            result.figure = figure;
            result.worst = {"lattice", static_cast<int>(i), static_cast<int>(picture.pixels()), picture.at(i),
                            back->at(i)};
        }
    }
    result.samples = picture.pixels();
    return result;
}

} // namespace

extern const Function equals, undoes;

const Function equals = {
    "equals",
    "the same as the other",
    "On a lattice of 4913 colours from -1 to 16: the largest difference of a channel to what the other filter makes, "
    "relative to values above 1. Parameters of one name have one value.",
    1e-5,
    false,
    measure_equal,
    false,
    [](const Task& t) { return insight::shown_equal(t.subject, subject::Subject(*t.other)); },
    true,
};

const Function undoes = {
    "undoes",
    "undoes the other",
    "On 4096 colours between 0 and 1: how far a colour comes to lie from itself when the other filter and then this "
    "one "
    "have worked on it. Parameters of one name have one value.",
    1e-4,
    false,
    measure_undone,
    false,
    nullptr,
    true,
};

} // namespace kasuri::proof
