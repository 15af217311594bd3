#include "model/chart_model.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "model/background.hpp"
#include "model/display.hpp"
#include "pairing/pictures.hpp"

#include <QCoreApplication>
#include <QPointer>
#include <QStringList>

#include <algorithm>
#include <tuple>

namespace kasuri::app {

/// A picture and what is clipped in it.
struct ChartModel::Taken {
    image::Picture picture;
    pairing::Ends ends;
};

ChartModel::ChartModel(QObject* parent) : QObject(parent) { read_wanted(); }
ChartModel::~ChartModel() = default;

void ChartModel::open(Side side, const std::string& file, const std::string& space) {
    One& one = sides_[side];
    const int ticket = one.ticket + 1;
    one = {};
    one.file = file;
    one.space = space;
    one.ticket = ticket;
    one.loading = !file.empty();
    emit picture_changed(side);
    emit measured();
    if (file.empty())
        return;
    background().start([self = QPointer<ChartModel>(this), side, ticket, file, space] {
        std::shared_ptr<const Taken> taken;
        QImage image;
        QString fault;
        const auto read = within_memory(file, [&]() -> Result<bool> {
            std::vector<std::string> notes;
            pairing::PairingOptions options;
            options.in_space = space;
            auto shown = pairing::picture_from(file, options, notes);
            if (!shown)
                return shown.error();
            const image::Picture& picture = shown.value().picture;
            const double by =
                std::min(1.0, static_cast<double>(largest_image) / std::max(picture.width, picture.height));
            image = app::shown(downscaled(picture, std::max(1, static_cast<int>(picture.width * by)),
                                          std::max(1, static_cast<int>(picture.height * by))),
                               lens("colour"));
            const pairing::Ends ends = pairing::ends_of(picture, shown.value().unsure_ends);
            taken = std::make_shared<const Taken>(Taken{std::move(shown.value().picture), ends});
            return true;
        });
        if (!read)
            fault = QString::fromStdString(read.error().text());
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [self, side, ticket, taken, image, fault] {
                if (self)
                    self->came(side, ticket, taken, image, fault);
            },
            Qt::QueuedConnection);
    });
}

void ChartModel::came(Side side, int ticket, std::shared_ptr<const Taken> taken, const QImage& image,
                      const QString& fault) {
    One& one = sides_[side];
    if (ticket != one.ticket)
        return;
    one.loading = false;
    one.fault = fault;
    one.taken = std::move(taken);
    one.image = image;
    if (one.taken) {
        one.size = {one.taken->picture.width, one.taken->picture.height};
        const double x = one.size.width(), y = one.size.height();
        one.corners = {{{0.15 * x, 0.15 * y}, {0.85 * x, 0.15 * y}, {0.85 * x, 0.85 * y}, {0.15 * x, 0.85 * y}}};
    }
    emit picture_changed(side);
    measure(side);
}

void ChartModel::set_corners(Side side, const image::Corners& corners) {
    if (sides_[side].corners == corners)
        return;
    sides_[side].corners = corners;
    measure(side);
}

void ChartModel::turn(Side side) {
    image::Corners corners = sides_[side].corners;
    std::rotate(corners.begin(), corners.begin() + 1, corners.end());
    set_corners(side, corners);
}

void ChartModel::set_chart(const std::string& chart) {
    wish_ = {};
    wish_.chart = chart;
    read_wanted();
}

void ChartModel::set_values(const std::string& file, int columns, int rows) {
    wish_.values = file;
    wish_.columns = columns;
    wish_.rows = rows;
    read_wanted();
}

void ChartModel::read_wanted() {
    auto values = pairing::chart_values(wish_, {});
    wanted_fault_ = values ? QString() : QString::fromStdString(values.error().text());
    wanted_ = values ? std::move(values.value()) : std::vector<pairing::Patch>();
    for (const Side side : {seen, other})
        measure(side);
}

void ChartModel::measure(Side side) {
    One& one = sides_[side];
    one.patches.clear();
    if (one.taken && wanted_fault_.isEmpty()) {
        const auto [columns, rows] = grid();
        auto patches = pairing::patches_of(one.taken->picture, one.corners, columns, rows, one.taken->ends);
        one.fault = patches ? QString() : QString::fromStdString(patches.error().text());
        if (patches)
            one.patches = std::move(patches.value());
    }
    emit measured();
}

bool ChartModel::ready() const {
    const auto seen_in = [&](Side side) { return !sides_[side].patches.empty(); };
    return seen_in(seen) && (sides_[other].file.empty() || seen_in(other));
}

QString ChartModel::words() const {
    if (!wanted_fault_.isEmpty())
        return wanted_fault_;
    for (const One& one : sides_) {
        if (one.loading)
            return tr("Reading %1\u2026").arg(QString::fromStdString(pairing::name_of(one.file)));
        if (!one.fault.isEmpty())
            return one.fault;
    }
    if (!ready())
        return tr("Choose a picture of a chart, or drop it here.");
    if (pairing::seems_upside_down(sides_[seen].patches, wanted_))
        return tr(
            "The chart seems to stand on its head: corner 1 belongs to its first patch. Turn by a quarter, twice.");
    QStringList without;
    for (std::size_t i = 0; i < wanted_.size(); ++i)
        if (!sides_[seen].patches[i].why_not.empty() ||
            (!sides_[other].patches.empty() && !sides_[other].patches[i].why_not.empty()))
            without << name_of_patch(i);
    const QString all = tr("%1 of %2 patches count.").arg(wanted_.size() - without.size()).arg(wanted_.size());
    if (without.isEmpty())
        return all;
    constexpr qsizetype most_names = 6;
    const qsizetype more = without.size() - most_names;
    QString names = without.mid(0, most_names).join(", ");
    if (more > 0)
        names += " " + tr("and %1 more").arg(more);
    return all + " " + tr("Left out: %1. Point at one to see why.").arg(names);
}

QString ChartModel::name_of_patch(std::size_t index) const {
    return wanted_[index].name.empty() ? QString::number(index + 1) : QString::fromStdString(wanted_[index].name);
}

QString ChartModel::words_at(Side side, const image::Point& point) const {
    const One& one = sides_[side];
    const auto view = image::Perspective::make(one.corners);
    if (!view || one.patches.empty())
        return {};
    const image::Point at = view->back(point);
    if (!(at.x >= 0 && at.x < 1 && at.y >= 0 && at.y < 1))
        return {};
    const auto [columns, rows] = grid();
    const auto index = static_cast<std::size_t>(at.y * rows) * static_cast<std::size_t>(columns) +
        static_cast<std::size_t>(at.x * columns);
    const pairing::Patch& patch = one.patches[index];
    const auto number = [](double x) { return QString::fromStdString(number_text(x, 3)); };
    const QString seen_as =
        tr("%1: seen as %2, %3, %4")
            .arg(name_of_patch(index), number(patch.colour[0]), number(patch.colour[1]), number(patch.colour[2]));
    return patch.why_not.empty() ? seen_as : seen_as + "\n" + QString::fromStdString(patch.why_not);
}

pairing::ChartWish ChartModel::wish() const {
    pairing::ChartWish made = wish_;
    made.picture = sides_[seen].file;
    made.corners = sides_[seen].corners;
    made.other = sides_[other].file;
    made.other_corners = sides_[other].corners;
    return made;
}

} // namespace kasuri::app
