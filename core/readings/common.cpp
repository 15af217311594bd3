#include "readings/common.hpp"

#include "base/text.hpp"
#include "colour/primaries.hpp"
#include "colour/space.hpp"

namespace kasuri::readings {
namespace {
constexpr int plane_cells = 360;
// Diffuse white is 203 cd/m2 (ITU-R BT.2408-7); middle grey 0.18: common practice, no source.
constexpr Unit table[] = {
    {"numbers", "value", "", "rgb", -0.25, 1.25},
    {"signal", "signal of the reference display", "rec709-display", "rgb", -0.1, 1.1},
    {"nits", "cd/m\u00b2, diffuse white 203", "rec709-linear", "203 * rgb", 0, 1000},
    {"stops", "stops about 0.18", "rec709-linear", "log2(rgb / 0.18)", -8, 6},
};
static_assert(colour::diffuse_white == 203);

class PlaneCounting final : public Counting {
public:
    PlaneCounting(const Order& order, const Looked& looked, const Axis& x, const Axis& y, std::string_view name)
        : Counting(looked), views_(*order.views), name_(name),
          counters_([across = scopes::Bins{x.low, x.high, plane_cells}, up = scopes::Bins{y.low, y.high, plane_cells}] {
              return scopes::PlaneCounter(across, up);
          }) {}

    void add(const Band& band) override { counters_.own().add(band.components[0], band.components[1]); }
    void end(const image::Picture& picture) override {
        if (picture.pixels() > max_spots)
            return;
        const image::Picture chart = image::in_memory(picture);
        const auto planes = *views_.look(chart, looked().working, looked().expression);
        for (std::size_t i = 0; i < chart.pixels(); ++i)
            spots_.spots.push_back({{(*planes[0])[i], (*planes[1])[i]}, light_of(chart, i), {}});
    }
    Measured told() override {
        scopes::Counts counts(static_cast<std::size_t>(plane_cells) * plane_cells);
        counters_.for_each([&](const scopes::PlaneCounter& own) { own.tell(counts); });
        Measured measured;
        tell_outside(measured, "", counts);
        measured.layers.push_back({0, Density{Ink::neutral, name_, plane_cells, plane_cells, std::move(counts.bins)}});
        spots_.name = name_;
        if (!spots_.spots.empty())
            measured.layers.push_back({0, std::move(spots_)});
        return measured;
    }

private:
    Views& views_;
    std::string name_;
    PerThread<scopes::PlaneCounter> counters_;
    Spots spots_{};
};

} // namespace

const std::array<std::string_view, 4> unit_names = {table[0].name, table[1].name, table[2].name, table[3].name};

std::span<const Unit> units() { return table; }

std::array<double, 2> range_of(const Unit& unit, double low, double high) {
    return low < high ? std::array{low, high} : std::array{unit.low, unit.high};
}

std::optional<std::array<image::Plane, 4>> in_unit(const Order& order, const image::Picture& picture,
                                                   const Unit& unit) {
    if (unit.working.empty())
        return picture.planes;
    return order.views->look(picture, unit.working, unit.expression, order.cancel);
}

Looked looked_at(const Unit& unit) { return unit.working.empty() ? Looked{} : Looked{unit.working, unit.expression}; }

void tell_outside(Measured& measured, std::string_view name, const scopes::Counts& counts) {
    const auto total = static_cast<double>(counts.total());
    const auto tell = [&](const char* where, std::uint64_t count) {
        if (count > 0)
            measured.figures.push_back({where, std::string(name), 100 * static_cast<double>(count) / total, "%"});
    };
    tell("below the range", counts.below);
    tell("above the range", counts.above);
    tell("NaN", counts.nan);
}

std::vector<std::string> figure_names() {
    std::vector<std::string> names = {"below the range", "above the range",     "NaN", "reverses from", "slope at 0.18",
                                      "folded cells",    "cells without volume"};
    for (const char* space : {"709", "P3", "2020", "AP1"})
        names.push_back(std::string("outside ") + space);
    return names;
}

std::array<float, 3> light_of(const image::Picture& picture, std::size_t pixel) {
    const auto stored = picture.at(pixel);
    const colour::Space* space = colour::find_space(picture.space);
    const colour::Space& light = *colour::find_space(colour::default_space);
    const colour::Triple made = colour::converted(
        {static_cast<double>(stored[0]), static_cast<double>(stored[1]), static_cast<double>(stored[2])},
        space ? *space : light, light);
    return {static_cast<float>(made[0]), static_cast<float>(made[1]), static_cast<float>(made[2])};
}

std::unique_ptr<Counting> plane_counting(const Order& order, const Looked& looked, const Axis& x, const Axis& y,
                                         std::string_view name) {
    return std::make_unique<PlaneCounting>(order, looked, x, y, name);
}

} // namespace kasuri::readings
