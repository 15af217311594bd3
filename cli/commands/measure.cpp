#include "base/file.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "json.hpp"
#include "readings/reading.hpp"
#include "readings/rows.hpp"
#include "streams.hpp"
#include "subject.hpp"
#include "targets/target.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::string reading, out, layer;
    std::vector<std::string> pictures, targets, settings;
    std::vector<double> line;
    bool json = false;
};

using T = JsonType;
constexpr const char *listed = "without READING", *measured_one = "of a reading";
constexpr JsonField answer[] = {
    {"readings", T::objects, "all that there are", listed},
    {"readings/name", T::text, "as it is asked for"},
    {"readings/of", T::text, "what it measures: rule or pictures"},
    {"readings/doc", T::text, "what it shows"},
    {"readings/source", T::text, "the standard it is from; empty: none"},
    {"readings/settings", T::objects, "what there is to be set"},
    {"readings/settings/name", T::text, "its name"},
    {"readings/settings/doc", T::text, "what it does"},
    {"readings/settings/usual", T::number, "its value where none is given", "of a number"},
    {"readings/settings/low", T::number, "the least it may be", "of a number"},
    {"readings/settings/high", T::number, "the most it may be", "of a number"},
    {"readings/settings/usual-choice", T::text, "the choice where none is given", "of a choice"},
    {"readings/settings/choices", T::texts, "all choices", "of a choice"},
    {"reading", T::text, "its name", measured_one},
    {"panels", T::objects, "its plots", measured_one},
    {"panels/title", T::text, "of the plot"},
    {"panels/x", T::object, "its axis"},
    {"panels/x/title", T::text, "what it is of"},
    {"panels/x/low", T::number, "where it begins"},
    {"panels/x/high", T::number, "where it ends"},
    {"panels/y", T::object, "its axis"},
    {"panels/y/title", T::text, "what it is of"},
    {"panels/y/low", T::number, "where it begins"},
    {"panels/y/high", T::number, "where it ends"},
    {"panels/z", T::object, "its axis", "of a plot in three dimensions"},
    {"panels/z/title", T::text, "what it is of"},
    {"panels/z/low", T::number, "where it begins"},
    {"panels/z/high", T::number, "where it ends"},
    {"figures", T::objects, "single numbers", measured_one},
    {"figures/name", T::text, "what it is"},
    {"figures/of", T::text, "the channel or the picture it is of; empty: all"},
    {"figures/value", T::number, "in its unit"},
    {"figures/unit", T::text, "of it; empty: none"},
    {"layers", T::objects, "what is drawn in the plots", measured_one},
    {"layers/kind", T::text, "what its rows are, see below"},
    {"layers/name", T::text, "what it is of"},
    {"layers/panel", T::whole, "in which plot, from 0"},
    {"layers/rows", T::rows,
     "density: how often things fall into the cells of the plot, the lowest row first; trace: x, y "
     "(nan interrupts the line); arrows: from x, y to x, y, colour; spots: x, y, colour; solid: "
     "x, y, z, the numbers that went in, colour; wires: number of the line, x, y, z. Colours are "
     "linear light of BT.709"},
    {"file", T::text, "CSV that was written", "with --out"},
};

void describe(const readings::Reading& reading) {
    fmt::print("{} (of {}): {}\n", reading.name, reading.about == readings::About::rule ? "a rule" : "pictures",
               reading.doc);
    if (!reading.source.empty())
        fmt::print("  source: {}\n", reading.source);
    for (const Setting& setting : reading.settings)
        fmt::print("  {}\n", described(setting));
}

/// Panels with what they span, figures, and each layer's rows.
Json as_json(const readings::Reading& reading, const std::vector<readings::Panel>& panels,
             const readings::Measured& measured) {
    Json made = {
        {"reading", reading.name}, {"panels", Json::array()}, {"figures", Json::array()}, {"layers", Json::array()}};
    const auto axis = [](const readings::Axis& it) {
        return Json{{"title", it.title}, {"low", json_number(it.low)}, {"high", json_number(it.high)}};
    };
    for (const readings::Panel& panel : panels) {
        Json each = {{"title", panel.title}, {"x", axis(panel.x)}, {"y", axis(panel.y)}};
        if (panel.z)
            each["z"] = axis(*panel.z);
        made["panels"].push_back(each);
    }
    for (const readings::Figure& figure : measured.figures)
        made["figures"].push_back(
            {{"name", figure.name}, {"of", figure.of}, {"value", json_number(figure.value)}, {"unit", figure.unit}});
    for (const readings::Layer& layer : measured.layers) {
        const readings::Rows rows = readings::rows_of(layer);
        Json numbers = Json::array();
        for (std::size_t i = 0; i + rows.columns <= rows.numbers.size(); i += rows.columns)
            numbers.push_back(json_numbers(std::span(rows.numbers).subspan(i, rows.columns)));
        made["layers"].push_back({{"kind", rows.kind}, {"name", rows.name}, {"panel", rows.panel}, {"rows", numbers}});
    }
    return made;
}

int usage(const std::string& what) { return refuse(Exit::usage, what); }

/// A picture, and the file that it is of: where further pictures are looked for.
struct Measured {
    std::string name;
    image::Picture picture;
    std::optional<image::Image> file{};
};

/// The pictures and targets that were named, as they are before the rule; or the exit code.
int gather(const Options& options, const std::string& working, std::vector<Measured>& into) {
    std::vector<std::string> files = options.pictures;
    if (const Status there = take_standard_input(files); !there)
        return complain(there.error());
    for (const std::string& file : files) {
        auto image = io::load(file);
        if (!image)
            return complain(image.error());
        const std::vector<std::string> layers = image::layers(image.value());
        const auto picture =
            image::picture_of(image.value(), options.layer.empty() ? image::usual_layer(image.value()) : options.layer);
        if (!picture)
            return complain({fmt::format("there is no layer \"{}\"", options.layer), file,
                             fmt::format("its layers are: {}", fmt::join(layers, ", "))});
        into.push_back({told(file), *picture, std::move(image.value())});
    }
    for (const std::string& name : options.targets) {
        const targets::Target* target = targets::find(name);
        if (!target)
            return usage(fmt::format("{}: there is no such target; kasuri-cli target lists them", name));
        image::Picture picture = targets::make(*target, target->shape == targets::Shape::strip ? 1024 : 0);
        if (target->space.empty())
            picture.space = working;
        into.push_back({name, std::move(picture)});
    }
    return Exit::good;
}

int run(const Options& options) {
    if (options.reading.empty() && options.json) {
        Json all = Json::array();
        for (const readings::Reading* reading : readings::all())
            all.push_back({{"name", reading->name},
                           {"of", reading->about == readings::About::rule ? "rule" : "pictures"},
                           {"doc", reading->doc},
                           {"source", reading->source},
                           {"settings", json_settings(reading->settings)}});
        return print_json({{"readings", all}});
    }
    if (options.reading.empty()) {
        for (const readings::Reading* reading : readings::all())
            describe(*reading);
        return Exit::good;
    }
    const readings::Reading* reading = readings::find(options.reading);
    if (!reading) {
        std::vector<std::string> names;
        for (const readings::Reading* each : readings::all())
            names.emplace_back(each->name);
        const auto near = did_you_mean(options.reading, names);
        return usage(fmt::format("{}: there is no such reading; {}", options.reading,
                                 near ? fmt::format("did you mean {}?", *near) : "kasuri-cli measure lists them"));
    }
    const auto set = read_settings(reading->settings, options.settings, "kasuri-cli measure");
    if (!set)
        return Exit::usage;
    RuleOptions rule = options.rule;
    if (rule.filter.empty())
        rule.text_given = true; // no rule is the identity
    const LoadedSubject loaded = load_subject(rule);
    if (loaded.exit != Exit::good)
        return loaded.exit;
    const std::string working = loaded.subject.space();
    std::vector<Measured> pictures;
    if (const int exit = gather(options, working, pictures); exit != Exit::good)
        return exit;
    if (reading->about == readings::About::pictures && pictures.empty())
        return usage(fmt::format("{} counts pictures: name some with --picture or --target", reading->name));

    for (Measured& each : pictures) {
        if (const auto missing = subject::without_picture(loaded.subject, each.file ? &*each.file : nullptr);
            !missing.empty())
            return say_not_measured(each.name, missing);
        each.picture = *handover::applied(loaded.subject, each.picture, each.file ? &*each.file : nullptr);
    }
    if (reading->about == readings::About::rule)
        if (const auto missing = subject::without_picture(loaded.subject, nullptr); !missing.empty())
            return say_not_measured(rule.filter.empty() ? "rule" : rule.filter, missing);
    readings::Views views;
    readings::Order order;
    for (const Measured& each : pictures)
        order.pictures.push_back(&each.picture);
    order.rule = [&](image::Picture picture) {
        picture.space = working;
        return handover::applied(loaded.subject, picture);
    };
    order.working = working;
    order.settings = *set;
    order.views = &views;
    if (!options.line.empty())
        order.line = {options.line[0], options.line[1], options.line[2], options.line[3]};
    const std::optional<readings::Measured> found = reading->measure(order);
    if (options.json && options.out.empty())
        return print_json(as_json(*reading, reading->panels(*set), *found));
    const std::string text = readings::csv(reading->panels(*set), *found);
    const Status written = write_out(options.out, text);
    if (!written)
        return complain(written.error());
    if (!options.json)
        return Exit::good;
    Json made = as_json(*reading, reading->panels(*set), *found);
    made["file"] = options.out;
    return print_json(made);
}

} // namespace

extern const Command measure_command;
const Command measure_command = {
    "measure", "List the readings, or measure pictures or a rule with one and write its numbers as CSV",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("READING", options->reading, "Such as waveform; none: all are listed")
            .completes(Completes::reading);
        options->rule.define(arguments, true);
        options->rule.define_sources(arguments);
        arguments
            .value("--picture", options->pictures,
                   "A picture file, measured after the rule; may be given several times")
            .completes(Completes::file)
            .take_all();
        arguments.value("--target", options->targets, "A generated target; may be given several times")
            .completes(Completes::target)
            .take_all();
        arguments.value("--layer", options->layer, "Of the pictures; else their first");
        arguments.value("--with", options->settings, "A setting of the reading: name=value")
            .completes(Completes::reading_setting)
            .take_all();
        arguments.value("--line", options->line, "Of a cut: x0 y0 x1 y1 in shares of width and height").expected(4);
        arguments.value("-o,--out", options->out, "CSV file to write; else standard output").completes(Completes::file);
        define_json(arguments, options->json, {answer});
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
