#include "pairing/lut_back.hpp"

#include "base/text.hpp"
#include "fit/model.hpp"
#include "look/make.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>
#include <fmt/format.h>
#include <random>

namespace kasuri::pairing {
namespace {

constexpr int lattice = 33;
constexpr double reached = 2e-6, step = 1e-3, longest_step = 0.2;
constexpr int most_steps = 20;
constexpr std::size_t measured_on = 20000;

using fit::Planes;

/// Newton's method at every point of the table at once; what does not get there stays as it was.
struct Newton {
    const engine::Program& program;
    std::span<const double> values;
    const CancelToken& cancel;

    bool made_of(const Planes& from, Planes& made) const { return fit::run(program, values, from, made, cancel); }

    /// How far each colour is from what it should become.
    static std::vector<double> far(const Planes& made, const Planes& wanted) {
        std::vector<double> all(made[0].size());
        for (std::size_t i = 0; i < all.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) {
                const double d = std::fabs(static_cast<double>(made[c][i]) - static_cast<double>(wanted[c][i]));
                all[i] = std::isfinite(d) ? std::max(all[i], d) : 1e30;
            }
        return all;
    }

    bool improve(Planes& at, const Planes& wanted, std::vector<double>& distance) const {
        Planes made;
        if (!made_of(at, made))
            return false;
        distance = far(made, wanted);
        std::vector<double> share(distance.size(), 1);
        for (int round = 0; round < most_steps; ++round) {
            std::array<Planes, 3> beside;
            for (std::size_t v = 0; v < 3; ++v) {
                Planes moved = at;
                for (float& x : moved[v])
                    x += static_cast<float>(step);
                if (!made_of(moved, beside[v]))
                    return false;
            }
            Planes next = at;
            for (std::size_t i = 0; i < distance.size(); ++i) {
                if (distance[i] <= reached)
                    continue;
                Eigen::Matrix3d slopes;
                Eigen::Vector3d left;
                for (int c = 0; c < 3; ++c) {
                    const auto channel = static_cast<std::size_t>(c);
                    left[c] = static_cast<double>(wanted[channel][i]) - static_cast<double>(made[channel][i]);
                    for (int v = 0; v < 3; ++v)
                        slopes(c, v) = (static_cast<double>(beside[static_cast<std::size_t>(v)][channel][i]) -
                                        static_cast<double>(made[channel][i])) /
                            step;
                }
                Eigen::Vector3d by = slopes.fullPivLu().solve(left) * share[i];
                if (!by.allFinite())
                    continue;
                if (by.norm() > longest_step)
                    by *= longest_step / by.norm();
                for (std::size_t c = 0; c < 3; ++c)
                    next[c][i] += static_cast<float>(by[static_cast<int>(c)]);
            }
            Planes tried;
            if (!made_of(next, tried))
                return false;
            const std::vector<double> then = far(tried, wanted);
            bool any = false;
            for (std::size_t i = 0; i < then.size(); ++i) {
                if (!(then[i] < distance[i])) {
                    share[i] /= 2;
                    continue;
                }
                any = true;
                share[i] = std::min(1.0, 2 * share[i]);
                distance[i] = then[i];
                for (std::size_t c = 0; c < 3; ++c) {
                    at[c][i] = next[c][i];
                    made[c][i] = tried[c][i];
                }
            }
            if (!any && round > 4)
                break;
        }
        return true;
    }
};

/// The colours at the table's points.
Planes points_of(const fit::Rest& table) {
    const auto n = static_cast<std::size_t>(table.points);
    const std::size_t strides[] = {1, n, n * n};
    Planes made;
    for (std::size_t i = 0; i < n * n * n; ++i)
        for (std::size_t c = 0; c < 3; ++c)
            made[c].push_back(static_cast<float>(table.low +
                                                 (table.high - table.low) * static_cast<double>(i / strides[c] % n) /
                                                     static_cast<double>(n - 1)));
    return made;
}

/// Points where something ends, of a lattice of colours from a little outside of 0 to 1: a solution far outside says
/// nothing of the colours that anybody has.
bool is_near(const Planes& at, std::size_t i) {
    constexpr float outside = 0.5F;
    return std::all_of(at.begin(), at.end(),
                       [i](const auto& plane) { return plane[i] >= -outside && plane[i] <= 1 + outside; });
}

} // namespace

Result<LutBack> lut_back(const subject::Subject& subject, int points, const CancelToken& cancel) {
    const Error called_off{"called off", "", ""};
    auto there = fit::pairs_of(subject, lattice, 0, 1, cancel);
    if (!there)
        return there.error();
    fit::Pairs back;
    back.space = there.value().space;
    back.from = there.value().to;
    back.to = there.value().from;
    auto table = fit::rest_of(back.from, back, points, cancel);
    if (!table)
        return table.error();
    LutBack made;
    made.table = std::move(table.value());
    made.space = back.space;
    const engine::ProgramPtr program = subject.program(back.space, back.space, {}, true, &cancel);
    if (!program)
        return called_off;
    const Newton newton{*program, subject.values(), cancel};
    const Planes wanted = points_of(made.table);
    Planes at;
    for (std::size_t i = 0; i < made.table.table.size(); ++i)
        at[i % 3].push_back(made.table.table[i]);
    std::vector<double> distance;
    if (!newton.improve(at, wanted, distance))
        return called_off;
    for (std::size_t i = 0; i < distance.size(); ++i) {
        if (distance[i] > reached || !is_near(at, i))
            continue;
        ++made.solved;
        for (std::size_t c = 0; c < 3; ++c)
            made.table.table[3 * i + c] = at[c][i];
    }
    // There and back, of colours between the points.
    fit::Pairs measured;
    measured.space = back.space;
    std::mt19937 random(1);
    const auto number = [&] { return static_cast<float>(static_cast<double>(random()) / 4294967296.0); };
    for (std::size_t i = 0; i < measured_on; ++i) {
        const std::array<float, 3> colour{number(), number(), number()};
        measured.add(colour, colour);
    }
    Planes out;
    if (!newton.made_of(measured.from, out))
        return called_off;
    made.errors = fit::Truth(measured).errors_of(fit::applied(made.table, out));
    return made;
}

std::string cube_text(const fit::Rest& table, const std::vector<std::string>& words) {
    std::string made;
    for (const std::string& line : words)
        made += "# " + line + "\n";
    made += fmt::format("LUT_3D_SIZE {}\nDOMAIN_MIN {:.9g} {:.9g} {:.9g}\nDOMAIN_MAX {:.9g} {:.9g} {:.9g}\n",
                        table.points, table.low, table.low, table.low, table.high, table.high, table.high);
    for (std::size_t i = 0; i < table.table.size(); i += 3)
        made += fmt::format("{:.9g} {:.9g} {:.9g}\n", table.table[i], table.table[i + 1], table.table[i + 2]);
    return made;
}

std::vector<std::string> words_of(const LutBack& back, const std::string& title) {
    std::string name = title;
    std::replace_if(
        name.begin(), name.end(), [](unsigned char c) { return c < ' ' || c == 127; }, ' ');
    const auto n = static_cast<std::size_t>(back.table.points), all = n * n * n;
    const std::string solved = back.solved == all
        ? fmt::format("all {} points are solved", all)
        : fmt::format("{} of {} points are solved; the others lie where nothing ends, or between several colours that "
                      "become one",
                      back.solved, all);
    return {fmt::format("Kasuri: takes {} off again; numbers in and out are {}", name, back.space),
            fmt::format("colours from 0 to 1, there and back on {}: a channel is off by {} at most, {} by root mean "
                        "square; CIEDE2000 {} on average, {} at most (read tetrahedrally)",
                        back.errors.pairs, number_text(back.errors.largest, 3), number_text(back.errors.rms, 3),
                        number_text(back.errors.delta_e_mean, 3), number_text(back.errors.delta_e_largest, 3)),
            solved};
}

inverse::LookOptions with_tables(const std::filesystem::path& folder, int points, bool for_rules) {
    inverse::LookOptions options;
    options.tables_for_rules = for_rules;
    options.table = [=](const document::LookStep& step, const CancelToken& cancel) -> Result<inverse::TableBack> {
        document::Look alone;
        alone.steps.push_back(step);
        const auto forward = look::make(alone, folder);
        if (!forward)
            return forward.error();
        const auto back = lut_back(forward.value().subject, points, cancel);
        if (!back)
            return Error{back.error().what, "", ""};
        inverse::TableBack made;
        made.words = words_of(back.value(), step.label.empty() ? "the step" : step.label);
        made.step.lut = ".cube";
        made.step.lut_text = document::SharedText(cube_text(back.value().table, made.words));
        made.step.space = back.value().space;
        return made;
    };
    return options;
}

} // namespace kasuri::pairing
