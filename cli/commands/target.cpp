#include "targets/target.hpp"
#include "base/text.hpp"
#include "command.hpp"
#include "common.hpp"
#include "io/picture_file.hpp"
#include "json.hpp"

#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    std::string name, out;
    std::vector<std::string> settings;
    int width = 0;
    bool print = false, json = false;
};

using T = JsonType;
constexpr JsonField answer[] = {
    {"targets", T::objects, "all, or the one that was named"},
    {"targets/name", T::text, "as it is asked for"},
    {"targets/shape", T::text, "strip, patches or field"},
    {"targets/doc", T::text, "what it shows"},
    {"targets/source", T::text, "the standard its numbers are from; empty: none"},
    {"targets/space", T::text, "of its numbers; empty: that of the rule"},
    {"targets/settings", T::objects, "what there is to be set"},
    {"targets/settings/name", T::text, "its name"},
    {"targets/settings/doc", T::text, "what it does"},
    {"targets/settings/usual", T::number, "its value where none is given"},
    {"targets/settings/low", T::number, "the least it may be"},
    {"targets/settings/high", T::number, "the most it may be"},
    {"file", T::text, "what was written", "with --out"},
    {"width", T::whole, "of it in pixels", "with --out"},
    {"height", T::whole, "of it in pixels", "with --out"},
};

std::string_view word(targets::Shape shape) {
    return shape == targets::Shape::strip ? "strip" : shape == targets::Shape::patches ? "patches" : "field";
}

void describe(const targets::Target& target) {
    fmt::print("{} ({}): {}\n", target.name, word(target.shape), target.doc);
    if (!target.source.empty())
        fmt::print("  source: {}\n", target.source);
    if (!target.space.empty())
        fmt::print("  space: {}\n", target.space);
    for (const Setting& setting : target.settings)
        fmt::print("  {}\n", described(setting));
}

Json json_of(const targets::Target& target) {
    return {{"name", target.name},     {"shape", word(target.shape)}, {"doc", target.doc},
            {"source", target.source}, {"space", target.space},       {"settings", json_settings(target.settings)}};
}

int wrong(const std::string& where, const std::string& what, const std::string& remedy) {
    complain({what, where, remedy});
    return Exit::usage;
}

/// Numbers as a table: for strips and patches the place, for all r, g, b.
void print_numbers(const targets::Target& target, const image::Picture& picture, Values set) {
    fmt::print("{},r,g,b\n",
               target.shape == targets::Shape::strip         ? "value"
                   : target.shape == targets::Shape::patches ? "patch"
                                                             : "x,y");
    const targets::Axis axis = targets::axis_of(target, set);
    for (std::size_t i = 0; i < picture.pixels(); ++i) {
        const auto pixel = picture.at(i);
        const int x = static_cast<int>(i) % picture.width, y = static_cast<int>(i) / picture.width;
        if (target.shape == targets::Shape::strip)
            fmt::print("{}", number_text(axis.value_at((x + 0.5) / picture.width), 9));
        else if (target.shape == targets::Shape::patches)
            fmt::print("{}", targets::patch_name(target, static_cast<int>(i)));
        else
            fmt::print("{},{}", x, y);
        fmt::print(",{},{},{}\n", number_text(static_cast<double>(pixel[0]), 9),
                   number_text(static_cast<double>(pixel[1]), 9), number_text(static_cast<double>(pixel[2]), 9));
    }
}

int run(const Options& options) {
    if (options.name.empty() && options.json) {
        Json all = Json::array();
        for (const targets::Target* target : targets::all())
            all.push_back(json_of(*target));
        return print_json({{"targets", all}});
    }
    if (options.name.empty()) {
        for (const targets::Target* target : targets::all())
            describe(*target);
        return Exit::good;
    }
    const targets::Target* target = targets::find(options.name);
    if (!target) {
        std::vector<std::string> names;
        for (const targets::Target* each : targets::all())
            names.emplace_back(each->name);
        const std::optional<std::string> near = did_you_mean(options.name, names);
        return wrong(options.name, "there is no such target",
                     near ? fmt::format("did you mean {}?", *near) : "kasuri-cli target lists them");
    }
    const auto set =
        read_settings(target->settings, options.settings, fmt::format("kasuri-cli target {}", target->name));
    if (!set)
        return Exit::usage;
    if (options.print && options.json)
        return refuse(Exit::usage, "--print writes CSV, --json writes JSON: give one of them");
    Json told = {{"targets", Json::array({json_of(*target)})}};
    if (options.out.empty() && options.json)
        return print_json(told);
    if (options.out.empty() && !options.print) {
        describe(*target);
        return Exit::good;
    }
    const int width = options.width > 0 ? options.width : target->shape == targets::Shape::strip ? 1024 : 0;
    const image::Picture picture = targets::make(*target, width, *set);
    if (options.print)
        print_numbers(*target, picture, *set);
    if (options.out.empty())
        return Exit::good;
    image::Image image = image::image_of(picture);
    const auto saved = io::save(options.out, image);
    if (!saved)
        return complain(saved.error());
    for (const std::string& note : saved.value().notes)
        say_note("", note);
    if (saved.value().clipped > 0)
        say_note("", fmt::format("{} values outside 0 .. 1 were clipped; EXR keeps them", saved.value().clipped));
    if (options.json) {
        told.update({{"file", options.out}, {"width", image.width}, {"height", image.height}});
        return print_json(told);
    }
    fmt::print("{}: {} x {}, {}\n", options.out, image.width, image.height, image.space);
    return Exit::good;
}

} // namespace

extern const Command target_command;
const Command target_command = {
    "target", "List the generated targets, tell one's settings, print its numbers or write it as a picture",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        arguments.value("NAME", options->name, "A target; none: all are listed").completes(Completes::target);
        arguments.value("-o,--out", options->out, "Picture file to write (.exr .tif .png)").completes(Completes::file);
        arguments.value("--width", options->width, "Pixels across (strips, fields)").between(1, 32768);
        arguments.value("--set", options->settings, "A setting: name=number").completes(Completes::target_setting);
        arguments.flag("--print", options->print, "Print the numbers as CSV");
        define_json(arguments, options->json, {answer});
        return [options] { return run(*options); };
    },
    "targets"};

} // namespace kasuri::cli
