#include "widgets/tuning/wishes_window.hpp"

#include "base/text.hpp"
#include "colour/space.hpp"
#include "engine/lower.hpp"
#include "model/display.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/tuning/mix_panel.hpp"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr double most = 1000;
constexpr int number_width = 58;

/// A field of one colour.
class Swatch : public QWidget {
public:
    using QWidget::QWidget;
    void set(const QColor& colour) {
        QPalette painted = palette();
        painted.setColor(QPalette::Window, colour);
        setPalette(painted);
        setAutoFillBackground(true);
    }
};

} // namespace

WishesWindow::WishesWindow(Session& session, MixPanel& mix, QWidget* parent)
    : QDialog(parent), session_(session), mix_(mix) {
    setWindowTitle(tr("A matrix from wishes"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(8);
    column->addWidget(quiet_label(tr("This colour shall become that colour. The weights that come nearest to all "
                                     "wishes are found by least squares."),
                                  this));
    auto* list = new QWidget(this);
    auto* inside = new QVBoxLayout(list);
    inside->setContentsMargins(0, 0, 0, 0);
    grid_ = new QGridLayout;
    grid_->setHorizontalSpacing(5);
    grid_->setVerticalSpacing(4);
    grid_->setColumnStretch(9, 1); // how far it is missed
    inside->addLayout(grid_);
    inside->addStretch(1);
    list_ = new QScrollArea(this);
    list_->setWidgetResizable(true);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setWidget(list);
    column->addWidget(list_);
    empty_ = quiet_label(tr("No wish yet."), this);
    column->addWidget(empty_);
    auto* buttons = new QHBoxLayout;
    more_ = new QPushButton(tr("Add a wish"), this);
    from_pins_ = new QPushButton(tr("Add the pins"), this);
    from_pins_->setToolTip(tr("Each pin's colour as it comes, and as it goes now: change what it shall become"));
    buttons->addWidget(more_);
    buttons->addWidget(from_pins_);
    buttons->addStretch(1);
    column->addLayout(buttons);
    const auto option = [&](const QString& text, const QString& tip) {
        auto* made = new QCheckBox(text, this);
        made->setToolTip(tip);
        connect(made, &QCheckBox::toggled, this, &WishesWindow::solve);
        column->addWidget(made);
        return made;
    };
    sums_ = option(tr("Rows sum to 1"), tr("Greys stay grey, exactly"));
    luminance_ = option(tr("Luminance is kept"), tr("Of every colour, exactly, by the weights of the working space"));
    offset_ = option(tr("With an offset"), tr("Also a constant for each channel"));
    matrix_ = new QLabel(this);
    matrix_->setFont(theme::mono());
    matrix_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(matrix_);
    said_ = quiet_label({}, this);
    column->addWidget(said_);
    auto* end = new QHBoxLayout;
    write_ = new QPushButton(tr("Write it into the rule"), this);
    write_->setDefault(true);
    end->addStretch(1);
    end->addWidget(write_);
    column->addLayout(end);
    column->addStretch(1);
    connect(more_, &QPushButton::clicked, this, [this] { add({}); });
    connect(from_pins_, &QPushButton::clicked, this, &WishesWindow::add_pins);
    connect(write_, &QPushButton::clicked, this, &WishesWindow::write);
    connect(&session_, &Session::rule_changed, this, &WishesWindow::solve); // the working space may be another
    rebuild();
}

std::string WishesWindow::working() const {
    return std::string(session_.rule() ? engine::working_space(*session_.rule()) : colour::default_space);
}

QString WishesWindow::said() const { return said_->text(); }

void WishesWindow::set_pins(std::vector<PinReadout> pins) {
    pins_ = std::move(pins);
    from_pins_->setEnabled(
        std::any_of(pins_.begin(), pins_.end(), [](const PinReadout& pin) { return pin.readout.valid; }));
}

void WishesWindow::add(const insight::Wish& wish) {
    take(wish);
    rebuild();
}

void WishesWindow::take(const insight::Wish& wish) {
    full_ = wishes_.size() >= most_wishes;
    if (!full_)
        wishes_.push_back(wish);
}

void WishesWindow::add_pins() {
    const colour::Space& to = *colour::find_space(working());
    for (const PinReadout& pin : pins_) {
        if (!pin.readout.valid)
            continue;
        const colour::Space* space = colour::find_space(pin.readout.space);
        const auto inside = [&](const std::array<float, 4>& c) {
            const colour::Triple stored = {static_cast<double>(c[0]), static_cast<double>(c[1]),
                                           static_cast<double>(c[2])};
            return space ? colour::converted(stored, *space, to) : stored;
        };
        take({inside(pin.readout.before), inside(pin.readout.after)});
    }
    rebuild();
}

void WishesWindow::rebuild() {
    for (Row& row : rows_)
        for (QWidget* widget : row.all)
            widget->deleteLater();
    rows_.clear();
    for (std::size_t i = 0; i < wishes_.size(); ++i) {
        Row row;
        int column = 0;
        const auto put = [&](QWidget* widget) {
            row.all.push_back(widget);
            grid_->addWidget(widget, static_cast<int>(i), column++);
        };
        for (std::size_t side = 0; side < 2; ++side) {
            if (side == 1)
                put(quiet_label(QString::fromUtf8("\u2192"), this));
            auto* swatch = new Swatch(this);
            swatch->setFixedSize(28, 20);
            row.swatches[side] = swatch;
            put(swatch);
            for (std::size_t c = 0; c < 3; ++c) {
                auto* field = new NumberField(this);
                field->set_range(-most, most, 0.01);
                field->set_value(side == 0 ? wishes_[i].from[c] : wishes_[i].to[c]);
                field->setFixedWidth(number_width);
                field->setAccessibleName(
                    (side == 0 ? tr("wish %1, %2 of the colour") : tr("wish %1, %2 of what it shall become"))
                        .arg(i + 1)
                        .arg(QString::fromUtf8(theme::letters[c])));
                connect(field, &NumberField::value_edited, this, [this, i, side, c](double value) {
                    (side == 0 ? wishes_[i].from : wishes_[i].to)[c] = value;
                    solve();
                });
                row.fields[3 * side + c] = field;
                put(field);
            }
        }
        row.missed = quiet_label({}, this, 11.5);
        row.missed->setMinimumWidth(90);
        put(row.missed);
        auto* away = new QToolButton(this);
        away->setText(QString::fromUtf8("\u00d7"));
        away->setAccessibleName(tr("Remove wish %1").arg(i + 1));
        connect(away, &QToolButton::clicked, this, [this, i] {
            wishes_.erase(wishes_.begin() + static_cast<std::ptrdiff_t>(i));
            full_ = false;
            rebuild();
        });
        put(away);
        rows_.push_back(std::move(row));
    }
    empty_->setVisible(wishes_.empty());
    list_->setVisible(!wishes_.empty());
    constexpr int row_height = 28, most_rows = 14;
    const int rows = std::min(static_cast<int>(wishes_.size()), most_rows);
    list_->setMinimumHeight(rows * row_height);
    list_->setMinimumWidth(
        list_->widget()->minimumSizeHint().width() +
        (static_cast<int>(wishes_.size()) > most_rows ? list_->verticalScrollBar()->sizeHint().width() : 0));
    solve();
    adjustSize();
}

void WishesWindow::solve() {
    const colour::Space& space = *colour::find_space(working());
    const bool linear = colour::is_linear(space);
    luminance_->setEnabled(linear);
    insight::SolveOptions options;
    options.rows_sum = sums_->isChecked();
    options.offset = offset_->isChecked();
    if (linear && luminance_->isChecked())
        options.keep = colour::luminance_weights(space);
    solved_ = insight::solve(wishes_, options);
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        rows_[i].missed->setText(
            solved_.residuals[i] < 5e-7
                ? tr("met")
                : tr("missed by %1").arg(QString::fromStdString(number_text(solved_.residuals[i], 2))));
        static_cast<Swatch*>(rows_[i].swatches[0])->set(colour_on_screen(wishes_[i].from, working()));
        static_cast<Swatch*>(rows_[i].swatches[1])->set(colour_on_screen(wishes_[i].to, working()));
    }
    QStringList lines;
    for (std::size_t row = 0; row < 3; ++row) {
        QStringList numbers;
        for (const double weight : solved_.map.matrix[row])
            numbers << theme::number(weight, 4).rightJustified(9);
        if (options.offset)
            numbers << QString("  + ") + theme::number(solved_.map.offset[row], 4).rightJustified(8);
        lines << QString::fromUtf8(theme::letters[row]) + " = " + numbers.join(' ');
    }
    matrix_->setText(lines.join('\n'));
    const auto far = [](double distance) {
        return distance < 5e-7 ? QString("0") : QString::fromStdString(number_text(distance, 2));
    };
    said_->setText(full_ ? tr("%1 wishes are the most; take some away first.").arg(most_wishes)
                       : wishes_.empty()
                       ? tr("Nothing is wished: everything stays as it is.")
                       : tr("root mean square %1, largest %2, determinant %3")
                             .arg(far(solved_.rms), far(solved_.largest), theme::number(solved_.map.determinant())));
    write_->setEnabled(!wishes_.empty());
}

void WishesWindow::write() { mix_.write_map(solved_.map, tr("a matrix from wishes")); }

} // namespace kasuri::app
