#include "fit/family.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace kasuri::fit {
namespace {

bool is_name(char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; }

/// The name behind a $ at `at`.
std::string_view name_at(std::string_view text, std::size_t at) {
    std::size_t end = at + 1;
    while (end < text.size() && is_name(text[end]))
        ++end;
    return text.substr(at + 1, end - at - 1);
}

std::size_t index_of(const Form& form, std::string_view name) {
    const auto found =
        std::find_if(form.values.begin(), form.values.end(), [&](const Value& v) { return v.name == name; });
    return static_cast<std::size_t>(found - form.values.begin());
}

/// Up to ten decimals, no more than it has: sums of such numbers are such numbers.
std::string shown(double value) {
    std::string text = fmt::format("{:.10f}", value);
    text.erase(text.find_last_not_of('0') + 1);
    if (text.back() == '.')
        text.pop_back();
    return text == "-0" ? "0" : text;
}

/// "1 - $a - $b" with numbers in place, as one number.
std::string summed(std::string_view sum, const Form& form, std::span<const double> values) {
    double total = 0, sign = 1;
    for (std::size_t at = 0; at < sum.size();) {
        if (sum[at] == '+' || sum[at] == '-') {
            sign = sum[at++] == '-' ? -1 : 1;
        } else if (sum[at] == '$') {
            const std::string_view name = name_at(sum, at);
            total += sign * values[index_of(form, name)];
            at += name.size() + 1;
        } else if (std::isdigit(static_cast<unsigned char>(sum[at]))) {
            double number = 0;
            const auto read = std::from_chars(sum.data() + at, sum.data() + sum.size(), number);
            total += sign * number;
            at = static_cast<std::size_t>(read.ptr - sum.data());
        } else {
            ++at;
        }
    }
    return shown(total);
}

std::string parameter_line(const Value& value, double number) {
    return fmt::format("param {} = {} in {} .. {}{}\n", value.name, shown(number), shown(std::min(value.low, number)),
                       shown(std::max(value.high, number)),
                       value.description.empty() ? "" : fmt::format("  \"{}\"", value.description));
}

} // namespace

std::string open_text(const Form& form) {
    std::string made;
    for (const Value& value : form.values)
        made += parameter_line(value, value.start);
    for (const char c : form.text)
        if (c == '[' || c == ']')
            made += c == '[' ? '(' : ')';
        else if (c != '$')
            made += c;
    return made;
}

std::string closed_text(const Form& form, std::span<const double> values) {
    std::string made;
    for (std::size_t i = 0; i < form.values.size(); ++i)
        if (form.values[i].parameter)
            made += parameter_line(form.values[i], values[i]);
    const std::string_view text = form.text;
    for (std::size_t at = 0; at < text.size();) {
        if (text[at] == '[') {
            const std::size_t end = text.find(']', at);
            made += summed(text.substr(at + 1, end - at - 1), form, values);
            at = end + 1;
        } else if (text[at] == '$') {
            const std::string_view name = name_at(text, at);
            const std::size_t i = index_of(form, name);
            made += form.values[i].parameter ? form.values[i].name : shown(values[i]);
            at += name.size() + 1;
        } else {
            made += text[at++];
        }
    }
    return made;
}

std::string matrix_text(Form& form, const std::string& before, const std::string& suffix, bool balanced) {
    constexpr char names[] = {'r', 'g', 'b'};
    const std::string indent(before.size() + 5, ' ');
    std::string made = before + "mat3(";
    for (std::size_t o = 0; o < 3; ++o) {
        std::string others;
        std::vector<std::string> row(3);
        for (std::size_t i = 0; i < 3; ++i) {
            const std::string name = fmt::format("{}_from_{}{}", names[o], names[i], suffix);
            if (balanced && i == o)
                continue;
            form.values.push_back({name, i == o ? 1.0 : 0.0, i == o ? 0.6 : -0.3, i == o ? 1.4 : 0.3, false, {}});
            row[i] = "$" + name;
            others += " - $" + name;
        }
        if (balanced)
            row[o] = "[1" + others + "]";
        made += fmt::format("{}{}, {}, {}{}", o == 0 ? "" : indent, row[0], row[1], row[2], o == 2 ? ")" : ",\n");
    }
    return made;
}

std::string curve_text(Form& form, const std::string& argument, const std::string& name, int knots,
                       const Range& range) {
    std::string made = "curve(" + argument;
    for (int k = 0; k < knots; ++k) {
        const double x = range.low + (range.high - range.low) * k / (knots - 1);
        const double room = 0.35 * (range.high - range.low) / (knots - 1);
        const std::string value = fmt::format("{}_{}", name, k);
        form.values.push_back({value, x, x - room, x + room, false, {}});
        made += fmt::format(", vec2({}, ${})", shown(x), value);
    }
    return made + ")";
}

} // namespace kasuri::fit
