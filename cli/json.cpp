#include "json.hpp"

#include "base/text.hpp"
#include "command.hpp"

#include <cmath>
#include <cstdio>

namespace kasuri::cli {

void define_json(Arguments& arguments, bool& wanted, const std::string& what) {
    arguments.flag("--json", wanted, what);
}

Json json_number(double value) { return std::isfinite(value) ? Json(value) : Json(number_text(value, 3)); }

Json json_numbers(std::span<const double> values) {
    Json all = Json::array();
    for (const double value : values)
        all.push_back(json_number(value));
    return all;
}

Json json_numbers(std::span<const float> values) {
    Json all = Json::array();
    for (const float value : values)
        all.push_back(std::isfinite(value) ? Json(value) : json_number(static_cast<double>(value)));
    return all;
}

Json json_settings(std::span<const Setting> settings) {
    Json all = Json::array();
    for (const Setting& setting : settings) {
        Json made = {{"name", setting.name}, {"doc", setting.doc}};
        if (setting.choices.empty()) {
            made["usual"] = json_number(setting.value);
            made["low"] = json_number(setting.low);
            made["high"] = json_number(setting.high);
        } else {
            made["usual"] = setting.choices[static_cast<std::size_t>(setting.value)];
            made["choices"] = setting.choices;
        }
        all.push_back(made);
    }
    return all;
}

int print_json(const Json& value, int exit) {
    const std::string text = value.dump(-1, ' ', false, Json::error_handler_t::replace) + "\n";
    std::fwrite(text.data(), 1, text.size(), stdout);
    return std::fflush(stdout) == 0 ? exit : static_cast<int>(Exit::input_output);
}

} // namespace kasuri::cli
