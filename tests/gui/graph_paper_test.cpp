// Strokes of graphs against what geometry says, and against Qt's own stroker.
#include "support/support.hpp"
#include "widgets/parts/graph_paper.hpp"

#include <QPainter>
#include <QPainterPath>

#include <cmath>

using namespace kasuri::app;

namespace {

double covered(const QImage& image, int x, int y) { return qAlpha(image.pixel(x, y)) / 255.0; }

double column(const QImage& image, int x) {
    double sum = 0;
    for (int y = 0; y < image.height(); ++y)
        sum += covered(image, x, y);
    return sum;
}

} // namespace

TEST_CASE("a stroke is as wide as it was asked for, whatever its slope", "[graph_paper]") {
    for (const double slope : {0.0, 0.3, 1.0, 3.0}) {
        GraphPaper paper({0, 0, 40, 160}, 1);
        const QPointF line[] = {{0, 20.25}, {40, 20.25 + 40 * slope}};
        paper.stroke(line, Qt::black, 1.7);
        for (int x = 4; x < 36; ++x) {
            INFO(slope << " " << x);
            CHECK(column(paper.image(), x) == Approx(1.7 * std::sqrt(1 + slope * slope)).margin(0.03));
        }
    }
    GraphPaper level({0, 0, 10, 10}, 1);
    const QPointF line[] = {{0, 5}, {10, 5}};
    level.stroke(line, QColor(200, 0, 0), 2);
    for (int y = 0; y < 10; ++y)
        CHECK(covered(level.image(), 5, y) == (y == 4 || y == 5 ? 1.0 : 0.0));
    CHECK(level.image().pixelColor(5, 4).red() == 200);
}

TEST_CASE("a jump straight up is as wide as its stroke, and a gap is none", "[graph_paper]") {
    GraphPaper paper({0, 0, 20, 40}, 1);
    const QPointF line[] = {{0, 35}, {10, 35}, {10, 5}, {14, 5}, {14, std::nan("")}, {16, 5}, {20, 5}};
    paper.stroke(line, Qt::black, 2);
    double across = 0;
    for (int x = 0; x < 20; ++x)
        across += covered(paper.image(), x, 20);
    CHECK(across == Approx(2).margin(0.01));
    CHECK(column(paper.image(), 15) == 0); // between the two parts
    CHECK(column(paper.image(), 17) == Approx(2).margin(0.01));
    GraphPaper wild({0, 0, 20, 20}, 1); // what is no place is nowhere, what is far off does no harm
    const QPointF far[] = {{-1e9, -1e9}, {10, 10}, {1e300, 1e12}, {INFINITY, 3}, {std::nan(""), 3}};
    wild.stroke(far, Qt::black, 2);
    CHECK(covered(wild.image(), 10, 10) > 0);
}

TEST_CASE("curves look as Qt strokes them, at one and at two pixels a unit", "[graph_paper]") {
    for (const double ratio : {1.0, 2.0}) {
        QSize size(300, 100);
        std::vector<QPointF> points;
        QPainterPath path;
        for (int i = 0; i <= 300; ++i) {
            points.emplace_back(i, 50 + 40 * std::sin(i * i / 3500.0));
            i == 0 ? path.moveTo(points.back()) : path.lineTo(points.back());
        }
        GraphPaper paper(QRectF(QPointF(0, 0), size), ratio);
        paper.stroke(points, QColor(20, 40, 160, 128), 1.7);
        QImage mine((size * ratio), QImage::Format_RGB32), theirs = mine;
        for (QImage* image : {&mine, &theirs}) {
            image->setDevicePixelRatio(ratio);
            image->fill(Qt::white);
            QPainter painter(image);
            if (image == &mine) {
                paper.draw(painter);
                continue;
            }
            painter.setRenderHint(QPainter::Antialiasing);
            QPen pen(QColor(20, 40, 160, 128), 1.7);
            pen.setCapStyle(Qt::FlatCap);
            painter.strokePath(path, pen);
        }
        int most = 0;
        double sum = 0;
        for (int y = 0; y < mine.height(); ++y)
            for (int x = 0; x < mine.width() - 2 * ratio; ++x) { // Qt's end is cut off askew, ours upright
                const int apart = std::abs(qRed(mine.pixel(x, y)) - qRed(theirs.pixel(x, y)));
                most = std::max(most, apart);
                sum += apart;
            }
        INFO("ratio " << ratio << ", mean " << sum / mine.width() / mine.height());
        CHECK(most <= 40); // of 118 that the stroke is dark: where corners are joined
        CHECK(sum / mine.width() / mine.height() < 0.2);
    }
}
