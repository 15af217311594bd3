#pragma once
#include "base/cancel.hpp"
#include "base/setting.hpp"
#include "readings/bands.hpp"
#include "readings/plot.hpp"
#include "readings/view.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::readings {

/// A line across a picture, in shares of its width and height.
struct Line {
    double x0 = 0, y0 = 0.5, x1 = 1, y1 = 0.5;
    friend bool operator==(const Line&, const Line&) = default;
};

/// What is measured: pictures (what was counted is added up), or a rule by what it makes of generated colours.
struct Order {
    std::vector<const image::Picture*> pictures; ///< kept in whatever way, or made on demand
    /// What the rule makes of a picture in the working space; the identity to measure what is before it. Nothing if
    /// called off.
    std::function<std::optional<image::Picture>(const image::Picture&)> rule;
    std::string_view working = "rec709-linear"; ///< of the rule
    std::vector<double> settings;               ///< all of the reading's
    Line line;
    Views* views = nullptr;
    CancelToken cancel = {};
};

enum class About {
    pictures, ///< counts the pixels of pictures
    rule,     ///< looks at what the rule does to generated colours
};

/// Counts the pixels of pictures, band by band: for each picture `begin`, `add` for every band, `end`.
class Counting {
public:
    explicit Counting(Looked looked) : looked_(looked) {}
    virtual ~Counting() = default;
    Counting(const Counting&) = delete;
    Counting& operator=(const Counting&) = delete;

    const Looked& looked() const { return looked_; }
    virtual void begin(const image::Picture&) {}
    /// From several threads at the same time.
    virtual void add(const Band& band) = 0;
    virtual void end(const image::Picture&) {}
    /// Of all pictures.
    virtual Measured told() = 0;

private:
    Looked looked_;
};

/// One row: something that can be read off, as plots.
struct Reading {
    std::string_view name;  ///< waveform
    std::string_view title; ///< Waveform
    std::string_view doc;
    std::string_view source; ///< of its graticule and formulas
    About about = About::pictures;
    std::span<const Setting> settings;
    /// The panels: their axes and guides.
    std::vector<Panel> (*panels)(Values set);
    /// Of what counts every pixel: the counting. Else null,
    std::unique_ptr<Counting> (*counting)(const Order& order);
    /// and this is what it shows; nothing if called off.
    std::optional<Measured> (*found)(const Order& order);

    /// What the subject shows on the panels; nothing if called off.
    std::optional<Measured> measure(const Order& order) const;
};

/// What several readings show, each of its own order: what they count is gone through once for all of them. Nothing if
/// called off, which the first order's token does.
struct Asked {
    const Reading* reading = nullptr;
    Order order;
};
std::optional<std::vector<Measured>> measured(std::span<const Asked> asked);

/// The pixels that the line runs over, one a step of the longer direction, as a picture of one row.
image::Picture along(const image::Picture& picture, const Line& line);

/// All readings, in the order of the menu; by name: null if there is none.
std::span<const Reading* const> all();
const Reading* find(std::string_view name);

/// What figures of measurements are called, for translations.
std::vector<std::string> figure_names();

} // namespace kasuri::readings
