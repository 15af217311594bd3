// Two colours that a rule makes one.
#include "insight/derivative.hpp"
#include "inverse/invert.hpp"
#include "proof/measure.hpp"
#include "subject/further.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>

namespace kasuri::inverse {
namespace {

using Colour = std::array<double, 3>;
constexpr double same = 1e-5, plainly = 0.02;

double apart(const Colour& a, const Colour& b) {
    double most = 0;
    for (std::size_t c = 0; c < 3; ++c)
        most = std::max(most, std::fabs(a[c] - b[c]));
    return std::isnan(most) ? std::numeric_limits<double>::infinity() : most;
}

class Made {
public:
    explicit Made(const subject::Subject& of)
        : subject_(of), program_(of.program({}, {}, subject::source_spaces(of))),
          sources_(subject::source_settings(of).front()) {}

    std::vector<Colour> of(std::span<const Colour> colours) const {
        const auto picture = engine::evaluate(*program_, proof::picture_of(colours), subject_.values(), {}, nullptr,
                                              nullptr, subject::constant_planes(sources_));
        std::vector<Colour> all;
        for (std::size_t i = 0; picture && i < colours.size(); ++i) {
            const auto pixel = picture->at(i);
            all.push_back(
                {static_cast<double>(pixel[0]), static_cast<double>(pixel[1]), static_cast<double>(pixel[2])});
        }
        return all;
    }

private:
    const subject::Subject& subject_;
    engine::ProgramPtr program_;
    std::vector<float> sources_;
};

} // namespace

std::vector<Colour> lattice(int steps) {
    std::vector<Colour> all;
    for (int r = 0; r < steps; ++r)
        for (int g = 0; g < steps; ++g)
            for (int b = 0; b < steps; ++b)
                all.push_back({(r + 0.5) / steps, (g + 0.5) / steps, (b + 0.5) / steps});
    return all;
}

std::vector<Colour> results(const subject::Subject& of, std::span<const Colour> colours) {
    return Made(of).of(colours);
}

std::optional<Meeting> meeting(const subject::Subject& rule, const subject::Subject* back) {
    const Made forward(rule);
    std::vector<Colour> all = lattice(12);
    const std::vector<Colour> made = forward.of(all);
    if (made.empty())
        return {};
    std::optional<Meeting> best;
    double widest = plainly;
    const auto consider = [&](const Colour& a, const Colour& b, const Colour& from_a, const Colour& from_b) {
        const bool inside = std::all_of(b.begin(), b.end(), [](double x) { return x >= -1e-3 && x <= 1.001; });
        if (inside && apart(from_a, from_b) < same && apart(a, b) > widest) {
            widest = apart(a, b);
            best = Meeting{a, b, from_a};
        }
    };
    if (back) { // what comes back as another colour meets it
        const std::vector<Colour> returned = Made(*back).of(made);
        const std::vector<Colour> again = forward.of(returned);
        for (std::size_t i = 0; i < all.size() && i < again.size(); ++i)
            consider(all[i], returned[i], made[i], again[i]);
        if (best)
            return best;
    }
    // Along a direction in which nothing changes; then back onto the colours that come out alike, by Gauss and Newton.
    const engine::ProgramPtr slopes = insight::derivative(rule, subject::source_spaces(rule));
    const std::vector<float> sources = subject::source_settings(rule).front();
    const auto jacobians_at = [&](std::span<const Colour> at) {
        std::vector<std::array<float, 3>> narrow;
        for (const Colour& c : at)
            narrow.push_back({static_cast<float>(c[0]), static_cast<float>(c[1]), static_cast<float>(c[2])});
        return insight::jacobians(*slopes, rule.values(), narrow, subject::constant_planes(sources));
    };
    const auto matrix = [](const insight::Jacobian& j) {
        Eigen::Matrix3d m;
        for (int r = 0; r < 3; ++r)
            for (int c = 0; c < 3; ++c) {
                const double x = j[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)];
                m(r, c) = std::isfinite(x) ? x : 0;
            }
        return m;
    };
    std::vector<Colour> moved;
    std::vector<std::size_t> from;
    const auto jacobians = jacobians_at(all);
    for (std::size_t i = 0; i < all.size() && i < jacobians.size(); ++i) {
        const Eigen::Matrix3d j = matrix(jacobians[i]);
        const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> own(j.transpose() * j); // squares, from small to large
        if (own.eigenvalues()(0) > 1e-6 * std::max(1.0, own.eigenvalues()(2)))
            continue;
        const Eigen::Vector3d direction = own.eigenvectors().col(0);
        for (const double step : {0.25, 0.05}) {
            Colour to = all[i];
            for (std::size_t c = 0; c < 3; ++c)
                to[c] = std::clamp(to[c] + step * direction[static_cast<int>(c)], 0.0, 1.0);
            moved.push_back(to);
            from.push_back(i);
        }
    }
    // And what lies on both sides of a fold: colours that are far apart and come out near each other.
    std::map<std::array<int, 3>, std::size_t> boxes;
    for (std::size_t i = 0; i < made.size(); ++i) {
        std::array<int, 3> box{};
        bool finite = true;
        for (std::size_t c = 0; c < 3; ++c) {
            finite = finite && std::isfinite(made[i][c]) && std::fabs(made[i][c]) < 1e6;
            box[c] = finite ? static_cast<int>(std::floor(made[i][c] * 12)) : 0;
        }
        if (!finite)
            continue;
        const auto [found, fresh] = boxes.emplace(box, i);
        if (!fresh && apart(all[found->second], all[i]) > 0.2) {
            moved.push_back(all[i]);
            from.push_back(found->second);
        }
    }
    for (int round = 0; round < 8 && !moved.empty(); ++round) {
        const std::vector<Colour> now = forward.of(moved);
        const auto slopes_now = jacobians_at(moved);
        for (std::size_t i = 0; i < moved.size() && i < now.size(); ++i) {
            consider(all[from[i]], moved[i], made[from[i]], now[i]);
            const Eigen::Matrix3d j = matrix(slopes_now[i]);
            const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> own(j.transpose() * j);
            Eigen::Vector3d miss;
            for (std::size_t c = 0; c < 3; ++c)
                miss[static_cast<int>(c)] = made[from[i]][c] - now[i][c];
            if (!miss.allFinite())
                continue;
            Eigen::Vector3d by = Eigen::Vector3d::Zero();
            for (int k = 0; k < 3; ++k)
                if (own.eigenvalues()(k) > 1e-6) {
                    const Eigen::Vector3d along = own.eigenvectors().col(k);
                    by += along * (along.dot(j.transpose() * miss) / own.eigenvalues()(k));
                }
            for (std::size_t c = 0; c < 3; ++c)
                moved[i][c] = std::clamp(moved[i][c] + by[static_cast<int>(c)], 0.0, 1.0);
        }
    }
    return best;
}

} // namespace kasuri::inverse
