#include "carry/carry.hpp"

#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "insight/algebra.hpp"
#include "inverse/look.hpp"
#include "lang/format.hpp"
#include "lang/parser.hpp"
#include "look/make.hpp"
#include "proof/measure.hpp"
#include "proof/proof.hpp"
#include "terms/rewrite.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::carry {
namespace {

using lang::Operator;
using terms::Term;
using terms::TermId;
using terms::TermKind;
using terms::Terms;

std::string function_of(std::string_view prefix, std::string_view space) {
    std::string name = std::string(prefix) + std::string(space);
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
}

bool has_function(const std::string& name) {
    const auto rows = builtins::all();
    return std::any_of(rows.begin(), rows.end(), [&](const builtins::Builtin& row) { return row.name == name; });
}

/// A rule of one space as formulas of another's numbers.
class Carrying {
public:
    Carrying(Terms& terms, const lang::Rule& rule, const colour::Space& from) : t_(terms), from_(from) {
        there_ = function_of("to_", from.name);
        back_ = function_of("from_", from.name);
        for (const lang::SourceInput& s : rule.sources)
            if (s.type == lang::vec3_type || s.type == lang::vec4_type)
                sources_.push_back(s.name);
        const TermId given = t_.construct(lang::vec3_type, {t_.given(0), t_.given(1), t_.given(2)});
        in_ = there(given);
        t_.origin(in_).name = function_of("in_", from.name);
    }

    TermId colour(const std::array<TermId, 4>& out) {
        return back(carried(t_.construct(lang::vec3_type, {out[0], out[1], out[2]})));
    }
    TermId carried(TermId id) {
        if (const auto found = done_.find(id); found != done_.end())
            return found->second;
        const TermId made = fresh(id);
        if (t_.origin(made).name.empty() && made != id)
            t_.origin(made).name = t_.origin(id).name;
        return done_[id] = made;
    }

private:
    TermId there(TermId colour) { return t_.call(there_, lang::vec3_type, {colour}); }
    TermId back(TermId numbers) { return t_.call(back_, lang::vec3_type, {numbers}); }

    TermId fresh(TermId id) {
        const Term term = t_[id];
        if (term.kind == TermKind::channel)
            return term.index == 3 ? t_.given(3) : t_.component(in_, term.index);
        if (term.kind == TermKind::name && std::find(sources_.begin(), sources_.end(), term.text) != sources_.end()) {
            if (term.type == lang::vec3_type)
                return there(id);
            const TermId rgb = there(t_.swizzle(id, lang::vec3_type, {0, 1, 2, 0}));
            return t_.construct(
                lang::vec4_type,
                {t_.component(rgb, 0), t_.component(rgb, 1), t_.component(rgb, 2), t_.component(id, 3)});
        }
        std::vector<TermId> args;
        for (const TermId arg : term.args)
            args.push_back(carried(arg));
        if (term.kind != TermKind::call)
            return term.args.empty() ? id : t_.rebuilt(id, std::move(args));
        const builtins::Builtin& row = builtins::all()[term.index];
        if (row.form != builtins::Form::of_space || (row.model && !row.model->frame))
            return t_.rebuilt(id, std::move(args));
        if (row.name == "luma")
            return weighted(args[0], colour::luma_weights(from_));
        if (row.name == "luminance")
            return luminance(light(args[0]));
        if (row.name == "with_luminance")
            return with_luminance(args[0], args[1]);
        // What is said of a colour is said of the same colour; numbers of a named space are what they are.
        const bool numbers = row.space && row.name.starts_with("from_");
        for (TermId& arg : args)
            if (t_[arg].type == lang::vec3_type && !numbers)
                arg = back(arg);
        const TermId made = t_.call(term.index, term.type, std::move(args));
        const bool gives_numbers = row.space && row.name.starts_with("to_");
        return term.type == lang::vec3_type && !gives_numbers ? there(made) : made;
    }

    TermId weighted(TermId colour, const colour::Triple& by) {
        return t_.call("dot", lang::float_type,
                       {colour, t_.construct(lang::vec3_type, {t_.number(by[0]), t_.number(by[1]), t_.number(by[2])})});
    }
    TermId luminance(TermId light) { return weighted(light, colour::luminance_weights(from_)); }
    TermId coded(TermId colour, std::string_view way) {
        if (colour::is_linear(from_))
            return colour;
        return t_.call(std::string(from_.transfer) + std::string(way), lang::vec3_type, {colour});
    }
    TermId light(TermId colour) { return coded(colour, "_decode"); }
    TermId with_luminance(TermId colour, TermId y) {
        const TermId linear = light(colour), own = luminance(linear);
        const TermId dark = t_.binary(Operator::less_equal, lang::bool_type, own, t_.number(0));
        return coded(t_.choice(dark, t_.add(linear, t_.spread(lang::vec3_type, t_.sub(y, own))),
                               t_.mul(linear, t_.spread(lang::vec3_type, t_.div(y, own)))),
                     "_encode");
    }

    Terms& t_;
    const colour::Space& from_;
    std::string there_, back_;
    std::vector<std::string> sources_;
    TermId in_ = 0;
    std::map<TermId, TermId> done_;
};

/// The text with another working space, without proofs.
std::string in_space(std::string_view text, std::string_view to) {
    std::vector<lang::Diagnostic> faults;
    const auto statements = lang::parse(text, faults).statements;
    const std::string line = fmt::format("working {}", to);
    std::string made(text);
    std::size_t after = 0;
    bool named = false;
    for (std::size_t i = statements.size(); i-- > 0;) {
        const lang::Statement& s = statements[i];
        if (s.kind == lang::StatementKind::proof)
            made = terms::with_statement(made, s.span, "");
        else if (s.kind == lang::StatementKind::working) {
            made = terms::with_statement(made, s.span, line);
            named = true;
        } else if (s.kind == lang::StatementKind::filter || s.kind == lang::StatementKind::note ||
                   s.kind == lang::StatementKind::tags)
            after = std::max<std::size_t>(after, s.span.end);
    }
    return named ? made : made.substr(0, after) + (after > 0 ? "\n" : "") + line + "\n" + made.substr(after);
}

/// Lines of the rule's own promises that say the same of any numbers (greys stay grey, every number is finite), which
/// the carried rule keeps: measured on it, line by line. Conditions and colours are numbers of the old space.
std::vector<std::string> kept_proofs(std::string_view text, lang::CheckOptions with, const lang::Rule& carried) {
    with.proofs = true;
    const lang::Checked old = lang::check(text, proof::vocabulary(), with);
    std::vector<std::string> kept;
    if (!old.ok)
        return kept;
    const subject::Subject subject(carried);
    const auto settings = proof::settings_of(carried);
    for (const lang::ProofLine& line : old.rule.proofs) {
        const proof::Function* function = proof::find(line.function);
        if (!function || function->compares || function->of_colours || !line.colours.empty())
            continue;
        if (const auto outcome = proof::check(subject, line, settings); outcome && outcome->passed)
            kept.emplace_back(text.substr(line.span.begin, line.span.end - line.span.begin));
    }
    return kept;
}

struct Difference {
    double largest = 0;
    std::array<double, 3> at{};
    std::size_t colours = 0;
};

/// `from`: colours are left out whose numbers are not from -1 to 16 there, too: in logarithms 16 is more light than
/// any.
Difference difference(const subject::Subject& before, const subject::Subject& after, std::string_view space,
                      std::string_view from) {
    std::vector<std::array<double, 3>> colours = inverse::lattice(16);
    for (const double r : proof::telling_levels)
        for (const double g : proof::telling_levels)
            for (const double b : proof::telling_levels)
                colours.push_back({r, g, b});
    const colour::Space &here = *colour::find_space(space), &there = *colour::find_space(from);
    std::erase_if(colours, [&](const std::array<double, 3>& c) {
        const colour::Triple old = colour::converted(c, here, there);
        return !std::all_of(old.begin(), old.end(), [](double x) { return x >= -1 && x <= 16; });
    });
    const auto was = inverse::results(before.between(space, space), colours),
               is = inverse::results(after.between(space, space), colours);
    Difference found{0, {}, colours.size()};
    for (std::size_t i = 0; i < was.size() && i < is.size(); ++i)
        for (std::size_t c = 0; c < 3; ++c) {
            const double x = was[i][c], y = is[i][c];
            if (!std::isfinite(x)) // where there was no answer there is none to keep
                continue;
            double by = std::fabs(x - y) / std::max(1.0, std::fabs(x));
            if (std::isnan(by))
                by = std::numeric_limits<double>::infinity();
            if (by > found.largest)
                found = {by, colours[i], colours.size()};
        }
    return found;
}

/// What cannot be carried, in words; empty: nothing.
std::string refusal(const colour::Space* from, std::string_view to) {
    if (!colour::find_space(to))
        return said("there is no space {}", to);
    for (const std::string_view space : {from->name, to})
        if (!has_function(function_of("to_", space)))
            return said("{} comes from a colour config, and has no functions of its own", space);
    return {};
}

} // namespace

Result<Carried> carried(std::string_view text, std::string_view to, const Options& options) {
    lang::CheckOptions with;
    with.open = options.open;
    with.proofs = false;
    lang::Checked checked = lang::check(text, proof::vocabulary(), with);
    if (!checked.ok)
        return Error{checked.diagnostics.empty() ? std::string("the rule has a fault")
                                                 : lang::message(checked.diagnostics.front()),
                     "", "Mend it first."};
    const colour::Space* from = colour::find_space(engine::working_space(checked.rule));
    if (const std::string why = refusal(from, to); !why.empty())
        return Error{why, "", "kasuri-cli docs colour lists the spaces."};
    Terms t;
    // Every call is written out: what a function says of a colour depends on the space.
    const terms::Read read = terms::read(checked.rule, t, [](const lang::Function&, bool) { return false; });
    if (t.size() > terms::most_terms)
        return Error{said("has {} parts; more than {} would take minutes", t.size(), terms::most_terms), "",
                     "Make the rule shorter."};
    Carrying carrying(t, checked.rule, *from);
    const TermId colour = carrying.colour(read.out), alpha = carrying.carried(read.out[3]);
    const std::string shell = in_space(text, to);
    std::vector<std::string> kept;
    const auto whole = [&](const std::string& statements) {
        std::string made = terms::with_statements(shell, statements);
        for (const std::string& line : kept)
            made += (made.ends_with('\n') ? "" : "\n") + line + "\n";
        if (!options.file.empty())
            made += fmt::format("{}\nproof \"as it was in {}\" : equals \"{}\"\n", made.ends_with('\n') ? "" : "\n",
                                from->name, options.file);
        return lang::formatted(made).value_or(made);
    };
    with.proofs = true;
    with.open = [&](const std::string& name) -> Result<std::string> {
        if (name == options.file)
            return std::string(text);
        return options.open ? options.open(name) : Result<std::string>(Error{"cannot be read", name, ""});
    };
    Carried made;
    std::string written = terms::statements(t, colour, alpha, terms::names_of(checked.rule));
    made.text = whole(written);
    lang::Checked again = lang::check(made.text, proof::vocabulary(), with);
    if (!again.ok)
        return Error{said("it was written for {}, but {}", to,
                          again.diagnostics.empty() ? std::string() : lang::message(again.diagnostics.front())),
                     "", "Make the rule shorter, or carry its steps one by one."};
    const subject::Subject before(checked.rule);
    std::optional<subject::Subject> after(std::in_place, again.rule);
    if (checked.rule.parameters.empty() && checked.rule.sources.empty())
        if (const auto matrix = insight::shown_matrix(*after)) {
            std::string entries, offset;
            for (std::size_t r = 0; r < 3; ++r) {
                for (std::size_t c = 0; c < 3; ++c)
                    entries += fmt::format("{}{:.10g}", entries.empty() ? "" : ", ", matrix->matrix[r][c] + 0.0);
                offset += fmt::format("{}{:.10g}", offset.empty() ? "" : ", ", matrix->offset[r] + 0.0);
            }
            const bool moved = matrix->offset != std::array<double, 3>{};
            const std::string folded =
                fmt::format("out.rgb = mat3({}) * rgb{}", entries, moved ? " + vec3(" + offset + ")" : std::string());
            if (lang::Checked one = lang::check(whole(folded), proof::vocabulary(), with); one.ok) {
                written = folded;
                made.text = whole(written);
                made.matrix = true;
                after.emplace(std::move(one.rule));
            }
        }
    lang::CheckOptions opens;
    opens.open = options.open;
    kept = kept_proofs(text, opens, *after->rule());
    if (!kept.empty())
        made.text = whole(written);
    const Difference found = difference(before, *after, to, from->name);
    made.largest = found.largest;
    made.at = found.at;
    made.colours = found.colours;
    return made;
}

Result<CarriedLook> carried(const document::Look& look, const std::filesystem::path& folder, std::string_view to) {
    const auto before = look::make(look, folder);
    if (!before)
        return before.error();
    CarriedLook made;
    made.look = look;
    std::optional<Error> wrong;
    const auto go = [&](auto&& self, std::vector<document::LookStep>& steps, const std::string& place) -> void {
        for (std::size_t i = 0; i < steps.size() && !wrong; ++i) {
            document::LookStep& step = steps[i];
            const std::string name = place + (step.label.empty() ? said("step {}", i + 1) : step.label);
            if (step.is_look && step.opacity == 1 && step.mask.empty() && step.blend == "normal") {
                self(self, step.within, name + ", ");
                continue;
            }
            if (!step.lut.empty()) // it works, and is laid over, in numbers of its own, whatever the others do
                continue;
            const auto text = inverse::as_one_rule(step);
            Options with;
            with.open = document::used_by(step, folder);
            auto one = text ? carried(text.value(), to, with) : Result<Carried>(text.error());
            if (!one) {
                wrong = one.error();
                wrong->where = name;
                return;
            }
            step.text = one.value().text;
            step.filter.clear(); // it is another rule now
            step.bench.clear();
            step.opacity = 1;
            step.blend = "normal";
            step.mask.clear();
            step.mask_inverted = false;
        }
    };
    go(go, made.look.steps, "");
    if (wrong)
        return *wrong;
    made.look.proofs.clear(); // they speak of the old numbers
    const auto after = look::make(made.look, folder);
    if (!after)
        return after.error();
    const Difference found =
        difference(before.value().subject, after.value().subject, to, before.value().subject.space());
    made.largest = found.largest;
    made.at = found.at;
    made.colours = found.colours;
    return made;
}

} // namespace kasuri::carry
