#pragma once
#include "image/image.hpp"
#include "targets/target.hpp"

#include <QRectF>

#include <utility>

class QPainter;

namespace kasuri::app {

/// How values map to heights under a strip (null: a cut): a range wide enough for what is shown, in round steps so that
/// it does not tremble while a value is dragged.
struct ThreadScale {
    double low = 0, high = 1;
    targets::Scale scale = targets::Scale::linear;

    static ThreadScale fitting(const targets::Target* target, const image::Picture& before,
                               const image::Picture& after);
    double y_of(double value, const QRectF& area) const { return heights(area)(value); }

    /// The same for many values: what they share is worked out once.
    struct Heights {
        targets::Scale scale;
        double from, by, bottom, height;
        double operator()(double value) const;
    };
    Heights heights(const QRectF& area) const;
};

/// Draws the three channels of a row of pixels: where traces coincide they are plied (alternating dashes), so that
/// equality is seen and not hidden by the last one drawn. `solid`: after; else before, thin and faint.
void draw_traces(QPainter& painter, const QRectF& area, const ThreadScale& scale, const image::Picture& row,
                 bool solid);

/// r, g, b at the right ends of the traces, kept apart.
void draw_trace_letters(QPainter& painter, const QRectF& area, const ThreadScale& scale, const image::Picture& row);

} // namespace kasuri::app
