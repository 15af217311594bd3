#include "inverse/invert.hpp"

#include "insight/affine.hpp"
#include "insight/derivative.hpp"
#include "lang/format.hpp"
#include "lang/parser.hpp"
#include "proof/proof.hpp"
#include "subject/further.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::inverse {
namespace {

std::string number(double x) { return terms::number_text(std::stod(fmt::format("{:.9g}", x == 0 ? 0 : x))); }

std::string quotable(std::string text) {
    std::replace_if(
        text.begin(), text.end(), [](unsigned char c) { return c < ' ' || c == '"' || c == '\\' || c == 127; }, '\'');
    return text;
}

/// Three digits, towards what is known to work.
double towards(double x, double inside) {
    const double unit = std::pow(10, std::floor(std::log10(std::max(std::fabs(x), 1e-3))) - 2);
    return (x > inside ? std::floor(x / unit) : std::ceil(x / unit)) * unit;
}

/// What is tried if the plain way fails.
struct Way {
    bool by_scale = false;  ///< as in `solve`
    bool at_values = false; ///< the values as numbers, in the place of the parameters
};

class Inverting {
public:
    Inverting(const lang::Rule& rule, std::string_view text, std::span<const double> values, const Options& options,
              const Way& way, const CancelToken& cancel)
        : rule_(rule), text_(text), values_(values.begin(), values.end()), options_(options), way_(way),
          cancel_(cancel) {
        lang::Rule fixed = rule; // at these values, for a way back that has no parameters
        for (std::size_t i = 0; i < fixed.parameters.size() && i < values_.size(); ++i)
            fixed.parameters[i].value = values_[i];
        other_ = std::make_shared<const lang::Rule>(std::move(fixed));
        for (const lang::Parameter& p : rule.parameters) {
            low_.push_back(p.low);
            high_.push_back(p.high);
        }
    }

    Result<Back> run() {
        for (const lang::SourceInput& source : rule_.sources)
            if (!lang::is_external(source))
                return Error{said("reads what an earlier step of a look made, as \"{}\"; by itself it has no way back",
                                  source.name),
                             "", "Write the way back from the look that it is a step of."};
        const colour::Space& space = *colour::find_space(engine::working_space(rule_));
        const terms::Read read = terms::read(rule_, terms_, [&](const lang::Function& f, bool depends) {
            return !depends || keeps_call(f, colour::is_linear(space));
        });
        if (terms_.size() > terms::most_terms)
            return Error{said("has {} parts; more than {} would take minutes", terms_.size(), terms::most_terms), "",
                         ""};
        std::array<TermId, 4> out = read.out;
        if (way_.at_values)
            for (TermId& channel : out)
                channel = with_values(channel);
        back_.at_values = way_.at_values;
        const Solution solution = solve(terms_, out, space, way_.by_scale);
        scaled_ = solution.scaled;
        if (cancel_.cancelled())
            return called_off();
        back_.losses = solution.losses;
        lossy_ = lossy_parts(terms_, read.out);
        back_.ranges = solution.ranges;
        if (!solution.found) {
            back_.obstacles = solution.obstacles;
            back_.meeting = meeting(subject::Subject(rule_, values_), nullptr);
            return back_;
        }
        body_ = terms::statements(terms_, solution.rgb, solution.alpha, taken());
        functions_ = needed_functions(solution.functions);
        if (const Status measured = measure(); !measured)
            return measured.error();
        return back_;
    }

    bool scaled() const { return scaled_; }
    /// How much of what its parameters allow it holds for.
    double reaches() const {
        if (!back_.found)
            return 0;
        double all = back_.everywhere ? 2 : 1;
        for (const Narrowed& n : back_.narrowed)
            for (const lang::Parameter& p : rule_.parameters)
                if (p.name == n.name)
                    all -= (1 - (n.high - n.low) / (p.high - p.low)) / static_cast<double>(rule_.parameters.size());
        return all;
    }

private:
    static Error called_off() { return Error{"was called off", "", ""}; }

    /// With the values in the place of the parameters.
    TermId with_values(TermId of) {
        for (std::size_t i = 0; i < rule_.parameters.size(); ++i) {
            const lang::Parameter& p = rule_.parameters[i];
            if (p.kind == lang::ParameterKind::choice)
                for (std::size_t k = 0; k < p.options.size(); ++k)
                    of = terms_.replaced(of, terms_.name(p.name + "." + p.options[k], lang::bool_type),
                                         terms_.truth(static_cast<double>(k) == values_[i]));
            else if (p.kind == lang::ParameterKind::toggle)
                of = terms_.replaced(of, terms_.name(p.name, lang::bool_type), terms_.truth(values_[i] != 0));
            else
                of = terms_.replaced(of, terms_.name(p.name, lang::float_type), terms_.number(values_[i]));
        }
        return of;
    }

    std::vector<std::string> taken() const {
        std::vector<std::string> names{"out",   "filter", "note", "working", "param", "preset",  "source",
                                       "fn",    "let",    "use",  "proof",   "keep",  "hold",    "true",
                                       "false", "tags",   "in",   "on",      "of",    "strength"};
        for (std::string& name : terms::names_of(rule_))
            names.push_back(std::move(name));
        for (const lang::ModelShape& model : proof::vocabulary().models)
            names.emplace_back(model.name);
        return names;
    }

    /// Functions of the rule's own that the body still calls, and those that these call; or a `use` of their file.
    std::string needed_functions(const Functions& written) const {
        std::set<std::string> needed, files;
        const auto calls = [](std::string_view text, const std::string& name) {
            for (std::size_t at = text.find(name + "("); at != std::string_view::npos;
                 at = text.find(name + "(", at + 1))
                if (at == 0 || (!std::isalnum(static_cast<unsigned char>(text[at - 1])) && text[at - 1] != '_'))
                    return true;
            return false;
        };
        std::string solvers; // from the last, for each calls only those before it
        for (auto f = written.texts.rbegin(); f != written.texts.rend(); ++f)
            if (calls(body_ + solvers, f->first))
                solvers = f->second + solvers;
        std::string made = body_ + solvers;
        for (bool more = true; more;) {
            more = false;
            for (const lang::FunctionPtr& f : rule_.functions)
                if (!needed.contains(f->name) && calls(made, f->name)) {
                    needed.insert(f->name);
                    made += f->text;
                    more = true;
                }
        }
        std::string text;
        for (const lang::FunctionPtr& f : rule_.functions)
            if (needed.contains(f->name) && f->file.empty())
                text += f->text + "\n";
            else if (needed.contains(f->name) && files.insert(f->file).second)
                text = fmt::format("use \"{}\"\n", f->file) + text;
        return text + solvers;
    }

    std::string parameter_lines() const {
        std::string made;
        for (std::size_t i = 0; i < rule_.parameters.size(); ++i) {
            const lang::Parameter& p = rule_.parameters[i];
            const std::string about = p.description.empty() ? "" : fmt::format("  \"{}\"", quotable(p.description));
            switch (p.kind) {
            case lang::ParameterKind::number:
            case lang::ParameterKind::whole:
                made += fmt::format("param {} = {} in {} .. {}{}{}\n", p.name, number(values_[i]), number(low_[i]),
                                    number(high_[i]), p.kind == lang::ParameterKind::whole ? " whole" : "", about);
                break;
            case lang::ParameterKind::toggle:
                made += fmt::format("param {} = {}{}\n", p.name, lang::value_text(p, values_[i]), about);
                break;
            case lang::ParameterKind::choice:
                made += fmt::format("param {} = {} of {}{}\n", p.name, lang::value_text(p, values_[i]),
                                    fmt::join(p.options, ", "), about);
                break;
            case lang::ParameterKind::colour: {
                double low = low_[i], high = high_[i];
                for (std::size_t c = 0; c < 3; ++c) {
                    low = std::max(low, low_[i + c]);
                    high = std::min(high, high_[i + c]);
                }
                made += fmt::format("param {} = vec3({}, {}, {}) in {} .. {}{}\n", p.name.substr(0, p.name.find('.')),
                                    number(values_[i]), number(values_[i + 1]), number(values_[i + 2]), number(low),
                                    number(high), about);
                i += 2;
                break;
            }
            }
        }
        return made;
    }

    std::string whole_text(double limit, bool promised) const {
        const std::string title = rule_.title.empty() ? options_.file : rule_.title;
        std::string made =
            title.empty() ? "filter \"The way back\"\n" : fmt::format("filter \"{}, taken off\"\n", quotable(title));
        made +=
            fmt::format("note \"Takes off what {} has done, at {}{}\"\n\n", title.empty() ? "a rule" : quotable(title),
                        back_.at_values ? quotable(values_text()) : "the same values",
                        back_.losses.empty() ? "." : "; not all of it can come back.");
        if (!rule_.working.empty())
            made += fmt::format("working {}\n",
                                rule_.working.find(' ') == std::string::npos ? rule_.working
                                                                             : fmt::format("\"{}\"", rule_.working));
        for (const lang::SourceInput& s : rule_.sources)
            made += fmt::format("source {} : {}{}\n", s.name, lang::name(s.type),
                                s.description.empty() ? "" : fmt::format("  \"{}\"", quotable(s.description)));
        made += (back_.at_values ? "" : parameter_lines()) + "\n" + functions_;
        for (const Obstacle& loss : back_.losses)
            made += fmt::format("// {}: {} does not come back.\n", one_line(loss.part), loss.why);
        made += body_;
        if (promised)
            made += fmt::format("\nproof \"takes it off again\" : undoes \"{}\" < {}\n", options_.file, number(limit));
        return lang::formatted(made).value_or(made);
    }

    std::string values_text() const {
        std::vector<double> values = values_;
        return proof::settings_text(subject::Subject(rule_, values), values, {});
    }

    static std::string one_line(std::string text) {
        std::replace(text.begin(), text.end(), '\n', ' ');
        if (text.size() > 80)
            text = text.substr(0, 77) + "...";
        return text;
    }

    Result<lang::Rule> checked(const std::string& text) const {
        lang::CheckOptions with;
        with.open = [this](const std::string& name) -> Result<std::string> {
            if (name == file_name())
                return std::string(text_);
            return options_.open ? options_.open(name) : Result<std::string>(Error{"cannot be read", name, ""});
        };
        lang::Checked made = lang::check(text, proof::vocabulary(), with);
        if (made.ok)
            return std::move(made.rule);
        std::string why = "it cannot be read";
        for (const lang::Diagnostic& d : made.diagnostics)
            if (d.severity == lang::Severity::error) {
                why = lang::message(d) + " in:\n" + text;
                break;
            }
        return Error{said("the way back was written, but {}", why), "", "This is a fault of the program: please tell."};
    }

    const std::string& file_name() const {
        static const std::string stand_in = "the rule.kasuri";
        return options_.file.empty() ? stand_in : options_.file;
    }

    /// How far colours come to lie from themselves, by the proof that the text carries.
    std::optional<proof::Outcome> at(const lang::Rule& back, const std::vector<std::vector<double>>& settings) const {
        lang::ProofLine line;
        line.function = "undoes";
        line.limit = as_good_as_back;
        line.file = file_name();
        line.other = other_;
        return proof::check(subject::Subject(back), line, settings, cancel_);
    }
    bool works(const lang::Rule& back, const std::vector<double>& values) const {
        const auto outcome = at(back, {values});
        return outcome && outcome->passed && turns(values) == turns_here_;
    }

    /// Which of some colours the rule turns over the other way. Between two values of a parameter at which that differs
    /// there is one at which colours become one, however seldom a sample would hit it.
    std::vector<bool> turns(const std::vector<double>& values) const {
        std::vector<std::array<float, 3>> colours;
        for (const float r : {0.11F, 0.37F, 0.63F, 0.89F})
            for (const float g : {0.13F, 0.41F, 0.67F, 0.92F})
                for (const float b : {0.07F, 0.31F, 0.58F, 0.83F})
                    colours.push_back({r, g, b});
        std::vector<bool> over;
        for (const insight::Jacobian& j : slopes_at(values, colours))
            over.push_back(insight::determinant(j) < 0);
        return over;
    }

    Status measure() {
        const auto first = checked(whole_text(1, false));
        if (!first) { // it can only be too long
            back_.obstacles.push_back({{}, said("the way back"), first.error().text()});
            return {};
        }
        const lang::Rule& rule = first.value();
        const auto here = at(rule, {back_.at_values ? std::vector<double>{} : values_});
        if (!here)
            return called_off();
        back_.largest = here->figure;
        for (std::size_t c = 0; c < 3; ++c)
            back_.at[c] = static_cast<double>(here->worst.before[c]);
        const subject::Subject forward(rule_, values_),
            backward(rule, back_.at_values ? std::vector<double>{} : values_);
        if (!here->passed || !back_.losses.empty())
            back_.meeting = meeting(forward, &backward);
        if (!here->passed && back_.losses.empty()) {
            back_.obstacles = lossy_;
            back_.obstacles.push_back(
                {{},
                 said("at these values"),
                 said("a colour comes back {:.2g} away from where it was: two colours have become one, or nearly so",
                      here->figure)});
            return {};
        }
        back_.found = true;
        back_.noise = loudness();
        if (back_.at_values) {
            back_.settings = 1;
            back_.largest_anywhere = back_.largest;
            back_.everywhere = here->passed;
            back_.text = whole_text(1, false) + (here->passed ? examples(forward, backward) : "");
            const auto last = checked(back_.text);
            return last ? Status() : Status(last.error());
        }
        const bool promises = here->passed && narrow(rule);
        if (cancel_.cancelled())
            return called_off();
        const auto ready = checked(whole_text(1, false));
        if (!ready)
            return ready.error();
        const auto settings = proof::settings_of(ready.value());
        const auto everywhere = at(ready.value(), settings);
        if (!everywhere)
            return called_off();
        back_.settings = settings.size();
        back_.largest_anywhere = everywhere->figure;
        back_.everywhere = everywhere->passed && promises;
        const double limit = std::max(1e-5, rounded_up(everywhere->figure * 1.2));
        back_.text = whole_text(limit, back_.everywhere && !options_.file.empty());
        if (const auto last = checked(back_.text); !last)
            return last.error();
        return {};
    }

    /// Promises of a way back without parameters: some colours as they came out, and what they were.
    std::string examples(const subject::Subject& forward, const subject::Subject& backward) const {
        const std::array<std::array<double, 3>, 6> before{{{0.18, 0.18, 0.18},
                                                           {0.6, 0.2, 0.15},
                                                           {0.25, 0.5, 0.2},
                                                           {0.1, 0.2, 0.6},
                                                           {0.8, 0.7, 0.3},
                                                           {0.9, 0.9, 0.95}}};
        const std::vector<std::array<double, 3>> made = results(forward, before), again = results(backward, made);
        std::string lines = "\n";
        for (std::size_t i = 0; i < made.size() && i < again.size(); ++i) {
            double miss = 0;
            for (std::size_t c = 0; c < 3; ++c)
                miss += std::pow(again[i][c] - before[i][c], 2);
            const auto text = [](const std::array<double, 3>& x) {
                return fmt::format("{:.7g}, {:.7g}, {:.7g}", x[0], x[1], x[2]);
            };
            lines +=
                fmt::format("proof \"takes back {:.2g} {:.2g} {:.2g}\" on ({}) : distance(out.rgb, vec3({})) < {}\n",
                            before[i][0], before[i][1], before[i][2], text(made[i]), text(before[i]),
                            number(std::max(1e-5, rounded_up(2 * std::sqrt(miss)))));
        }
        return lines;
    }

    static double rounded_up(double x) {
        if (!(x > 0))
            return 0;
        const double unit = std::pow(10, std::floor(std::log10(x)));
        return std::ceil(x / unit) * unit;
    }

    std::vector<insight::Jacobian> slopes_at(const std::vector<double>& values,
                                             const std::vector<std::array<float, 3>>& colours) const {
        const subject::Subject forward(rule_, values);
        if (!slopes_)
            slopes_ = insight::derivative(forward, subject::source_spaces(forward));
        const std::vector<float> sources = subject::source_settings(forward).front();
        return insight::jacobians(*slopes_, forward.values(), colours, subject::constant_planes(sources));
    }

    /// The values that were asked for, and those with another option or switch: every one has its own ranges.
    std::vector<std::vector<double>> starts(const lang::Rule& rule) {
        std::vector<std::vector<double>> all{values_};
        for (std::size_t i = 0; i < rule_.parameters.size(); ++i) {
            const lang::Parameter& p = rule_.parameters[i];
            const bool toggle = p.kind == lang::ParameterKind::toggle;
            if (!toggle && p.kind != lang::ParameterKind::choice)
                continue;
            for (double option = 0; option < (toggle ? 2.0 : static_cast<double>(p.options.size())); ++option) {
                if (option == values_[i])
                    continue;
                all.push_back(values_);
                all.back()[i] = option;
                turns_here_ = turns(all.back());
                if (!works(rule, all.back())) {
                    back_.without.push_back(fmt::format("{} = {}", p.name, lang::value_text(p, option)));
                    all.pop_back();
                }
            }
        }
        return all;
    }

    /// Each parameter to where it works while the others are as asked for; then all together. False if they do not.
    bool narrow(const lang::Rule& rule) {
        for (const std::vector<double>& start : starts(rule)) {
            turns_here_ = turns(start);
            for (std::size_t i = 0; i < rule_.parameters.size(); ++i) {
                const lang::Parameter& p = rule_.parameters[i];
                if (p.kind != lang::ParameterKind::number && p.kind != lang::ParameterKind::colour)
                    continue;
                for (double* end : {&low_[i], &high_[i]})
                    *end = reach(rule, start, i, *end);
            }
        }
        turns_here_ = turns(values_);
        if (!back_.without.empty())
            return false;
        // All together: one parameter is held back, or, if that is not enough, all of them.
        const std::vector<double> low = low_, high = high_;
        if (all_work())
            return narrowed();
        for (const double share : {0.75, 0.5, 0.25, 0.1})
            for (std::size_t only = 0; only < low_.size(); ++only) {
                low_ = low;
                high_ = high;
                if (hold_back(only, share) && all_work())
                    return narrowed();
                if (cancel_.cancelled())
                    return false;
            }
        for (const double share : {0.75, 0.5, 0.25, 0.1, 0.03}) {
            low_ = low;
            high_ = high;
            bool fits = true;
            for (std::size_t i = 0; i < low_.size(); ++i)
                fits = (hold_back(i, share) || !is_number(i)) && fits;
            if (fits && all_work())
                return narrowed();
        }
        for (std::size_t i = 0; i < low_.size(); ++i) { // nothing helps: the ranges stay, and nothing is promised
            low_[i] = rule_.parameters[i].low;
            high_[i] = rule_.parameters[i].high;
        }
        return false;
    }

    bool is_number(std::size_t i) const {
        const auto kind = rule_.parameters[i].kind;
        return kind == lang::ParameterKind::number || kind == lang::ParameterKind::colour;
    }

    /// To a share of its range on either side of its value; false if it has none.
    bool hold_back(std::size_t i, double share) {
        if (!is_number(i) || low_[i] == high_[i])
            return false;
        low_[i] = towards(values_[i] + share * (low_[i] - values_[i]), values_[i]);
        high_[i] = towards(values_[i] + share * (high_[i] - values_[i]), values_[i]);
        return true;
    }

    /// Of the text with these ranges, at all that its proofs are measured at.
    bool all_work() const {
        for (std::size_t i = 0; i < low_.size(); ++i)
            if (is_number(i) && !(low_[i] < high_[i])) // a value at the end of what works: a range needs some width
                return false;
        const auto ready = checked(whole_text(1, false));
        if (!ready)
            return false;
        const auto outcome = at(ready.value(), proof::settings_of(ready.value()));
        return outcome && outcome->passed;
    }

    bool narrowed() {
        for (std::size_t i = 0; i < low_.size(); ++i)
            if (low_[i] != rule_.parameters[i].low || high_[i] != rule_.parameters[i].high)
                back_.narrowed.push_back({rule_.parameters[i].name, low_[i], high_[i]});
        return true;
    }

    /// From the value of a parameter towards `end`, as far as it works.
    double reach(const lang::Rule& rule, std::vector<double> values, std::size_t i, double end) {
        constexpr int looks = 8;
        const double from = values[i];
        double good = from, bad = end;
        for (int k = 1; k <= looks && good != end; ++k) {
            values[i] = bad = k == looks ? end : from + (end - from) * k / looks;
            if (!works(rule, values))
                break;
            good = bad;
        }
        if (good == end)
            return end;
        for (int step = 0; step < 12 && !cancel_.cancelled(); ++step) {
            values[i] = 0.5 * (good + bad);
            (works(rule, values) ? good : bad) = values[i];
        }
        return towards(good, from);
    }

    /// By the slopes of the rule, turned over: those of the way back cannot be had where a number is looked for.
    double loudness() const {
        std::vector<std::array<float, 3>> colours;
        for (const auto& c : lattice(16))
            colours.push_back({static_cast<float>(c[0]), static_cast<float>(c[1]), static_cast<float>(c[2])});
        double most = 0;
        for (const insight::Jacobian& j : slopes_at(values_, colours)) {
            const auto way_back = insight::Affine{j, {}}.inverse();
            if (way_back)
                if (const double gain = insight::noise_gain(way_back->matrix); std::isfinite(gain))
                    most = std::max(most, gain);
        }
        return most;
    }

    const lang::Rule& rule_;
    std::string_view text_;
    std::vector<double> values_, low_, high_;
    const Options& options_;
    Way way_;
    bool scaled_ = false;
    CancelToken cancel_;
    std::shared_ptr<const lang::Rule> other_;
    mutable engine::ProgramPtr slopes_;
    std::vector<bool> turns_here_;
    std::vector<Obstacle> lossy_;
    terms::Terms terms_;
    std::string body_, functions_;
    Back back_;
};

} // namespace

Result<Back> invert(const lang::Rule& rule, std::string_view text, std::span<const double> values,
                    const Options& options, const CancelToken& cancel) {
    std::optional<Result<Back>> best;
    double reached = -1;
    bool scaled = false;
    const auto attempt = [&](const Way& way) {
        Inverting trying(rule, text, values, options, way, cancel);
        Result<Back> made = trying.run();
        scaled = scaled || trying.scaled();
        if (!best || (made && trying.reaches() > reached)) {
            // What stands in the way of all values is worth telling beside what works at some.
            if (best && best->ok() && made)
                made.value().obstacles = best->value().obstacles;
            best = std::move(made);
            reached = trying.reaches();
        }
        return best->ok();
    };
    if (attempt({}) && scaled && !cancel.cancelled())
        attempt({true, false});
    if (best->ok() && !best->value().found && !values.empty() && !cancel.cancelled())
        attempt({scaled, true});
    return *best;
}

std::string told(const Obstacle& obstacle, std::string_view text) {
    std::string part = obstacle.part.size() > 90 ? obstacle.part.substr(0, 87) + "..." : obstacle.part;
    if (obstacle.span.size() == 0 || obstacle.span.end > text.size())
        return fmt::format("{}: {}", part, translated(obstacle.why));
    const auto line = 1 + std::count(text.begin(), text.begin() + obstacle.span.begin, '\n');
    std::string written(text_of(text, obstacle.span));
    std::replace(written.begin(), written.end(), '\n', ' ');
    if (written.size() > 90)
        written = written.substr(0, 87) + "...";
    return said("line {}, {}: {}", line, written, translated(obstacle.why));
}

} // namespace kasuri::inverse
