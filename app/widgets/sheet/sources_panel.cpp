#include "widgets/sheet/sources_panel.hpp"

#include "handover/render.hpp"
#include "model/file_names.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/target_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QDragEnterEvent>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QToolButton>
#include <QUrl>
#include <QVBoxLayout>

#include <algorithm>
#include <filesystem>

namespace kasuri::app {
namespace {
constexpr int row_height = 26;
QString of(const std::string& text) { return QString::fromStdString(text); }
std::string target_named(const targets::Target& target) {
    return std::string(handover::target_prefix) + std::string(target.name);
}
QString file_or_target(const std::string& picture) {
    const targets::Target* const target =
        handover::is_target(picture) ? targets::find(picture.substr(handover::target_prefix.size())) : nullptr;
    return target ? QObject::tr("%1, generated").arg(of(std::string(target->title)))
                  : of(std::filesystem::path(picture).filename().string());
}
QString size_text(int width, int height) { return QObject::tr("%1 x %2").arg(width).arg(height); }
} // namespace

SourcesPanel::SourcesPanel(SheetModel& model, QWidget* parent) : QWidget(parent), model_(model) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    heading_ = new Heading(tr("Further pictures"), this);
    column->addWidget(heading_);
    list_ = new QWidget(this);
    auto* rows = new QVBoxLayout(list_);
    rows->setContentsMargins(0, 0, 0, 8);
    rows->setSpacing(0);
    column->addWidget(list_);
    heading_->fold(list_, "sources");
    setAcceptDrops(true);
    hide();
    connect(&model_, &SheetModel::changed, this, &SourcesPanel::refresh);
}

void SourcesPanel::set_sources(const std::vector<lang::SourceInput>& sources) {
    const bool same =
        std::equal(sources.begin(), sources.end(), rows_.begin(), rows_.end(),
                   [](const lang::SourceInput& source, const Row& row) { return source.name == row.name; });
    if (!same) {
        for (const Row& row : rows_)
            row.widget->deleteLater();
        rows_.clear();
        for (const lang::SourceInput& source : sources) {
            Row row{source.name, new QWidget(list_), nullptr, nullptr};
            row.widget->setFixedHeight(row_height);
            auto* line = new QHBoxLayout(row.widget);
            line->setContentsMargins(theme::margin, 0, theme::margin, 0);
            line->setSpacing(8);
            auto* name = new QLabel(row.widget);
            name->setFixedWidth(62);
            name->setText(name->fontMetrics().elidedText(of(source.name), Qt::ElideMiddle, 62));
            name->setToolTip(of(source.description.empty() ? source.name : source.name + ": " + source.description));
            row.label = quiet_label({}, row.widget, 11.5);
            row.label->setTextInteractionFlags(Qt::NoTextInteraction);
            row.button = new QToolButton(row.widget);
            row.button->setText(QString::fromUtf8("\u25be"));
            row.button->setFixedWidth(26);
            row.button->setAccessibleName(tr("What %1 reads").arg(of(source.name)));
            auto* menu = new QMenu(row.button);
            connect(menu, &QMenu::aboutToShow, this, [this, menu, source_name = source.name] {
                menu->clear();
                fill_menu(*menu, source_name);
            });
            row.button->setMenu(menu);
            row.button->setPopupMode(QToolButton::InstantPopup);
            line->addWidget(name);
            line->addWidget(row.label, 1);
            line->addWidget(row.button);
            list_->layout()->addWidget(row.widget);
            rows_.push_back(row);
        }
    }
    setVisible(!rows_.empty());
    refresh();
}

void SourcesPanel::set_missing(const std::vector<std::string>& missing) {
    if (missing == missing_)
        return;
    missing_ = missing;
    refresh();
}

QString SourcesPanel::said(const std::string& source) const {
    const auto given = model_.source_pictures().find(source);
    if (given == model_.source_pictures().end()) {
        const bool gone = std::find(missing_.begin(), missing_.end(), source) != missing_.end();
        return gone ? tr("not in every picture: 0 there") : tr("each picture\u2019s own layer");
    }
    QString text = file_or_target(given->second.picture);
    if (!given->second.layer.empty() && !handover::is_target(given->second.picture))
        text += ", " + of(given->second.layer);
    const subject::Bindings pictures = model_.given_pictures();
    const auto picture = pictures.find(source);
    if (picture == pictures.end())
        return text + tr(", is being read");
    // What happens when sizes differ is said before anybody wonders.
    QStringList others;
    for (const Cell& cell : model_.cells())
        if (const PicturePtr shown = model_.picture_of(cell); shown &&
            (shown->width != picture->second.picture->width || shown->height != picture->second.picture->height))
            if (const QString size = size_text(shown->width, shown->height); !others.contains(size))
                others << size;
    if (!others.isEmpty())
        text += tr(", %1 stretched to %2")
                    .arg(size_text(picture->second.picture->width, picture->second.picture->height), others.join(", "));
    return text;
}

void SourcesPanel::refresh() {
    int given = 0;
    for (const Row& row : rows_) {
        const QString text = said(row.name);
        row.label->setText(row.label->fontMetrics().elidedText(
            text, Qt::ElideMiddle, std::max(60, width() - 62 - 26 - 16 - 2 * theme::margin)));
        row.label->setToolTip(text + tr("\nDrop a picture file or the caption of a cell here"));
        row.label->setAccessibleName(of(row.name) + ": " + text);
        given += model_.source_pictures().contains(row.name) ? 1 : 0;
    }
    heading_->set_right(given == 0 ? QString() : tr("%1 given").arg(given));
}

void SourcesPanel::fill_menu(QMenu& menu, const std::string& source) {
    const auto given = model_.source_pictures().find(source);
    QAction* own = menu.addAction(tr("each picture\u2019s own layer or channel \u201c%1\u201d").arg(of(source)), this,
                                  [this, source] { model_.clear_source_picture(source); });
    own->setCheckable(true);
    own->setChecked(given == model_.source_pictures().end());
    menu.addSeparator();
    QStringList listed;
    for (const Cell& cell : model_.cells()) {
        if (cell.target)
            continue;
        for (const QString& layer : model_.layers_of(cell)) {
            const QString text = of(std::filesystem::path(cell.picture).filename().string()) +
                (layer.isEmpty() ? QString() : ", " + layer);
            if (listed.contains(text))
                continue;
            listed << text;
            QAction* action = menu.addAction(text, this, [this, source, path = cell.picture, layer] {
                model_.give(source, path, layer.toStdString());
            });
            action->setCheckable(true);
            action->setChecked(given != model_.source_pictures().end() &&
                               given->second == Given{cell.picture, layer.toStdString()});
        }
    }
    if (!listed.isEmpty())
        menu.addSeparator();
    add_target_actions(
        *menu.addMenu(tr("a generated target")), [](const targets::Target&) { return true; },
        [this, source](const targets::Target& target) { model_.give(source, target_named(target)); });
    menu.addAction(tr("Another picture\u2026"), this, [this, source] { ask(source); });
}

void SourcesPanel::ask(const std::string& source) {
    const QString file = QFileDialog::getOpenFileName(
        this, tr("Which picture is %1?").arg(of(source)), {},
        tr("Pictures (%1);;All files (*)").arg(patterns({FileKind::picture, FileKind::movie})));
    if (!file.isEmpty())
        model_.give(source, bytes_of(file));
}

const SourcesPanel::Row* SourcesPanel::row_at(const QPoint& global) const {
    if (!isVisible() || !rect().contains(mapFromGlobal(global)))
        return nullptr;
    for (const Row& row : rows_)
        if (row.widget->rect().contains(row.widget->mapFromGlobal(global)))
            return &row;
    return rows_.empty() ? nullptr : &rows_.front(); // on the heading
}

bool SourcesPanel::drop_cell(int id, const QPoint& global) {
    const Row* row = row_at(global);
    const Cell* cell = model_.find(id);
    if (!row || !cell)
        return false;
    if (cell->target)
        model_.give(row->name, target_named(*cell->target));
    else
        model_.give(row->name, cell->picture, cell->layer);
    return true;
}

void SourcesPanel::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
}

void SourcesPanel::dropEvent(QDropEvent* event) {
    const Row* row = row_at(mapToGlobal(event->position().toPoint()));
    for (const QUrl& url : event->mimeData()->urls())
        if (row && url.isLocalFile())
            model_.give(row->name, bytes_of(local_file(url)));
    event->acceptProposedAction();
}

} // namespace kasuri::app
