#include "widgets/readings/reading_panel.hpp"

#include "base/file.hpp"
#include "model/file_names.hpp"
#include "model/words.hpp"
#include "widgets/parts/settings_dialog.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/parts/window_place.hpp"
#include "widgets/readings/plot_view.hpp"

#include <QApplication>
#include <QClipboard>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QSaveFile>
#include <QSettings>
#include <QToolButton>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {

QString utf8(std::string_view text) { return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())); }
const QString down = QString::fromUtf8(" \u25be");

/// A line under a heading.
class Bar : public QWidget {
public:
    using QWidget::QWidget;

protected:
    void paintEvent(QPaintEvent*) override { QPainter(this).fillRect(0, height() - 1, width(), 1, theme::hairline); }
};

} // namespace

ReadingPanel::ReadingPanel(ReadingsModel& readings, SheetModel& sheet, int id, QWidget* parent)
    : QWidget(parent), model_(readings), sheet_(sheet), id_(id) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* heading = new Bar(this);
    heading->setFixedHeight(theme::heading_height);
    auto* row = new QHBoxLayout(heading);
    row->setContentsMargins(theme::margin - 11, 0, theme::margin - 11, 1);
    row->setSpacing(0);
    const auto button = [&](const QString& name, bool strong) {
        auto* made = new QToolButton(heading);
        made->setFont(theme::face(strong ? 12.5 : 11.5, strong));
        made->setPopupMode(QToolButton::InstantPopup);
        made->setMenu(new QMenu(made));
        made->setAccessibleName(name);
        return made;
    };
    name_ = button(tr("Which reading"), true);
    of_ = button(tr("Of which cell"), false);
    more_ = button(tr("More about this reading"), false);
    more_->setText(QString::fromUtf8("\u22ef"));
    row->addWidget(name_);
    row->addStretch(1);
    row->addWidget(of_);
    row->addWidget(more_);
    connect(name_->menu(), &QMenu::aboutToShow, this, [this] {
        QMenu& menu = *name_->menu();
        menu.clear();
        menu.setToolTipsVisible(true);
        const ShownReading* shown = model_.find(id_);
        for (const readings::Reading* reading : readings::all()) {
            QAction* action =
                menu.addAction(words(reading->title), this, [this, reading] { model_.set_reading(id_, *reading); });
            action->setObjectName(utf8(reading->name));
            action->setToolTip(words(reading->doc) +
                               (reading->source.empty() ? QString() : "\n" + utf8(reading->source)));
            action->setCheckable(true);
            action->setChecked(shown && shown->reading == reading);
        }
    });
    connect(of_->menu(), &QMenu::aboutToShow, this, [this] {
        QMenu& menu = *of_->menu();
        menu.clear();
        const ShownReading* shown = model_.find(id_);
        const auto add = [&](const QString& text, int of) {
            QAction* action = menu.addAction(text, this, [this, of] { model_.set_of(id_, of); });
            action->setCheckable(true);
            action->setChecked(shown && shown->of == of);
        };
        add(tr("the cell in use"), ShownReading::current);
        add(tr("all pictures together"), ShownReading::all);
        menu.addSeparator();
        for (const Cell& cell : sheet_.cells())
            add(sheet_.title(cell), cell.id);
    });
    connect(more_->menu(), &QMenu::aboutToShow, this, [this] {
        more_->menu()->clear();
        fill_menu(*more_->menu());
    });
    plot_ = new PlotView(this);
    keep_eye(*plot_);
    column->addWidget(heading);
    column->addWidget(plot_, 1);
    refresh(0);
}

void ReadingPanel::keep_eye(PlotView& plot) {
    const QString key = "readings/eye";
    const QPointF kept = QSettings().value(key, QPointF(Eye::usual_turn, Eye::usual_tilt)).toPointF();
    plot.look_from({kept.x(), kept.y()});
    connect(&plot, &PlotView::looked_from, this,
            [key](const Eye& eye) { QSettings().setValue(key, QPointF(eye.turn, eye.tilt)); });
}

void ReadingPanel::refresh(int current_cell) {
    const ShownReading* shown = model_.find(id_);
    if (!shown)
        return;
    name_->setText(words(shown->reading->title) + down);
    plot_->setAccessibleName(words(shown->reading->title));
    plot_->setAccessibleDescription(words(shown->reading->doc));
    QString of;
    if (shown->reading->about == readings::About::pictures) {
        const Cell* cell = sheet_.find(shown->of > 0 ? shown->of : current_cell);
        of = shown->of == ShownReading::all ? tr("all pictures") : cell ? sheet_.title(*cell) : tr("nothing yet");
    }
    of_->setVisible(!of.isEmpty());
    of_->setText((frozen_ ? tr("frozen below, ") : QString()) + of + down);
}

void ReadingPanel::show_result(const ReadingResult& result) {
    if (result.reading != result_.reading)
        frozen_.reset(); // of another kind
    result_ = result;
    feed(*plot_);
    if (torn_)
        feed(*torn_);
}

void ReadingPanel::feed(PlotView& plot) const {
    plot.set_before_only(before_only_);
    plot.show_plot(result_.panels, frozen_ && !before_only_ ? frozen_ : result_.before, result_.after);
}

void ReadingPanel::set_before_only(bool before) {
    before_only_ = before;
    feed(*plot_);
    if (torn_)
        feed(*torn_);
}

void ReadingPanel::toggle_frozen() {
    frozen_ = frozen_ ? nullptr : result_.after;
    feed(*plot_);
}

void ReadingPanel::fill_menu(QMenu& menu) {
    const ShownReading* shown = model_.find(id_);
    if (!shown)
        return;
    if (!shown->reading->settings.empty())
        menu.addAction(tr("Ranges and settings\u2026"), this, [this] {
            if (const ShownReading* now = model_.find(id_))
                edit_settings(this, words(now->reading->title), now->reading->settings, now->settings,
                              [this](const std::vector<double>& values) { model_.set_settings(id_, values); });
        });
    QAction* freeze = menu.addAction(tr("Keep this as the faint reference"), this, &ReadingPanel::toggle_frozen);
    freeze->setCheckable(true);
    freeze->setChecked(frozen());
    menu.addAction(tr("Large, in a window of its own"), this, &ReadingPanel::tear_off);
    menu.addSeparator();
    menu.addAction(tr("Copy as a picture"), this, &ReadingPanel::copy_picture);
    menu.addAction(tr("Write it as a picture\u2026"), this, &ReadingPanel::ask_picture);
    menu.addAction(tr("Write its numbers as CSV\u2026"), this, &ReadingPanel::ask_export);
    menu.addSeparator();
    menu.addAction(tr("Move up"), this, [this] { model_.move(id_, -1); });
    menu.addAction(tr("Move down"), this, [this] { model_.move(id_, 1); });
    QMenu* add = menu.addMenu(tr("Add a reading"));
    for (const readings::Reading* reading : readings::all())
        add->addAction(words(reading->title), this, [this, reading] { model_.add(*reading); });
    menu.addAction(tr("Remove this reading"), this, [this] { model_.remove(id_); });
}

void ReadingPanel::tear_off() {
    if (!torn_) {
        torn_ = new PlotView(nullptr);
        keep_eye(*torn_);
        torn_->setAttribute(Qt::WA_DeleteOnClose);
        torn_->setWindowTitle(name_->text().chopped(down.size()));
        torn_->resize(760, 620);
        place_beside(*torn_, *this, "reading");
        connect(this, &QObject::destroyed, torn_, &QWidget::close);
    }
    feed(*torn_);
    torn_->show();
    torn_->raise();
}

QString ReadingPanel::csv() const {
    return result_.after ? QString::fromStdString(readings::csv(result_.panels, *result_.after)) : QString();
}

bool ReadingPanel::export_to(const QString& file) {
    const Status written = write_file(bytes_of(file), csv().toStdString());
    emit said(written ? tr("Wrote %1").arg(file) : QString::fromStdString(written.error().text()), !written);
    return written.ok();
}

void ReadingPanel::ask_export() {
    const ShownReading* shown = model_.find(id_);
    const QString file = QFileDialog::getSaveFileName(
        this, tr("Write the numbers"), shown ? utf8(shown->reading->name) + ".csv" : QString(), tr("Tables (*.csv)"));
    if (!file.isEmpty())
        export_to(file);
}

bool ReadingPanel::write_picture(const QString& file) {
    // Written whole or not at all.
    QSaveFile out(file);
    const bool written = out.open(QIODevice::WriteOnly) && plot_->grab().toImage().save(&out, "PNG") && out.commit();
    emit said(written ? tr("Wrote %1").arg(file)
                      : tr("%1 could not be written (%2). Choose another place.").arg(file, out.errorString()),
              !written);
    return written;
}

void ReadingPanel::ask_picture() {
    const ShownReading* shown = model_.find(id_);
    QString file =
        QFileDialog::getSaveFileName(this, tr("Write the reading as a picture"),
                                     shown ? utf8(shown->reading->name) + ".png" : QString(), tr("Pictures (*.png)"));
    if (!file.isEmpty() && !file.endsWith(".png", Qt::CaseInsensitive))
        file += ".png";
    if (!file.isEmpty())
        write_picture(file);
}

void ReadingPanel::copy_picture() {
    QApplication::clipboard()->setImage(plot_->grab().toImage());
    emit said(tr("The picture is on the clipboard"), false);
}

} // namespace kasuri::app
