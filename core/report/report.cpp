#include "report/report.hpp"

#include "baking/bake.hpp"
#include "base/said.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "handover/render.hpp"
#include "insight/summary.hpp"
#include "io/picture_file.hpp"
#include "lang/check.hpp"
#include "look/make.hpp"
#include "look/sums.hpp"
#include "proof/look.hpp"
#include "proof/report.hpp"
#include "report/picture.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::report {
namespace {

constexpr int wide = 640, half = 316, thread_height = 70;

constexpr std::string_view style =
    R"(body{font:14px/1.5 Inter,"Liberation Sans",sans-serif;background:#d8d8d8;color:#161616;max-width:700px;margin:24px auto;padding:0 16px}
h1{font-size:22px;margin:0}h2{font-size:16px;margin:28px 0 6px;border-bottom:1px solid #b3b3b3}h3{font-size:14px;margin:16px 0 4px}
pre{font:12px/1.45 "JetBrains Mono","Liberation Mono",monospace;background:#e3e3e3;padding:8px 10px;white-space:pre-wrap}
table{border-collapse:collapse;width:100%}td,th{text-align:left;padding:2px 10px 2px 0;vertical-align:top;font-weight:normal}th{color:#444}
td.n{text-align:right;font-variant-numeric:tabular-nums}.q{color:#444}.ok{color:#2c6a3b;font-weight:600}.no{color:#9c2a22;font-weight:600}
img{display:block;image-rendering:auto}.strip img{width:640px;height:18px;image-rendering:pixelated}.pair{display:flex;gap:8px;background:#777;padding:8px}.pair img{width:312px}
.pair figure{margin:0}.pair figcaption{color:#fff;font-size:12px}.patches img{image-rendering:pixelated;height:117px}@media print{body{background:#fff}}
)";

/// Why nothing is shown: sources without a picture.
std::string not_measured(const std::vector<std::string>& names) {
    return fmt::format("<p>Not measured: there is no picture for {}.</p>\n",
                       escaped(fmt::format("{}", fmt::join(names, ", "))));
}

std::string pair(const image::Picture& before, const image::Picture& after, const char* kind = "") {
    return fmt::format("<div class=\"pair{}\"><figure><img src=\"{}\" "
                       "alt=\"before\"><figcaption>before</figcaption></figure><figure><img src=\"{}\" "
                       "alt=\"after\"><figcaption>after</figcaption></figure></div>\n",
                       kind, png_address(before, half), png_address(after, half));
}

std::string strips(const subject::Subject& subject, const CancelToken& cancel) {
    if (const auto missing = subject::without_picture(subject, nullptr); !missing.empty())
        return not_measured(missing);
    std::string text;
    for (const char* name : {"grey_ramp", "saturation_ramp", "hue_sweep"}) {
        const targets::Target& target = *targets::find(name);
        image::Picture before = targets::make(target, wide);
        if (before.space.empty() || target.space.empty())
            before.space = subject.space();
        const auto after = handover::applied(subject, before, nullptr, cancel);
        if (!after)
            return {};
        double low = target.thread_low, high = target.thread_high;
        for (const auto& plane : after->planes)
            if (plane)
                for (const float v : *plane)
                    if (std::isfinite(v) && plane != after->planes[3]) {
                        low = std::max(-4.0, std::min(low, static_cast<double>(v)));
                        high = std::min(16.0, std::max(high, static_cast<double>(v)));
                    }
        text += fmt::format("<h3>{} <span class=\"q\">{}</span></h3><div class=\"strip\"><img src=\"{}\" "
                            "alt=\"before\"><img src=\"{}\" alt=\"after\"></div>{}\n",
                            target.title, target.detail, png_address(before, wide), png_address(*after, wide),
                            threads_svg(before, *after, wide, thread_height, low, high, target.thread_scale));
    }
    const targets::Target& chart = *targets::find("dye_chart");
    image::Picture before = targets::make(chart, 0);
    if (chart.space.empty())
        before.space = subject.space();
    if (const auto after = handover::applied(subject, before, nullptr, cancel))
        text += fmt::format("<h3>{}</h3>{}", chart.title, pair(before, *after, " patches"));
    return text;
}

Result<std::string> pictures(const Order& order, const subject::Subject& subject, const CancelToken& cancel) {
    std::string text;
    for (const std::filesystem::path& path : order.pictures) {
        const Result<image::Image> loaded = io::load(path);
        if (!loaded)
            return loaded.error();
        const auto picture = image::picture_of(loaded.value(), image::usual_layer(loaded.value()));
        if (!picture)
            return Error{"has no channel to work on", path.string(), ""};
        if (const auto missing = subject::without_picture(subject, &loaded.value()); !missing.empty()) {
            text += fmt::format("<h3>{}</h3>{}", escaped(path.filename().string()), not_measured(missing));
            continue;
        }
        const auto after = handover::applied(subject, *picture, &loaded.value(), cancel);
        if (!after)
            return Error{"called off", "", ""};
        text += fmt::format("<h3>{} <span class=\"q\">{} x {}, {}</span></h3>{}", escaped(path.filename().string()),
                            picture->width, picture->height, picture->space, pair(*picture, *after));
    }
    return text;
}

std::string values_table(const lang::Rule& rule, const std::vector<double>& values) {
    if (values.empty())
        return {};
    std::string text = "<table>";
    for (std::size_t i = 0; i < values.size(); ++i) {
        const lang::Parameter& p = rule.parameters[i];
        const std::string shown =
            p.kind == lang::ParameterKind::choice && static_cast<std::size_t>(values[i]) < p.options.size()
            ? p.options[static_cast<std::size_t>(values[i])]
            : p.kind == lang::ParameterKind::toggle ? (values[i] != 0 ? "true" : "false")
                                                    : number_text(values[i], 6);
        text += fmt::format(
            "<tr><td>{}</td><td class=\"n\">{}</td><td class=\"q\">{} .. {}</td><td class=\"q\">{}</td></tr>",
            escaped(p.name), escaped(shown), number_text(p.low, 6), number_text(p.high, 6), escaped(p.description));
    }
    return text + "</table>\n";
}

std::string row_of(const proof::Outcome& outcome) {
    const char* const judged = outcome.passed ? "&#10003; passes" : "&#10007; fails";
    return fmt::format(
        "<tr><td class=\"{}\">{}</td><td>{}</td><td class=\"n\">{} {} {}</td><td class=\"q\">{}</td></tr>",
        outcome.offered      ? "q"
            : outcome.passed ? "ok"
                             : "no",
        outcome.offered ? outcome.passed ? "holds" : "does not hold" : judged, escaped(outcome.title),
        number_text(outcome.figure, 3), escaped(outcome.passed ? outcome.relation : proof::opposite(outcome.relation)),
        number_text(outcome.limit, 3), escaped(proof::how_known(outcome)));
}

std::string proofs_table(const subject::Subject& subject, const CancelToken& cancel) {
    std::string text = subject.rule()->proofs.empty()
        ? "<p class=\"q\">Nothing is promised: there are no proof lines. What could be promised:</p>\n<table>"
        : "<table>";
    const std::vector<std::vector<double>> settings = {subject.values()};
    for (const lang::ProofLine& line : proof::lines_of(*subject.rule()))
        if (const auto outcome = proof::check(subject, line, settings, cancel))
            text += row_of(*outcome);
    return text + "</table>\n";
}

/// What the look promises as a whole.
Result<std::string> promise(const Order& order, const subject::Subject& subject, const CancelToken& cancel) {
    if (order.look.proofs.empty())
        return std::string();
    const Result<lang::Rule> statements =
        proof::look_statements(order.look.proofs, subject.space(), document::used_beside(order.folder / "look"));
    if (!statements)
        return statements.error();
    proof::FilterReport measured;
    (void)proof::check_all(subject, {}, measured, cancel, &statements.value()); // called off: said at the end
    std::string text = "<h2>Proofs of the look as a whole</h2><table>";
    for (const proof::Outcome& outcome : measured.outcomes)
        text += row_of(outcome);
    return text + "</table>\n";
}

std::string tables(const subject::Subject& subject, const CancelToken& cancel) {
    std::string rows;
    for (const int size : {17, 33, 65}) {
        baking::BakeOptions options;
        options.size = size;
        options.delta_e = true;
        const auto baked = baking::bake(subject, options, cancel);
        if (!baked)
            return fmt::format("<p>{}.</p>", escaped(baked.error().what));
        const baking::LutError& e = baked.value().tetrahedral;
        rows += fmt::format("<tr><td>{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td class=\"n\">{}</td><td "
                            "class=\"n\">{}</td><td class=\"n\">{}</td></tr>",
                            size, number_text(e.mean, 3), number_text(e.most, 3), number_text(e.largest, 3),
                            number_text(e.delta_e_mean, 3), number_text(e.delta_e_largest, 3));
    }
    return "<p class=\"q\">Error of a 3D table over 0 .. 1, read tetrahedrally, on 64 000 colours off its "
           "points.</p><table><tr><th>points</th><th>mean</th><th>99.9 %</th><th>largest</th><th>&#916;E2000 "
           "mean</th><th>largest</th></tr>" +
        rows + "</table>\n";
}

} // namespace

Result<std::string> html(const Order& order, const CancelToken& cancel) {
    const InEnglish page_is_read_by_others;
    const auto made = look::make(order.look, order.folder);
    if (!made)
        return made.error();
    const subject::Subject subject = made.value().subject.with_bindings(order.sources);
    const bool stepwise = !document::is_one_filter(order.look);
    std::string steps, certain;
    std::string title = order.look.title, note = order.look.note;
    for (std::size_t i = 0; i < order.look.steps.size(); ++i) {
        const document::LookStep& step = order.look.steps[i];
        lang::CheckOptions options;
        options.open = document::used_by(step, order.folder);
        const bool has_rule = !document::is_no_rule(step);
        const lang::Checked checked = lang::check(has_rule ? step.text : std::string(), proof::vocabulary(), options);
        if (!checked.ok)
            return Error{"a rule does not compile", said("step {}", i + 1), ""};
        const lang::Rule& rule = checked.rule;
        std::vector<double> values;
        for (const lang::Parameter& p : rule.parameters) {
            const auto chosen = step.values.find(p.name);
            values.push_back(chosen == step.values.end() ? p.value : lang::allowed_value(p, chosen->second));
        }
        const subject::Subject of_step = subject::Subject(rule, values).with_bindings(order.sources);
        const std::string name = !step.label.empty() ? step.label
            : !rule.title.empty()                    ? rule.title
            : step.filter.empty()                    ? "A rule"
                                                     : std::filesystem::path(step.filter).stem().string();
        if (title.empty() && !stepwise)
            title = name;
        if (note.empty() && !stepwise)
            note = rule.note;
        if (stepwise) {
            steps += fmt::format("<h2>Step {}: {}{}</h2><p class=\"q\">opacity {} %, {}{}{}</p>", i + 1, escaped(name),
                                 step.on ? "" : " (off)", number_text(100 * step.opacity, 4), escaped(step.blend),
                                 step.mask.empty() ? "" : ", mask " + escaped(step.mask),
                                 step.mask_inverted ? ", inverted" : "");
        }
        if (!has_rule) {
            steps += fmt::format("<p>{}</p>",
                                 step.is_look ? fmt::format("A look of {} steps.", step.within.size())
                                              : "A LUT file: " + escaped(step.filter) + ", its numbers are " +
                                         escaped(step.space));
            continue;
        }
        if (!stepwise)
            certain = insight::described(insight::known(of_step));
        steps += std::string(stepwise ? "<h3>Rule</h3>" : "<h2>Rule</h2>") + "<pre>" + escaped(step.text) + "</pre>\n";
        if (!values.empty())
            steps += std::string(stepwise ? "<h3>Values</h3>" : "<h2>Values</h2>") + values_table(rule, values);
        steps += std::string(stepwise ? "<h3>Proofs, at these values</h3>" : "<h2>Proofs, at these values</h2>") +
            proofs_table(of_step, cancel);
    }
    if (stepwise)
        certain = look::described(subject);
    const Result<std::string> promised = promise(order, subject, cancel);
    if (!promised)
        return promised.error();
    const Result<std::string> shown = pictures(order, subject, cancel);
    if (!shown)
        return shown.error();
    if (title.empty())
        title = stepwise ? "A look" : "A rule";
    std::string page =
        fmt::format("<!doctype html>\n<html lang=\"en\"><head><meta "
                    "charset=\"utf-8\"><title>{0}</title><style>{1}</style></head><body>\n<h1>{0}</h1>\n",
                    escaped(title), style);
    if (!note.empty())
        page += "<p>" + escaped(note) + "</p>\n";
    page += fmt::format("<p class=\"q\">{}, numbers are {}{}</p>\n", stepwise ? "A look" : "A filter", subject.space(),
                        order.made_at.empty() ? "" : "; " + escaped(order.made_at));
    if (!certain.empty())
        page += "<h2>Certain</h2><pre>" + escaped(certain) + "</pre>\n";
    if (!shown.value().empty())
        page += "<h2>Pictures</h2>" + shown.value();
    page += promised.value();
    page += "<h2>Ramps and chart</h2>" + strips(subject, cancel);
    page += steps;
    page += "<h2>As a LUT</h2>" + tables(subject, cancel);
    if (cancel.cancelled())
        return Error{"called off", "", ""};
    return page + "</body></html>\n";
}

} // namespace kasuri::report
