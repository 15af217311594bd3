#include "builtins/curve.hpp"

#include "builtins/builtin.hpp"

#include <algorithm>
#include <cmath>

namespace kasuri::builtins {
namespace {

const Builtin* row_of(std::string_view name, std::size_t& argument) {
    for (const Builtin& row : all()) {
        if (row.name != name || row.form != Form::componentwise || row.variadic || row.cases.empty())
            continue;
        const auto found = std::find(row.parameters.begin(), row.parameters.end(), "x");
        if (found == row.parameters.end())
            continue;
        argument = static_cast<std::size_t>(found - row.parameters.begin());
        return &row;
    }
    return nullptr;
}

} // namespace

std::vector<std::vector<std::array<double, 2>>> curve_of(std::string_view name, double low, double high, int steps) {
    std::vector<std::vector<std::array<double, 2>>> lines;
    std::size_t argument = 0;
    const Builtin* row = row_of(name, argument);
    if (!row || row->cases.front().arguments.size() <= argument)
        return lines;
    std::vector<double> arguments = row->cases.front().arguments;
    bool drawing = false;
    double last = 0;
    for (int i = 0; i <= steps; ++i) {
        const double x = low + (high - low) * i / steps;
        arguments[argument] = x;
        const double y = row->reference(arguments.data());
        if (!std::isfinite(y)) {
            drawing = false;
            continue;
        }
        const bool jump = drawing && std::fabs(y - last) > 0.2 * (high - low);
        if (!drawing || jump)
            lines.emplace_back();
        lines.back().push_back({x, y});
        drawing = true;
        last = y;
    }
    return lines;
}

} // namespace kasuri::builtins
