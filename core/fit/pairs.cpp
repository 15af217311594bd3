#include "fit/pairs.hpp"

#include "base/said.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "fit/model.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <unordered_map>

namespace kasuri::fit {
namespace {

bool is_finite(const std::array<float, 4>& colour) {
    return std::isfinite(colour[0]) && std::isfinite(colour[1]) && std::isfinite(colour[2]);
}

bool is_at_an_end(const std::array<float, 4>& colour, double unsure) {
    const auto low = static_cast<float>(unsure), high = static_cast<float>(1 - unsure);
    return std::any_of(colour.begin(), colour.begin() + 3, [&](float x) { return x <= low || x >= high; });
}

std::vector<std::string_view> cells_of(std::string_view line) {
    std::vector<std::string_view> cells;
    for (std::size_t at = 0; at < line.size();) {
        const std::size_t begin = line.find_first_not_of(",; \t\r", at);
        if (begin == std::string_view::npos)
            break;
        const std::size_t end = std::min(line.find_first_of(",; \t\r", begin), line.size());
        cells.push_back(line.substr(begin, end - begin));
        at = end;
    }
    return cells;
}

std::optional<std::vector<float>> numbers_of(const std::vector<std::string_view>& cells) {
    std::vector<float> numbers;
    for (const std::string_view cell : cells) {
        float number = 0;
        const auto read = std::from_chars(cell.data(), cell.data() + cell.size(), number);
        if (read.ec != std::errc() || read.ptr != cell.data() + cell.size() || !std::isfinite(number))
            return std::nullopt;
        numbers.push_back(number);
    }
    return numbers;
}

/// Deviation of the noise of a picture: of second differences along rows, whose deviation is sqrt(6) times as large, by
/// their median, so that edges do not count (common practice, no source).
double noise_of(const image::Picture& picture) {
    constexpr std::size_t most = 200'000;
    std::vector<float> found;
    const auto width = static_cast<std::size_t>(picture.width);
    const std::size_t every = std::max<std::size_t>(1, 3 * picture.pixels() / most);
    for (std::size_t c = 0; c < 3; ++c)
        for (std::size_t i = 1; i + 1 < picture.pixels(); i += every) {
            const auto& x = *picture.planes[c];
            if (i % width == 0 || i % width == width - 1)
                continue;
            if (const float d = std::fabs(x[i - 1] - 2 * x[i] + x[i + 1]); std::isfinite(d))
                found.push_back(d);
        }
    if (found.empty())
        return 0;
    const auto middle = found.begin() + static_cast<std::ptrdiff_t>(found.size() / 2);
    std::nth_element(found.begin(), middle, found.end());
    return static_cast<double>(*middle) * 1.4826 / std::sqrt(6.0);
}

/// How much the pixels two to the right, to the left, above and below differ from one, in the channel that differs
/// most; of light as a share of it (`share_of`).
float edge_at(const image::Picture& picture, std::size_t i, float share) {
    constexpr int reach = 2;
    const int x = static_cast<int>(i % static_cast<std::size_t>(picture.width)),
              y = static_cast<int>(i / static_cast<std::size_t>(picture.width));
    float most = 0;
    for (const auto& [dx, dy] :
         {std::pair{-reach, 0}, std::pair{reach, 0}, std::pair{0, -reach}, std::pair{0, reach}}) {
        const int u = std::clamp(x + dx, 0, picture.width - 1), v = std::clamp(y + dy, 0, picture.height - 1);
        const std::size_t other =
            static_cast<std::size_t>(v) * static_cast<std::size_t>(picture.width) + static_cast<std::size_t>(u);
        for (std::size_t c = 0; c < 3; ++c)
            most = std::max(most, std::fabs((*picture.planes[c])[i] - (*picture.planes[c])[other]));
    }
    return most * share;
}

/// Of light, differences count as shares of it: those of highlights are large, and invisible.
float share_of(const std::array<float, 4>& colour, bool light) {
    constexpr float grey = 0.18F;
    return light ? grey / (grey + std::max(0.0F, (colour[0] + colour[1] + colour[2]) / 3)) : 1;
}

} // namespace

void Pairs::add(const std::array<float, 3>& before, const std::array<float, 3>& after, float weight) {
    for (std::size_t c = 0; c < 3; ++c) {
        from[c].push_back(before[c]);
        to[c].push_back(after[c]);
    }
    if (weights.empty() && weight == 1)
        return;
    weights.resize(size() - 1, 1);
    weights.push_back(weight);
}

Result<Pairs> pairs_of(const subject::Subject& subject, int points, double low, double high,
                       const CancelToken& cancel) {
    const engine::ProgramPtr program = subject.program({}, {}, {}, true, &cancel);
    if (!program)
        return Error{"called off", "", ""};
    if (program->reads_position() || program->reads_neighbours() || program->reads_sources())
        return Error{"is more than a function of a colour: it reads the place, neighbours or other pictures",
                     subject.title(), "Give two pictures, before and after."};
    Pairs pairs;
    pairs.title = subject.title();
    pairs.space = subject.space();
    const auto n = static_cast<std::size_t>(points);
    for (auto& plane : pairs.from)
        plane.resize(n * n * n);
    const auto at = [&](std::size_t i) {
        return static_cast<float>(low + (high - low) * static_cast<double>(i) / static_cast<double>(n - 1));
    };
    for (std::size_t i = 0; i < n * n * n; ++i) {
        pairs.from[0][i] = at(i % n);
        pairs.from[1][i] = at(i / n % n);
        pairs.from[2][i] = at(i / n / n);
    }
    if (!run(*program, subject.values(), pairs.from, pairs.to, cancel))
        return Error{"called off", "", ""};
    for (const auto& plane : pairs.to)
        if (std::any_of(plane.begin(), plane.end(), [](float x) { return !std::isfinite(x); }))
            return Error{"makes something of a colour that is no number", subject.title(),
                         "Mend that first: `kasuri-cli check` shows where."};
    return pairs;
}

Result<PicturePairs> pairs_of(const image::Picture& given_before, const image::Picture& given_after,
                              double unsure_ends) {
    const image::Picture before = image::as_floats(given_before), after = image::as_floats(given_after);
    if (before.width != after.width || before.height != after.height)
        return Error{
            said("one is {} x {} pixels, the other {} x {}", before.width, before.height, after.width, after.height),
            "", "Give two pictures of one size, or two of the same thing, which are brought over each other."};
    if (before.space != after.space)
        return Error{said("the numbers of one are {}, of the other {}", before.space, after.space), "",
                     "Say with --in-space what both are."};
    constexpr std::size_t most_of_a_cell = 12, most = 16384, enough = 1024;
    constexpr int cells = 24;
    PicturePairs made;
    made.pairs.noisy = true;
    made.pairs.space = before.space;
    made.pairs.noise = noise_of(after);
    made.pixels = before.pixels();
    // Cells as the eye parts colours, or nearly: those of light get wider as it gets brighter, without end.
    const colour::Space* known = colour::find_space(before.space);
    const bool light = known && colour::is_linear(*known);
    const auto cell_of = [&](float x) {
        return static_cast<int>(std::floor(cells * (light ? std::asinh(8 * x) / std::asinh(8.0F) : x)));
    };
    // A walk that meets every pixel once, all over the picture: its step has no factor in common with their number.
    std::size_t step =
        std::max<std::size_t>(1, static_cast<std::size_t>(0.6180339887 * static_cast<double>(made.pixels)));
    const auto common = [](std::size_t a, std::size_t b) {
        while (b != 0)
            std::swap(a %= b, b);
        return a;
    };
    while (common(step, made.pixels) != 1)
        ++step;
    // Of each cell the pixels with the flattest surroundings: beside an edge, a compressed, sharpened or shifted
    // picture says something of its neighbours.
    struct Met {
        float edge;
        std::size_t turn, pixel;
        bool operator<(const Met& other) const { return edge < other.edge; }
    };
    std::unordered_map<std::int64_t, std::vector<Met>> met; // each a heap, the steepest on top
    std::size_t i = 0;
    for (std::size_t k = 0; k < made.pixels; ++k, i = (i + step) % made.pixels) {
        const auto a = before.at(i), b = after.at(i);
        if (!is_finite(a) || !is_finite(b)) {
            ++made.not_finite;
            continue;
        }
        if (unsure_ends > 0 && (is_at_an_end(a, unsure_ends) || is_at_an_end(b, unsure_ends))) {
            ++made.clipped;
            continue;
        }
        std::int64_t cell = 0;
        for (std::size_t c = 0; c < 3; ++c)
            cell = cell * 100'000 + cell_of(a[c]);
        std::vector<Met>& kept = met[cell];
        const float edge = edge_at(before, i, share_of(a, light));
        if (kept.size() == most_of_a_cell) {
            if (!(edge < kept.front().edge))
                continue;
            std::pop_heap(kept.begin(), kept.end());
            kept.pop_back();
        }
        kept.push_back({edge, k, i});
        std::push_heap(kept.begin(), kept.end());
    }
    std::vector<Met> all;
    for (const auto& [cell, kept] : met)
        all.insert(all.end(), kept.begin(), kept.end());
    // Beside an edge a compressed, sharpened or shifted picture says something of its neighbours: as long as there are
    // enough others, such pixels are left out, beyond what noise alone makes of a flat place.
    const auto flat = static_cast<float>(0.03 + 6 * noise_of(before));
    std::sort(all.begin(), all.end());
    const auto first_steep = std::find_if(all.begin(), all.end(), [&](const Met& m) { return m.edge > flat; });
    const auto end = std::max(first_steep, all.begin() + static_cast<std::ptrdiff_t>(std::min(all.size(), enough)));
    made.at_edges = static_cast<std::size_t>(all.end() - end);
    all.erase(end, all.end());
    std::sort(all.begin(), all.end(), [](const Met& a, const Met& b) { return a.turn < b.turn; });
    all.resize(std::min(all.size(), most));
    for (const Met& each : all) {
        const auto a = before.at(each.pixel), b = after.at(each.pixel);
        const float share = share_of(a, light);
        made.pairs.add({a[0], a[1], a[2]}, {b[0], b[1], b[2]}, share * share);
    }
    if (made.pairs.size() == 0)
        return Error{"no pixel can be used: all are clipped, or are no numbers", "",
                     "Give pictures that are exposed between black and white."};
    return made;
}

Result<Pairs> pairs_of(std::string_view table, const std::string& where) {
    Pairs pairs;
    pairs.title = where;
    pairs.noisy = true;
    std::size_t number = 0;
    for (std::size_t at = 0; at < table.size();) {
        const std::size_t end = std::min(table.find('\n', at), table.size());
        const std::string_view line = table.substr(at, end - at);
        at = end + 1;
        ++number;
        const auto cells = cells_of(line);
        if (cells.empty() || cells.front().starts_with('#'))
            continue;
        const auto numbers = numbers_of(cells);
        if (!numbers && pairs.size() == 0 && number == 1)
            continue; // names of the columns
        if (!numbers || (numbers->size() != 6 && numbers->size() != 7) ||
            (numbers->size() == 7 && !(numbers->back() > 0)))
            return Error{said("line {} is not six numbers, or six and a weight above 0", number), where,
                         "Write r, g, b before and r, g, b after in each line, parted by commas."};
        const auto& n = *numbers;
        pairs.add({n[0], n[1], n[2]}, {n[3], n[4], n[5]}, n.size() == 7 ? n[6] : 1);
    }
    if (pairs.size() == 0)
        return Error{"has no colours in it", where,
                     "Write r, g, b before and r, g, b after in each line, parted by commas."};
    return pairs;
}

} // namespace kasuri::fit
