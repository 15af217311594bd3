#include "widgets/tuning/chart_window.hpp"

#include "model/file_names.hpp"
#include "targets/target.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/tuning/chart_view.hpp"

#include <QDragEnterEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QSplitter>
#include <QToolButton>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {

constexpr int field_width = 84, most_in_a_row = 99;

QString with_arrow(const QString& text) { return text + QString::fromUtf8(" \u25be"); }

} // namespace

ChartWindow::ChartWindow(QWidget* parent) : QDialog(parent) {
    setWindowTitle(tr("A chart in a picture"));
    setAcceptDrops(true);
    resize(860, 620);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    column->setSpacing(8);
    column->addWidget(
        quiet_label(tr("Put the four corners on the outer corners of the patches, 1 at the first patch. The "
                       "small squares are what the patches should be: they have to lie on their own."),
                    this));
    column->addWidget(sources());
    auto* pictures = new QSplitter(this);
    for (const ChartModel::Side side : {ChartModel::seen, ChartModel::other}) {
        views_[side] = new ChartView(model_, side, this);
        pictures->addWidget(views_[side]);
        connect(views_[side], &ChartView::held_changed, this, [this, side] { show_held(side); });
    }
    views_[ChartModel::other]->hide();
    column->addWidget(pictures, 1);
    column->addWidget(corner_row());
    words_ = new QLabel(this);
    words_->setWordWrap(true);
    words_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
    words_->setFixedHeight(2 * words_->fontMetrics().lineSpacing()); // the picture must not move while a corner is held
    words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(words_);
    auto* end = new QHBoxLayout;
    find_ = new QPushButton(tr("Find the rule"), this);
    find_->setDefault(true);
    end->addStretch(1);
    end->addWidget(find_);
    column->addLayout(end);
    connect(find_, &QPushButton::clicked, this, &ChartWindow::wanted);
    connect(&model_, &ChartModel::measured, this, [this] {
        show_held(held_);
        show_state();
    });
    connect(&model_, &ChartModel::picture_changed, this, &ChartWindow::show_state);
    show_held(ChartModel::seen);
    show_state();
}

QWidget* ChartWindow::sources() {
    auto* row = new QWidget(this);
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    picture_ = new QPushButton(tr("Picture\u2026"), row);
    picture_->setAutoDefault(false);
    picture_->setToolTip(tr("The picture of the chart; or drop it here"));
    connect(picture_, &QPushButton::clicked, this, [this] { ask_picture(ChartModel::seen); });
    layout->addWidget(picture_);
    layout->addWidget(quiet_label(tr("should be"), row));
    against_ = new QToolButton(row);
    against_->setPopupMode(QToolButton::InstantPopup);
    against_->setAccessibleName(tr("What the patches should be"));
    against_->setMenu(new QMenu(against_));
    fill_against();
    layout->addWidget(against_);
    layout->addStretch(1);
    return row;
}

void ChartWindow::fill_against() {
    QMenu& menu = *against_->menu();
    const auto published = [this](const std::string& name, const QString& title) {
        model_.open(ChartModel::other, {});
        model_.set_chart(name);
        against_->setText(with_arrow(title));
    };
    for (const std::string& name : pairing::chart_names()) {
        const targets::Target& chart = *targets::find(name);
        const QString title = QCoreApplication::translate("Tables", std::string(chart.title).c_str()) + ": " +
            QCoreApplication::translate("Tables", std::string(chart.detail).c_str());
        menu.addAction(title, this, [published, name, title] { published(name, title); });
        if (name == model_.wish().chart)
            against_->setText(with_arrow(title));
    }
    menu.addSeparator();
    menu.addAction(tr("Values of your own\u2026"), this, &ChartWindow::ask_values);
    menu.addAction(tr("The same chart in another picture\u2026"), this, [this] { ask_picture(ChartModel::other); });
}

QWidget* ChartWindow::corner_row() {
    auto* row = new QWidget(this);
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(0, 0, 0, 0);
    corner_ = quiet_label({}, row);
    layout->addWidget(corner_);
    for (int axis = 0; axis < 2; ++axis) {
        auto* field = new NumberField(row);
        field->setFixedWidth(field_width);
        field->setAccessibleName(axis == 0 ? tr("Its x in pixels") : tr("Its y in pixels"));
        fields_[static_cast<std::size_t>(axis)] = field;
        layout->addWidget(field);
        connect(field, &NumberField::value_edited, this, [this, axis](double value) {
            image::Corners corners = model_.corners(held_);
            const int which = views_[held_]->held();
            if (which < 0)
                return;
            (axis == 0 ? corners[static_cast<std::size_t>(which)].x : corners[static_cast<std::size_t>(which)].y) =
                value;
            model_.set_corners(held_, corners);
        });
    }
    layout->addStretch(1);
    auto* turn = new QPushButton(tr("Turn by a quarter"), row);
    turn->setAutoDefault(false);
    turn->setToolTip(tr("Corner 1 goes to the next corner: for a chart that lies on its side or on its head"));
    connect(turn, &QPushButton::clicked, this, [this] { model_.turn(held_); });
    layout->addWidget(turn);
    return row;
}

void ChartWindow::open(const QString& file, const std::string& space) {
    space_ = space;
    model_.open(ChartModel::seen, bytes_of(file), space);
}

void ChartWindow::open_other(const QString& file) {
    model_.open(ChartModel::other, bytes_of(file), space_);
    against_->setText(with_arrow(tr("as in %1").arg(QFileInfo(file).fileName())));
}

void ChartWindow::ask_picture(ChartModel::Side side) {
    const QString file = QFileDialog::getOpenFileName(
        this, side == ChartModel::seen ? tr("Which picture of a chart?") : tr("Which other picture of the same chart?"),
        QFileInfo(text_of(model_.file(ChartModel::seen))).path(),
        tr("Pictures (%1)").arg(patterns({FileKind::picture, FileKind::movie})));
    if (file.isEmpty())
        return;
    if (side == ChartModel::seen)
        open(file, space_);
    else
        open_other(file);
}

void ChartWindow::ask_values() {
    const QString file = QFileDialog::getOpenFileName(this, tr("A table with a line for each patch, row by row"), {},
                                                      tr("Tables (%1)").arg("*.csv *.tsv *.txt *.cgats"));
    if (file.isEmpty())
        return;
    bool good = false;
    const int columns = QInputDialog::getInt(this, tr("Your chart"), tr("How many patches are there in a row?"),
                                             model_.grid().first, 1, most_in_a_row, 1, &good);
    if (!good)
        return;
    const int rows = QInputDialog::getInt(this, tr("Your chart"), tr("How many rows are there?"), model_.grid().second,
                                          1, most_in_a_row, 1, &good);
    if (!good)
        return;
    model_.open(ChartModel::other, {});
    model_.set_values(bytes_of(file), columns, rows);
    against_->setText(with_arrow(tr("as %1 says").arg(QFileInfo(file).fileName())));
}

void ChartWindow::show_held(ChartModel::Side side) {
    held_ = side;
    const int which = views_[side]->held();
    corner_->setText(which < 0 ? tr("Corner: take one, or press 1 to 4") : tr("Corner %1, x and y").arg(which + 1));
    const QSize size = model_.size(side);
    for (int axis = 0; axis < 2; ++axis) {
        NumberField* field = fields_[static_cast<std::size_t>(axis)];
        field->setEnabled(which >= 0);
        if (which < 0)
            continue;
        const image::Point& point = model_.corners(side)[static_cast<std::size_t>(which)];
        field->set_range(0, axis == 0 ? size.width() : size.height(), 1);
        field->set_value(axis == 0 ? point.x : point.y);
    }
}

void ChartWindow::show_state() {
    words_->setText(model_.words());
    find_->setEnabled(model_.ready());
    const std::string& file = model_.file(ChartModel::seen);
    picture_->setText(file.empty() ? tr("Picture\u2026") : QFileInfo(text_of(file)).fileName());
    views_[ChartModel::other]->setVisible(!model_.file(ChartModel::other).empty());
}

QString ChartWindow::words() const { return words_->text(); }

void ChartWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void ChartWindow::dropEvent(QDropEvent* event) {
    QStringList files;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile())
            files << local_file(url);
    if (files.isEmpty())
        return;
    event->acceptProposedAction();
    open(files.front(), space_);
    if (files.size() > 1)
        open_other(files[1]);
}

} // namespace kasuri::app
