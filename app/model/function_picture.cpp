#include "model/function_picture.hpp"

#include "builtins/builtin.hpp"

#include <QColor>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {

constexpr int width = 150, height = 100;
constexpr double low = -0.25, high = 1.25; ///< of both axes
constexpr double steps_per_pixel = 2;
const QColor paper(0xe3, 0xe3, 0xe3), line(0xc4, 0xc4, 0xc4), ink(0x2f, 0x4a, 0x86);

double x_of(double value) { return (value - low) / (high - low) * width; }
double y_of(double value) { return height - (value - low) / (high - low) * height; }

const builtins::Builtin* row_of(const std::string& name, std::size_t& argument) {
    for (const builtins::Builtin& row : builtins::all()) {
        if (row.name != name || row.form != builtins::Form::componentwise || row.variadic || row.cases.empty())
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

QImage function_picture(const std::string& name) {
    std::size_t argument = 0;
    const builtins::Builtin* row = row_of(name, argument);
    if (!row || row->cases.front().arguments.size() <= argument)
        return {};
    QImage image(width, height, QImage::Format_RGB32);
    image.fill(paper);
    QPainter painter(&image);
    painter.setPen(line);
    for (const double mark : {0.0, 0.5, 1.0}) {
        painter.drawLine(QPointF(x_of(mark), 0), QPointF(x_of(mark), height));
        painter.drawLine(QPointF(0, y_of(mark)), QPointF(width, y_of(mark)));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(ink, 1.6));
    std::vector<double> arguments = row->cases.front().arguments;
    QPainterPath path;
    bool drawing = false;
    double last = 0;
    for (int i = 0; i <= static_cast<int>(width * steps_per_pixel); ++i) {
        arguments[argument] = low + (high - low) * i / (width * steps_per_pixel);
        const double y = row->reference(arguments.data());
        if (!std::isfinite(y)) { // a gap where there is no number
            drawing = false;
            continue;
        }
        const QPointF at(x_of(arguments[argument]), std::clamp(y_of(y), -50.0, height + 50.0));
        const bool jump = drawing && std::fabs(y - last) > 0.2 * (high - low);
        if (drawing && !jump)
            path.lineTo(at);
        else
            path.moveTo(at);
        drawing = true;
        last = y;
    }
    painter.drawPath(path);
    return image;
}

} // namespace kasuri::app
