#include "eval_table.hpp"

#include "base/text.hpp"
#include "command.hpp"
#include "lang/rule.hpp"
#include "messages.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>
#include <istream>

namespace kasuri::cli {

std::optional<Columns> columns_of(const std::string& text) {
    Columns columns;
    columns.named = !text.empty();
    for (const std::string_view part : split(columns.named ? std::string_view(text) : "r,g,b,a", ',')) {
        const std::string name(trimmed(part));
        constexpr std::string_view colours = "rgba";
        const std::size_t dot = name.find('.');
        const bool component =
            dot != std::string::npos && dot + 2 == name.size() && colours.find(name[dot + 1]) != std::string_view::npos;
        const std::string plain = component ? name.substr(0, dot) : name;
        const bool word = !plain.empty() && (std::isalpha(static_cast<unsigned char>(plain[0])) || plain[0] == '_') &&
            std::all_of(plain.begin(), plain.end(),
                        [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; });
        const bool taken = std::find(columns.names.begin(), columns.names.end(), name) != columns.names.end();
        const auto inputs = lang::input_table();
        const bool colour = name.size() == 1 && colours.find(name) != std::string_view::npos;
        const bool reserved = name == "out" ||
            (!colour && !component &&
             std::any_of(inputs.begin(), inputs.end(), [&](const lang::InputRow& i) { return i.name == name; }));
        if (!word || taken || reserved) {
            refuse(Exit::usage, "--columns: {} {}", name.empty() ? "an empty name" : name,
                   taken          ? "comes twice"
                       : reserved ? "has a fixed meaning"
                                  : "is not a name");
            return std::nullopt;
        }
        columns.names.push_back(name);
        if (colour) {
            columns.places.push_back(colours.find(name));
        } else {
            columns.places.push_back(4 + columns.further.size());
            columns.further.push_back(name);
        }
    }
    return columns;
}

namespace {

std::string_view unquoted(std::string_view text) {
    text = trimmed(text);
    return text.size() >= 2 && text.front() == '"' && text.back() == '"' ? trimmed(text.substr(1, text.size() - 2))
                                                                         : text;
}

/// Whether the parts are the names of the columns.
bool is_heading(const std::vector<std::string_view>& parts, const Columns& columns) {
    const std::size_t count = columns.names.size();
    if (parts.size() != count && !(!columns.named && parts.size() == 3))
        return false;
    for (std::size_t i = 0; i < parts.size(); ++i)
        if (unquoted(parts[i]) != columns.names[i])
            return false;
    return true;
}

} // namespace

std::optional<Table> read_table(std::istream& in, const Columns& columns) {
    Table table;
    std::string line;
    const std::size_t count = columns.names.size();
    const std::string expected = columns.named ? fmt::format("{}", fmt::join(columns.names, ",")) : "r,g,b or r,g,b,a";
    for (int number = 1; std::getline(in, line); ++number) {
        if (number == 1 && line.starts_with("\xef\xbb\xbf"))
            line.erase(0, 3);
        const std::string_view content = trimmed(line);
        if (content.empty() || content.front() == '#')
            continue;
        const auto parts = split(content, ',');
        if (table.lines.empty() && is_heading(parts, columns))
            continue;
        if (parts.size() != count && !(!columns.named && parts.size() == 3)) {
            complain({fmt::format("{} columns; expected {}", parts.size(), expected),
                      fmt::format("standard input:{}:1", number), ""});
            return std::nullopt;
        }
        std::vector<double> values(4 + columns.further.size());
        values[3] = 1;
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const std::optional<double> value = parse_number(unquoted(parts[i]));
            if (!value) {
                complain({fmt::format("{} is not a number", parts[i].empty() ? "nothing" : std::string(parts[i])),
                          fmt::format("standard input:{}:{}", number, parts[i].data() - line.data() + 1), ""});
                return std::nullopt;
            }
            values[columns.places[i]] = *value;
        }
        table.widths.push_back(
            columns.named
                ? (std::find(columns.names.begin(), columns.names.end(), "a") != columns.names.end() ? 4u : 3u)
                : parts.size());
        table.lines.push_back(std::move(values));
    }
    return table;
}

} // namespace kasuri::cli
