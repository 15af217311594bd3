#include "readings/rows.hpp"

namespace kasuri::readings {
namespace {

template <class Numbers>
void add(Rows& layer, const Numbers& numbers) {
    for (const auto x : numbers)
        layer.numbers.push_back(static_cast<double>(x));
}

struct Write {
    Rows& to;

    void operator()(const Density& it) const {
        to.kind = "density";
        to.name = it.name;
        to.columns = static_cast<std::size_t>(it.columns);
        add(to, it.counts);
    }
    void operator()(const Trace& it) const {
        to.kind = "trace";
        to.name = it.name;
        to.columns = 2;
        for (const auto& point : it.points)
            add(to, point);
    }
    void operator()(const Arrows& it) const {
        to.kind = "arrows";
        to.name = it.name;
        to.columns = 7;
        for (const Arrow& arrow : it.arrows) {
            add(to, arrow.from);
            add(to, arrow.to);
            add(to, arrow.colour);
        }
    }
    void operator()(const Spots& it) const {
        to.kind = "spots";
        to.name = it.name;
        to.columns = 5;
        for (const Spot& spot : it.spots) {
            add(to, spot.at);
            add(to, spot.colour);
        }
    }
    void operator()(const Solid& it) const {
        to.kind = "solid";
        to.name = it.name;
        to.columns = 9;
        for (std::size_t i = 0; i < it.points.size(); ++i) {
            add(to, it.points[i]);
            add(to, it.from[i]);
            add(to, it.colours[i]);
        }
    }
    void operator()(const Wires& it) const {
        to.kind = "wires";
        to.name = it.name;
        to.columns = 4;
        for (std::size_t line = 0; line < it.lines.size(); ++line)
            for (const auto& point : it.lines[line]) {
                to.numbers.push_back(static_cast<double>(line));
                add(to, point);
            }
    }
};

} // namespace

Rows rows_of(const Layer& layer) {
    Rows made;
    made.panel = static_cast<std::size_t>(layer.panel);
    std::visit(Write{made}, layer.data);
    return made;
}

} // namespace kasuri::readings
