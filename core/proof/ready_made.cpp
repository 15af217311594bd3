#include "proof/ready_made.hpp"

#include "base/text.hpp"
#include "proof/proof.hpp"

#include <fmt/format.h>

namespace kasuri::proof {
namespace {

std::vector<ReadyMade> table() {
    std::vector<ReadyMade> rows;
    for (const Function* function : functions())
        if (function->compares)
            rows.push_back({std::string(function->title), std::string(function->doc),
                            fmt::format("proof \"{}\" : {} \"$other.kasuri\" < {}", function->title, function->name,
                                        number_text(function->limit, 6))});
        else if (function->of_colours)
            rows.push_back({std::string(function->title), std::string(function->doc),
                            fmt::format("proof \"{}\" on ($0.65, 0.2, 0.15), (0.25, 0.4, 0.15) : {} > {}",
                                        function->title, function->name, number_text(function->limit, 6))});
        else
            rows.push_back({std::string(function->title), std::string(function->doc),
                            function->limit > 0 ? fmt::format("proof \"{}\" : {} < ${}", function->title,
                                                              function->name, number_text(function->limit, 6))
                                                : fmt::format("proof \"{}\" : {}$", function->title, function->name)});
    const auto add = [&](std::string title, std::string doc, const std::string& rest) {
        rows.push_back({title, std::move(doc), fmt::format("proof \"{}\" {}", title, rest)});
    };
    add("this colour keeps its hue", "The hue of one colour, in CIE LCh, moves by less than a degree.",
        "on ($0.72, 0.49, 0.4) : abs(turn_between(lch(rgb).h, lch(out.rgb).h)) < 1");
    add("this colour stays", "One colour moves by less than 1 in CIEDE2000.",
        "on ($0.72, 0.49, 0.4) : delta_e_2000(lab(rgb), lab(out.rgb)) < 1");
    add("this colour lands there", "One colour comes to lie within 1 (CIEDE2000) of another.",
        "on ($0.72, 0.49, 0.4) : delta_e_2000(lab(out.rgb), lab(vec3(0.7, 0.5, 0.4))) < 1");
    add("only these hues change", "Outside of a band of hues nothing moves by more than 0.5 in CIEDE2000.",
        "on hue_sweep : band(lch(rgb).h, $40, 60, 20) > 0 || delta_e_2000(lab(rgb), lab(out.rgb)) < 0.5");
    add("stays inside BT.2020", "What is inside of the space stays there: how far outside, in its linear numbers.",
        "on hue_sweep : outside_rec2020_linear(out.rgb) < $0.02");
    add("nothing gets darker", "No channel of any colour falls.", ": out.r >= r$ && out.g >= g && out.b >= b");
    add("alpha stays", "Alpha comes out as it went in.", ": out.a == a$");
    return rows;
}

} // namespace

std::span<const ReadyMade> ready_made() {
    static const std::vector<ReadyMade> rows = table();
    return rows;
}

} // namespace kasuri::proof
