#pragma once
// What several readings need.
#include "readings/reading.hpp"
#include "scopes/counting.hpp"

#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <utility>

namespace kasuri::readings {

inline constexpr std::string_view channel_names[3] = {"r", "g", "b"};
inline constexpr Ink channel_inks[3] = {Ink::red, Ink::green, Ink::blue};

/// What the numbers of a picture are shown as.
struct Unit {
    std::string_view name;
    std::string_view title;   ///< of an axis
    std::string_view working; ///< the space in which `expression` is meant; empty: the picture's own
    std::string_view expression;
    double low, high; ///< usual range
};

/// Numbers of the picture; signal of the reference display; light in cd/m2; stops about middle grey. For settings:
/// `unit_names`.
std::span<const Unit> units();
extern const std::array<std::string_view, 4> unit_names;

/// The low and high that were asked for, or where they are equal the unit's own.
std::array<double, 2> range_of(const Unit& unit, double low, double high);

/// The three channels of a picture in a unit. Nothing if called off.
std::optional<std::array<image::Plane, 4>> in_unit(const Order& order, const image::Picture& picture, const Unit& unit);
Looked looked_at(const Unit& unit);

/// Counts each channel of pictures in a unit, with counters that `made` makes for pictures of a width; `told` makes of
/// the three what is shown.
template <class Counter>
class ChannelCounting final : public Counting {
public:
    using Counts = std::array<scopes::Counts, 3>;
    ChannelCounting(const Unit& unit, std::function<Counter(int width)> made, std::function<Measured(Counts&)> told)
        : Counting(looked_at(unit)), made_(std::move(made)), told_(std::move(told)) {}

    void begin(const image::Picture& picture) override {
        counters_ = std::make_unique<PerThread<std::array<Counter, 3>>>([this, width = picture.width] {
            const Counter none = made_(width);
            return std::array{none, none, none};
        });
    }
    void add(const Band& band) override {
        std::array<Counter, 3>& own = counters_->own();
        for (std::size_t c = 0; c < 3; ++c)
            own[c].add(band.components[c]);
    }
    void end(const image::Picture&) override {
        counters_->for_each([this](const std::array<Counter, 3>& own) {
            for (std::size_t c = 0; c < 3; ++c)
                own[c].tell(counts_[c]);
        });
        counters_.reset();
    }
    Measured told() override { return told_(counts_); }

private:
    std::function<Counter(int)> made_;
    std::function<Measured(Counts&)> told_;
    std::unique_ptr<PerThread<std::array<Counter, 3>>> counters_;
    Counts counts_;
};

/// The share of values that lie outside a range as figures, where there are any.
void tell_outside(Measured& measured, std::string_view name, const scopes::Counts& counts);

/// A pixel as linear light of BT.709, for the colour of marks.
std::array<float, 3> light_of(const image::Picture& picture, std::size_t pixel);

/// Pictures of so few pixels are charts: each pixel is shown as a spot too.
inline constexpr std::size_t max_spots = 600;

/// Counts a plane of two coordinates, the first two components of what is looked at, with spots for charts.
std::unique_ptr<Counting> plane_counting(const Order& order, const Looked& looked, const Axis& x, const Axis& y,
                                         std::string_view name);

} // namespace kasuri::readings
