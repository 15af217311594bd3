#include "readings/apart.hpp"

#include "builtins/builtin.hpp"
#include "engine/lower.hpp"
#include "engine/sources.hpp"
#include "lang/check.hpp"
#include "readings/view.hpp"

#include <algorithm>
#include <cmath>
#include <memory>
#include <numeric>
#include <vector>

namespace kasuri::readings {

std::optional<Apart> seen_apart(const image::Picture& first, const image::Picture& second, const CancelToken& cancel) {
    if (first.width != second.width || first.height != second.height)
        return std::nullopt;
    lang::CheckOptions with;
    with.print = "delta_e_2000(lab(rgb), lab(second.rgb))";
    const lang::Checked checked = lang::check("source second : vec4", builtins::vocabulary(), with);
    engine::CompileOptions options;
    options.print = true;
    options.in_space = first.space;
    options.source_spaces = {second.space};
    const std::shared_ptr<const image::Picture> other[] = {std::make_shared<const image::Picture>(second)};
    const std::optional<image::Picture> made = numbers_of(*engine::compile(checked.rule, options), first, {},
                                                          engine::bind_sources(checked.rule, other).planes, cancel);
    if (!made)
        return std::nullopt;
    std::vector<float> values(made->planes[0]->begin(), made->planes[0]->end());
    std::erase_if(values, [](float value) { return !std::isfinite(value); });
    if (values.empty())
        return std::nullopt;
    Apart apart;
    apart.pixels = values.size();
    apart.mean = std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
    const std::size_t high = std::min(values.size() - 1, values.size() * 999 / 1000);
    const auto at = values.begin() + static_cast<std::ptrdiff_t>(high);
    std::nth_element(values.begin(), at, values.end());
    apart.most = static_cast<double>(*at);
    apart.largest = static_cast<double>(*std::max_element(at, values.end()));
    return apart;
}

} // namespace kasuri::readings
