#include "inverse/look.hpp"

#include "base/text.hpp"
#include "document/look_text.hpp"
#include "look/make.hpp"
#include "proof/proof.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::inverse {
namespace {

/// What the way back calls the rule that it takes off, in the copies that the step carries.
constexpr std::string_view carried = "taken off.kasuri";

std::string quoted(std::string text) {
    std::replace(text.begin(), text.end(), '"', '\'');
    return text;
}

/// The name behind `source`, if it is such a statement.
std::string source_in(std::string_view statement) {
    statement = trimmed(statement);
    if (!statement.starts_with("source "))
        return {};
    const std::string_view rest = trimmed(statement.substr(7));
    return std::string(rest.substr(0, rest.find_first_of(" :=\t")));
}
bool names_source(std::string_view text, std::string_view statement) {
    const std::string name = source_in(statement);
    const auto lines = split(text, '\n');
    return !name.empty() &&
        std::any_of(lines.begin(), lines.end(), [&](std::string_view line) { return source_in(line) == name; });
}

/// Whether a step reads something beside what comes into it: then it cannot be looked at by itself.
bool reads_more(const document::LookStep& step) {
    for (const std::string* text : {&step.text, &step.mask})
        for (const std::string_view line : split(*text, '\n'))
            if (!source_in(line).empty())
                return true;
    return std::any_of(step.within.begin(), step.within.end(), reads_more);
}

class InvertingLook {
public:
    InvertingLook(const document::Look& look, std::filesystem::path folder, LookOptions options,
                  const CancelToken& cancel)
        : look_(look), folder_(std::move(folder)), options_(std::move(options)), cancel_(cancel) {}

    Result<LookBack> run() {
        const auto forward = look::make(look_, folder_);
        if (!forward)
            return forward.error();
        const std::string title = look_.title.empty() ? "The look" : look_.title;
        made_.look.title = title + ", taken off";
        made_.look.note = fmt::format("Takes off what {} has done, step by step from the last.", quoted(title));
        made_.found = true;
        steps(look_.steps, made_.look.steps);
        if (!made_.found && options_.table && options_.tables_for_rules && options_.whole)
            all_in_one();
        if (cancel_.cancelled())
            return Error{"was called off", "", ""};
        if (!made_.found)
            return made_;
        const auto backward = look::make(made_.look, folder_);
        if (!backward)
            return backward.error();
        measure(forward.value().subject, backward.value().subject);
        return made_;
    }

private:
    /// Steps that read earlier ones, or that a table of their own would not be enough for: one table for all of them.
    void all_in_one() {
        document::LookStep whole;
        whole.is_look = true;
        whole.within = look_.steps;
        whole.label = look_.title.empty() ? "the look" : look_.title;
        auto made = options_.table(whole, cancel_);
        if (!made)
            return;
        StepBack told;
        told.label = said("all steps together");
        told.table = std::move(made.value().words);
        made.value().step.label = told.label + ", taken off";
        made_.look.steps = {std::move(made.value().step)};
        made_.look.note = "Takes off what all steps together have done, by one table.";
        made_.steps.push_back(std::move(told));
        made_.found = true;
    }

    void steps(const std::vector<document::LookStep>& from, std::vector<document::LookStep>& into) {
        for (std::size_t i = from.size(); i-- > 0 && !cancel_.cancelled();)
            if (from[i].on && from[i].opacity > 0)
                step(from[i], i, into);
    }

    void step(const document::LookStep& from, std::size_t index, std::vector<document::LookStep>& into) {
        StepBack told;
        told.step = index;
        told.label = from.label.empty() ? said("step {}", index + 1) : from.label;
        if (from.is_look && from.opacity == 1 && from.mask.empty() && from.blend == "normal") {
            document::LookStep inner;
            inner.is_look = true;
            inner.label = told.label + ", taken off";
            steps(from.within, inner.within);
            into.push_back(std::move(inner));
            return;
        }
        auto made = one(from, told);
        if (!made && options_.table && (!from.lut.empty() || options_.tables_for_rules))
            made = table(from, told);
        if (made)
            into.push_back(std::move(*made));
        else
            made_.found = false;
        made_.steps.push_back(std::move(told));
    }

    std::optional<document::LookStep> table(const document::LookStep& from, StepBack& told) {
        if (reads_more(from)) {
            told.fault = said("it reads further pictures or earlier steps, which a table knows nothing of");
            return {};
        }
        auto made = options_.table(from, cancel_);
        if (!made) {
            told.fault = made.error().text();
            return {};
        }
        told.fault.clear();
        told.table = std::move(made.value().words);
        made.value().step.label = told.label + ", taken off";
        return std::move(made.value().step);
    }

    std::optional<document::LookStep> one(const document::LookStep& from, StepBack& told) {
        const auto text = as_one_rule(from);
        if (!text) {
            told.fault = text.error().text();
            return {};
        }
        told.text = text.value();
        lang::CheckOptions with;
        with.proofs = false;
        with.open = document::used_by(from, folder_);
        lang::Checked checked = lang::check(told.text, proof::vocabulary(), with);
        if (!checked.ok) {
            told.fault = checked.diagnostics.empty() ? std::string() : lang::message(checked.diagnostics.front());
            return {};
        }
        std::vector<double> values;
        for (const lang::Parameter& p : checked.rule.parameters) {
            const auto chosen = from.values.find(p.name);
            values.push_back(chosen == from.values.end() ? p.value : lang::allowed_value(p, chosen->second));
        }
        Options options;
        options.file = carried;
        options.open = with.open;
        auto back = invert(checked.rule, told.text, values, options, cancel_);
        if (!back) {
            told.fault = back.error().text();
            return {};
        }
        told.back = std::move(back.value());
        for (auto* all : {&told.back.losses, &told.back.ranges, &told.back.obstacles})
            for (Obstacle& o : *all)
                if (o.span.begin >= from.text.size()) { // no line that anybody has written
                    o.span = {};
                    o.part = said("how it is laid over what came in");
                }
        if (!told.back.found)
            return {};
        document::LookStep step;
        step.label = told.label + ", taken off";
        step.text = told.back.text;
        step.uses = from.uses;
        step.uses[std::string(carried)] = told.text;
        step.origin = from.origin;
        return step;
    }

    void measure(const subject::Subject& forward, const subject::Subject& backward) {
        const std::vector<std::array<double, 3>> colours = lattice(16);
        // The looks may begin in different spaces: what comes out of the one goes into the other as the same colour.
        const std::string& space = forward.space();
        const auto again = results(backward.between(space, space), results(forward.between(space, space), colours));
        for (std::size_t i = 0; i < again.size(); ++i)
            for (std::size_t c = 0; c < 3; ++c) {
                double by = std::fabs(again[i][c] - colours[i][c]);
                if (std::isnan(by))
                    by = std::numeric_limits<double>::infinity();
                if (by > made_.largest) {
                    made_.largest = by;
                    made_.at = colours[i];
                }
            }
    }

    const document::Look& look_;
    std::filesystem::path folder_;
    LookOptions options_;
    CancelToken cancel_;
    LookBack made_;
};

} // namespace

Result<std::string> as_one_rule(const document::LookStep& step) {
    if (!step.lut.empty())
        return Error{"a LUT has no rule to solve", "", "Find the rule behind it first."};
    if (step.is_look)
        return Error{"is a look that is laid over with an opacity, a mask or a blend mode", "", ""};
    if (step.mask_grow != 0 || step.mask_soften != 0)
        return Error{"its mask grows or is softened, which mixes in other pixels", "", ""};
    std::string text = step.text;
    if (!text.empty() && text.back() != '\n')
        text += '\n';
    if (step.blend != "normal")
        text += fmt::format("out.rgb = blend_{}(rgb, out.rgb)\n", step.blend);
    std::string share = step.opacity < 1 ? number_text(step.opacity, 9) : "";
    if (!step.mask.empty()) {
        std::string mask = step.mask;
        if (const std::size_t line = mask.rfind('\n'); line != std::string::npos) { // statements before it
            for (const std::string_view statement : split(std::string_view(mask).substr(0, line), '\n'))
                if (!names_source(text, statement)) // the step may have it, too
                    text += std::string(statement) + "\n";
            mask = mask.substr(line + 1);
        }
        mask = step.mask_inverted ? fmt::format("(1 - ({}))", mask) : fmt::format("({})", mask);
        share = share.empty() ? mask : share + " * " + mask;
    }
    if (!share.empty())
        text += fmt::format("out = mix(rgba, out, {})\n", share);
    return text;
}

Result<LookBack> invert(const document::Look& look, const std::filesystem::path& folder, const LookOptions& options,
                        const CancelToken& cancel) {
    return InvertingLook(look, folder, options, cancel).run();
}

} // namespace kasuri::inverse
