#include "fit/fit.hpp"

#include "base/parallel.hpp"
#include "colour/space.hpp"
#include "fit/errors.hpp"
#include "fit/least_squares.hpp"
#include "insight/algebra.hpp"

#include <algorithm>
#include <atomic>
#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <mutex>
#include <random>
#include <thread>

namespace kasuri::fit {
namespace {

constexpr int most_decimals = 8;
constexpr double firm_pull = 1e-3; ///< towards what is usual, where a last statement takes back some of what numbers do

struct Split {
    Pairs fitted, measured;
    Planes wanted; ///< what came out of those that measure, as differences are counted
};

/// Some for the fit, spread over all of them, the rest for measuring; where there are few, all of them for both.
Split split(const Pairs& pairs, std::size_t wanted) {
    const std::size_t count = pairs.size();
    if (count < 200)
        return {pairs, pairs, {}};
    wanted = std::min(wanted, count * 3 / 4);
    std::vector<std::size_t> order(count);
    for (std::size_t i = 0; i < count; ++i)
        order[i] = i;
    std::mt19937 random(1);
    for (std::size_t i = 0; i + 1 < count; ++i) // std::shuffle is not the same everywhere
        std::swap(order[i], order[i + random() % (count - i)]);
    Split made;
    for (Pairs* part : {&made.fitted, &made.measured}) {
        part->title = pairs.title;
        part->space = pairs.space;
        part->noisy = pairs.noisy;
    }
    for (std::size_t k = 0; k < count; ++k) {
        const std::size_t i = order[k];
        (k < wanted ? made.fitted : made.measured)
            .add({pairs.from[0][i], pairs.from[1][i], pairs.from[2][i]},
                 {pairs.to[0][i], pairs.to[1][i], pairs.to[2][i]}, pairs.weights.empty() ? 1 : pairs.weights[i]);
    }
    return made;
}

/// The same primaries as light, or if the numbers are light, as the first encoded space of those primaries has them.
std::string sibling(const std::string& space) {
    const colour::Space* known = colour::find_space(space);
    if (!known)
        return {};
    for (const colour::Space& each : colour::spaces())
        if (colour::same_primaries(*known, each) && colour::is_linear(each) != colour::is_linear(*known))
            return std::string(each.name);
    return {};
}

std::vector<std::string> spaces_for(const Family& family, const Pairs& pairs, const Options& options) {
    if (!options.spaces.empty())
        return options.spaces;
    std::vector<std::string> made{pairs.space};
    if (family.spaces == Family::Spaces::both)
        if (std::string other = sibling(pairs.space); !other.empty())
            made.push_back(std::move(other));
    return made;
}

/// Whether what came out was kept in 0 .. 1: it stops there though what went in did not.
bool is_clamped(const Pairs& pairs) {
    std::size_t stopped = 0;
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < pairs.size(); ++i) {
            const float x = pairs.to[c][i];
            if (x < 0 || x > 1)
                return false;
            if ((x == 0 || x == 1) && x != pairs.from[0][i] && x != pairs.from[1][i] && x != pairs.from[2][i])
                ++stopped;
        }
    return 200 * stopped > 3 * pairs.size();
}

Range range_of(const Pairs& pairs, const std::string& working) {
    const colour::Space *a = colour::find_space(pairs.space), *b = colour::find_space(working);
    Range range;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        colour::Triple x{static_cast<double>(pairs.from[0][i]), static_cast<double>(pairs.from[1][i]),
                         static_cast<double>(pairs.from[2][i])};
        if (a && b && a != b)
            x = colour::converted(x, *a, *b);
        for (const double each : x)
            if (std::isfinite(each)) {
                range.low = std::min(range.low, each);
                range.high = std::max(range.high, each);
            }
    }
    return range;
}

/// What is left: of all, by weight, and at most.
struct Left {
    double rms = 0, largest = 0;
};
Left left_of(const Model& model, const Pairs& pairs, std::span<const double> values, const CancelToken& cancel,
             double bear) {
    Planes made;
    if (!model.predict(values, pairs.from, made, cancel))
        return {};
    Left left;
    double sum = 0, weights = 0;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        const double weight = pairs.weights.empty() ? 1 : static_cast<double>(pairs.weights[i]);
        weights += 3 * weight;
        for (std::size_t c = 0; c < 3; ++c) {
            const double d = static_cast<double>(made[c][i]) - static_cast<double>(pairs.to[c][i]);
            // What is plainly wrong must not decide how numbers are rounded.
            const double counted = bear > 0 ? std::min(d * d, bear * bear) : d * d;
            sum += weight * counted;
            left.largest = std::max(left.largest, std::sqrt(counted));
        }
    }
    left.rms = std::sqrt(sum / weights);
    return left;
}

/// Fewer decimals, for all and then for each, as long as what is left does not grow measurably, nor anywhere by much:
/// in encoded numbers, dark colours of light take small differences for large ones.
std::vector<double> rounded(const Model& model, const Pairs& pairs, const Solution& solution, double close,
                            const CancelToken& cancel) {
    const double bear = pairs.noisy ? 4 * std::max(solution.scale, close) : 0;
    const Left now = left_of(model, pairs, solution.values, cancel, bear);
    const double allowed = std::hypot(now.rms, std::max(0.2 * close, 0.03 * now.rms));
    const double allowed_anywhere = std::max(1.1 * now.largest, 10 * close);
    const auto cut = [](double x, int decimals) {
        const double by = std::pow(10, decimals);
        return std::round(x * by) / by;
    };
    const auto fits = [&](const std::vector<double>& values) {
        const Left left = left_of(model, pairs, values, cancel, bear);
        return left.rms <= allowed && left.largest <= allowed_anywhere;
    };
    std::vector<double> values = solution.values;
    int decimals = 0;
    for (; decimals < most_decimals && !cancel.cancelled(); ++decimals) {
        for (std::size_t i = 0; i < values.size(); ++i)
            values[i] = cut(solution.values[i], decimals);
        if (fits(values))
            break;
    }
    if (decimals == most_decimals)
        for (std::size_t i = 0; i < values.size(); ++i)
            values[i] = cut(solution.values[i], most_decimals);
    for (std::size_t i = 0; i < values.size() && values.size() <= 20 && !cancel.cancelled(); ++i)
        for (int fewer = 0; fewer < decimals; ++fewer) {
            std::vector<double> tried = values;
            tried[i] = cut(solution.values[i], fewer);
            if (fits(tried)) {
                values = std::move(tried);
                break;
            }
        }
    return values;
}

/// The best of all starts: the first that leaves nothing ends the search.
std::optional<Solution> solved(const Model& model, const Form& form, const Pairs& pairs, double close, double pull,
                               const CancelToken& cancel) {
    std::vector<std::vector<double>> starts(1);
    for (const Value& value : form.values)
        starts.front().push_back(value.start);
    starts.insert(starts.end(), form.more_starts.begin(), form.more_starts.end());
    std::optional<Solution> best;
    for (std::vector<double>& start : starts) {
        auto found = least_squares(model, pairs, form.values, std::move(start), cancel, pull);
        const auto size = [&](const Solution& s) { return pairs.noisy ? s.scale : s.rms; };
        if (found && (!best || size(*found) < size(*best)))
            best = std::move(found);
        if (cancel.cancelled() || (best && size(*best) <= close))
            break;
    }
    return best;
}

/// How large differences are: of all, or where pairs are noisy of those that are not plainly wrong.
double usual_rms(const Planes& wanted, const Planes& made, bool noisy) {
    std::vector<double> far;
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 0; i < wanted[c].size(); ++i) {
            const double d = std::fabs(static_cast<double>(made[c][i]) - static_cast<double>(wanted[c][i]));
            far.push_back(std::isfinite(d) ? d : 1e6);
        }
    // A mean of squares without the fifth that is farthest off; of normal noise that is 0.437 of its square (worked out
    // from the normal distribution).
    const auto most =
        noisy ? far.begin() + static_cast<std::ptrdiff_t>(0.8 * static_cast<double>(far.size())) : far.end();
    if (noisy)
        std::nth_element(far.begin(), most, far.end());
    double sum = 0;
    for (auto at = far.begin(); at != most; ++at)
        sum += *at * *at;
    return std::sqrt(sum / std::max<double>(1, static_cast<double>(most - far.begin())) / (noisy ? 0.437 : 1));
}

/// A family in a space.
struct Task {
    const Family* family;
    std::string working;
};
std::vector<Task> tasks_for(const Pairs& pairs, const Options& options) {
    std::vector<Task> tasks;
    for (const Family& family : families())
        if (options.families.empty() ||
            std::find(options.families.begin(), options.families.end(), family.name) != options.families.end())
            for (std::string& working : spaces_for(family, pairs, options))
                tasks.push_back({&family, std::move(working)});
    return tasks;
}

/// What all families are tried on.
struct Job {
    const Split& parts;
    const Truth& truth;
    double close;
    bool clamped;
    const CancelToken& cancel;
    const Options& options;
};

/// The statements behind a family's own.
std::string held(const Options& options, const std::string& working, const std::string& space) {
    std::string made;
    if (options.keep_sums) // as much on each channel, so that nothing is divided by what may be 0
        made += "out.rgb += vec3((r + g + b - out.r - out.g - out.b) / 3)\n";
    if (options.hold_hue) {
        const colour::Space *from = colour::find_space(space), *to = colour::find_space(working);
        const colour::Triple colour =
            from && to ? colour::converted(*options.hold_hue, *from, *to) : colour::Triple(*options.hold_hue);
        made += fmt::format("hold hue of ({:.6g}, {:.6g}, {:.6g}) in oklch\n", colour[0], colour[1], colour[2]);
    }
    if (options.keep_luminance)
        made += "keep luminance\n";
    return made;
}

/// Nothing where there are too few pairs for it, no numbers come out, or greys do not stay and should. Errors: called
/// off; the text is no rule, which is a fault of the family.
Result<std::optional<Candidate>> candidate_of(const Job& job, const Family& family, const std::string& working) {
    const Pairs &fitted = job.parts.fitted, &measured = job.parts.measured;
    const Error called_off{"called off", "", ""};
    Form form = family.form(family, range_of(fitted, working));
    if (form.values.size() > fitted.size() * 3 / 2)
        return std::optional<Candidate>(); // it would say the noise by heart
    const std::string behind = form.values.empty() ? std::string() : held(job.options, working, fitted.space);
    form.text += behind;
    if (job.clamped && !form.values.empty())
        form.text += "out.rgb = clamp(out.rgb, 0, 1)\n";
    const Result<Model> model = Model::make(open_text(form), working, fitted.space, job.options.by_eye, job.cancel);
    if (!model)
        return model.error();
    const auto solution =
        solved(model.value(), form, fitted, job.close, behind.empty() ? exact : firm_pull, job.cancel);
    if (job.cancel.cancelled())
        return called_off;
    if (!solution)
        return std::optional<Candidate>();
    Candidate candidate;
    candidate.family = &family;
    candidate.working = working;
    candidate.clamped = job.clamped;
    candidate.values = rounded(model.value(), fitted, *solution, job.close, job.cancel);
    candidate.body = closed_text(form, candidate.values);
    // What is measured is the text that is given out, not what the solver holds.
    const auto rule = rule_of(fmt::format("working {}\n{}", working, candidate.body));
    if (!rule)
        return rule.error();
    const subject::Subject subject(rule.value());
    if (job.options.keep_greys && !insight::shown_grey_kept(subject.fixed()))
        return std::optional<Candidate>();
    const engine::ProgramPtr program = subject.program(fitted.space, fitted.space, {}, true, &job.cancel);
    Planes made;
    if (!program || !run(*program, subject.values(), measured.from, made, job.cancel))
        return called_off;
    candidate.errors = job.truth.errors_of(made);
    candidate.bits = description_length(
        candidate.values.size(), 3 * fitted.size(),
        usual_rms(job.parts.wanted, job.options.by_eye ? by_eye(made, measured.space) : made, measured.noisy),
        job.close);
    return std::optional(std::move(candidate));
}

} // namespace

double description_length(std::size_t values, std::size_t numbers, double rms, double close) {
    const auto n = static_cast<double>(std::max<std::size_t>(2, numbers));
    const double left = std::isfinite(rms) ? std::max(0.0, std::log2(rms / close)) : 64;
    return static_cast<double>(values) * std::log2(n) / 2 + n * left;
}

Result<Found> fit(const Pairs& pairs, const Options& options, const CancelToken& cancel,
                  const std::function<void(const Candidate&)>& came) {
    if (pairs.size() == 0)
        return Error{"there is nothing to fit", pairs.title, "Give colours before and after."};
    Found found;
    Split parts = split(pairs, options.fitted);
    found.fitted = parts.fitted.size();
    found.unexplained = repeats(pairs).unexplained;
    // Of noisy pairs only what is left after the best of all tells how much noise there is: no floor but rounding.
    found.close = options.close > 0 ? options.close : std::max(exact, pairs.close);
    const bool clamped = !pairs.noisy && is_clamped(pairs);
    const Truth truth(parts.measured);
    const std::vector<Task> tasks = tasks_for(pairs, options);
    parts.wanted = parts.measured.to;
    if (options.by_eye) {
        parts.fitted.to = by_eye(parts.fitted.to, pairs.space);
        parts.wanted = by_eye(parts.wanted, pairs.space);
        if (pairs.noise > 0)
            parts.fitted.weights.clear(); // of pictures: they made light nearer to what the eye sees, as this does
    }
    const Job job{parts, truth, found.close, clamped, cancel, options};
    std::vector<std::optional<Candidate>> made(tasks.size());
    std::optional<Error> wrong;
    std::mutex telling;
    std::atomic<std::size_t> next{0};
    // As many hands as there are cores, each taking the next family: some take a hundred times as long as others.
    const std::size_t hands = std::max(1u, std::thread::hardware_concurrency());
    parallel_ranges(hands, 1, cancel, [&](std::size_t, std::size_t) {
        for (std::size_t i = next++; i < tasks.size() && !cancel.cancelled(); i = next++) {
            Result<std::optional<Candidate>> tried = candidate_of(job, *tasks[i].family, tasks[i].working);
            const std::lock_guard lock(telling);
            if (!tried)
                wrong = tried.error();
            else if (tried.value()) {
                made[i] = std::move(*tried.value());
                if (came)
                    came(*made[i]);
            }
        }
    });
    if (cancel.cancelled())
        return Error{"called off", "", ""};
    if (wrong)
        return *wrong;
    for (auto& candidate : made)
        if (candidate)
            found.candidates.push_back(std::move(*candidate));
    if (found.candidates.empty())
        return Error{"no family could be fitted", pairs.title, "Give more colours."};
    std::stable_sort(found.candidates.begin(), found.candidates.end(),
                     [](const Candidate& a, const Candidate& b) { return a.values.size() < b.values.size(); });
    const auto best = std::min_element(found.candidates.begin(), found.candidates.end(),
                                       [](const Candidate& a, const Candidate& b) { return a.bits < b.bits; });
    found.best = static_cast<std::size_t>(best - found.candidates.begin());
    return found;
}

std::size_t tries(const Pairs& pairs, const Options& options) { return tasks_for(pairs, options).size(); }

std::vector<std::size_t> simple_to_exact(const Found& found) {
    // A twentieth closer is worth a line; what is below the eye's and the file's reach is not.
    constexpr double closer = 0.95, invisible = 1e-3;
    std::vector<std::size_t> made;
    double so_far = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < found.candidates.size();) {
        std::size_t best = i, end = i; // of those with as many numbers
        for (;
             end < found.candidates.size() && found.candidates[end].values.size() == found.candidates[i].values.size();
             ++end)
            if (found.candidates[end].errors.delta_e_mean < found.candidates[best].errors.delta_e_mean)
                best = end;
        const double mean = found.candidates[best].errors.delta_e_mean;
        const bool worth = mean < closer * so_far && so_far > invisible;
        if (worth)
            so_far = mean;
        if (found.best >= i && found.best < end && found.best != best)
            made.push_back(found.best);
        if (worth || best == found.best)
            made.push_back(best);
        i = end;
    }
    return made;
}

} // namespace kasuri::fit
