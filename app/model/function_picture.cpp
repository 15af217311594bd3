#include "model/function_picture.hpp"

#include "builtins/curve.hpp"

#include <QColor>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr int width = 150, height = 100;
constexpr double low = -0.25, high = 1.25; ///< of both axes
constexpr double steps_per_pixel = 2;
const QColor paper(0xe3, 0xe3, 0xe3), line(0xc4, 0xc4, 0xc4), ink(0x2f, 0x4a, 0x86);

double x_of(double value) { return (value - low) / (high - low) * width; }
double y_of(double value) { return height - (value - low) / (high - low) * height; }

} // namespace

QImage function_picture(const std::string& name) {
    const auto lines = builtins::curve_of(name, low, high, static_cast<int>(width * steps_per_pixel));
    if (lines.empty())
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
    QPainterPath path;
    for (const auto& each : lines)
        for (std::size_t i = 0; i < each.size(); ++i) {
            const QPointF at(x_of(each[i][0]), std::clamp(y_of(each[i][1]), -50.0, height + 50.0));
            i == 0 ? path.moveTo(at) : path.lineTo(at);
        }
    painter.drawPath(path);
    return image;
}

} // namespace kasuri::app
