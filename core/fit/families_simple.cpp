#include "fit/families.hpp"

namespace kasuri::fit {
namespace {

constexpr auto as_they_are = Family::Spaces::as_they_are;
constexpr char own[] = "common practice, no source";

Form identity(const Family&, const Range&) { return {}; }

Form gain(const Family&, const Range&) {
    return {"out.rgb = rgb * $gain\n", {{"gain", 1, 0.4, 1.6, true, "How much of it"}}};
}

Form gain_offset(const Family&, const Range&) {
    return {
        "out.rgb = rgb * $gain + $lift\n",
        {{"gain", 1, 0.4, 1.6, true, "Scales all channels"}, {"lift", 0, -0.2, 0.2, true, "Added to all channels"}}};
}

Form gain_offset_power(const Family&, const Range&) {
    return {"out.rgb = spow(rgb * $gain + $lift, $power)\n",
            {{"gain", 1, 0.6, 1.4, true, "Scales all channels"},
             {"lift", 0, 0, 0.2, true, "Added to all channels"},
             {"power", 1, 0.5, 2, true, "Then raised to this power"}},
            {{0.9, 0.05, 1}}};
}

Form channel_gains(const Family&, const Range&) {
    return {"out.rgb = rgb * vec3($red, $green, $blue)\n",
            {{"red", 1, 0.5, 1.5, true, "Scales red"},
             {"green", 1, 0.5, 1.5, true, "Scales green"},
             {"blue", 1, 0.5, 1.5, true, "Scales blue"}}};
}

constexpr char slope_offset[] = "rgb * vec3($slope_r, $slope_g, $slope_b) + vec3($offset_r, $offset_g, $offset_b)";

std::vector<Value> slopes_and_offsets(double lowest_offset) {
    return {{"slope_r", 1, 0.6, 1.4, false, {}},
            {"slope_g", 1, 0.6, 1.4, false, {}},
            {"slope_b", 1, 0.6, 1.4, false, {}},
            {"offset_r", 0, lowest_offset, 0.2, false, {}},
            {"offset_g", 0, lowest_offset, 0.2, false, {}},
            {"offset_b", 0, lowest_offset, 0.2, false, {}}};
}

void add_powers(Form& form) {
    for (const char* name : {"power_r", "power_g", "power_b"})
        form.values.push_back({name, 1, 0.6, 1.8, false, {}});
}

Form channel_gains_offsets(const Family&, const Range&) {
    return {std::string("out.rgb = ") + slope_offset + "\n", slopes_and_offsets(-0.2)};
}

Form channel_powers(const Family&, const Range&) {
    Form form{std::string("out.rgb = spow(") + slope_offset + ", vec3($power_r, $power_g, $power_b))\n",
              slopes_and_offsets(0)};
    add_powers(form);
    form.more_starts = {{0.9, 0.9, 0.9, 0.05, 0.05, 0.05, 1, 1, 1}};
    return form;
}

/// The luma weights are those of the standard, in whatever space: they are a part of it.
Form decision_list(const Family&, const Range&) {
    Form form{std::string("let graded = spow(") + slope_offset +
                  ", vec3($power_r, $power_g, $power_b))\n"
                  "let grey = vec3(mono(graded, vec3(0.2126, 0.7152, 0.0722)))\n"
                  "out.rgb = mix(grey, graded, $saturation)\n",
              slopes_and_offsets(0)};
    add_powers(form);
    form.values.push_back({"saturation", 1, 0.4, 1.6, false, {}});
    form.more_starts = {{0.9, 0.9, 0.9, 0.05, 0.05, 0.05, 1, 1, 1, 1}};
    return form;
}

Form mono(const Family&, const Range&) {
    return {"out.rgb = dot(rgb, vec3($red, $green, $blue))\n",
            {{"red", 0.3, 0.1, 0.6, true, "Red in the grey"},
             {"green", 0.4, 0.1, 0.6, true, "Green in the grey"},
             {"blue", 0.3, 0.1, 0.6, true, "Blue in the grey"}}};
}

} // namespace

void add_simple(std::vector<Family>& table) {
    table.push_back({"identity", "nothing changes", "What goes in comes out.", own, identity, as_they_are});
    table.push_back({"gain", "one gain", "All channels by one number.", own, gain});
    table.push_back({"gain-offset", "gain and offset", "All channels by one number, and one added.", own, gain_offset});
    table.push_back({"gain-offset-power", "gain, offset and power",
                     "One of each for all channels; powers mirror below 0.", own, gain_offset_power, as_they_are});
    table.push_back({"channel-gains", "a gain for each channel", "A diagonal matrix.", own, channel_gains});
    table.push_back({"mono", "weights to mono", "One grey of the three channels.", own, mono});
    table.push_back({"channel-gains-offsets", "gain and offset for each channel", "A diagonal matrix and an offset.",
                     own, channel_gains_offsets});
    table.push_back({"channel-powers", "gain, offset and power for each channel",
                     "Slope, offset and power of a colour decision list, unclamped.", "ASC CDL 1.2 (from memory)",
                     channel_powers, as_they_are});
    table.push_back({"cdl", "colour decision list", "Slope, offset, power and saturation about BT.709 luma, unclamped.",
                     "ASC CDL 1.2 (from memory)", decision_list, as_they_are});
}

} // namespace kasuri::fit
