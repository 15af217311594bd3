#pragma once
#include "base/cancel.hpp"
#include "pairing/chart.hpp"

#include <QImage>
#include <QObject>
#include <QString>

#include <array>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::app {

/// A chart in a picture, while its corners are being put: what is seen of each patch, and what it should be. Pictures
/// are read in the background.
class ChartModel : public QObject {
    Q_OBJECT
public:
    /// The picture itself, or another one of the same chart.
    enum Side { seen, other };
    explicit ChartModel(QObject* parent = nullptr);
    ~ChartModel() override;

    /// The latest request counts. An empty name takes the other picture away.
    void open(Side side, const std::string& file, const std::string& space = {});
    const std::string& file(Side side) const { return sides_[side].file; }
    bool loading(Side side) const { return sides_[side].loading; }
    /// As the screen shows it, at most `largest_image` wide or high; null while there is none.
    const QImage& image(Side side) const { return sides_[side].image; }
    /// In pixels of the file; 0 while there is none.
    QSize size(Side side) const { return sides_[side].size; }

    const image::Corners& corners(Side side) const { return sides_[side].corners; }
    void set_corners(Side side, const image::Corners& corners);
    /// A quarter further, for a chart that lies on its side or on its head.
    void turn(Side side);

    /// Published values, by the name of a target.
    void set_chart(const std::string& chart);
    /// Values of one's own: columns and rows are asked for, for a table does not know them.
    void set_values(const std::string& file, int columns, int rows);
    std::pair<int, int> grid() const { return pairing::grid_of(wish_); }

    /// What was seen where the corners lie now, row by row; empty if there is nothing to see.
    const std::vector<pairing::Patch>& patches(Side side) const { return sides_[side].patches; }
    /// What the patches should be, in light of BT.709.
    const std::vector<pairing::Patch>& wanted() const { return wanted_; }
    /// How many patches count and which do not, or what is wrong.
    QString words() const;
    /// The patch at a place of the picture: its name, what was seen, and why it does not count. Empty: there is none.
    QString words_at(Side side, const image::Point& point) const;
    bool ready() const;
    /// For pairing::pairs_of_chart.
    pairing::ChartWish wish() const;

    static constexpr int largest_image = 2400;

signals:
    void picture_changed(int side);
    void measured();

private:
    struct Taken;
    QString name_of_patch(std::size_t index) const;
    struct One {
        std::string file, space;
        bool loading = false;
        int ticket = 0;
        std::shared_ptr<const Taken> taken;
        QImage image;
        QSize size;
        image::Corners corners{};
        std::vector<pairing::Patch> patches;
        QString fault;
    };
    void came(Side side, int ticket, std::shared_ptr<const Taken> taken, const QImage& image, const QString& fault);
    void read_wanted();
    void measure(Side side);

    std::array<One, 2> sides_;
    pairing::ChartWish wish_;
    std::vector<pairing::Patch> wanted_;
    QString wanted_fault_;
};

} // namespace kasuri::app
