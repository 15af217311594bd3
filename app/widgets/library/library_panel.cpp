#include "widgets/library/library_panel.hpp"

#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/words.hpp"
#include "widgets/files/files.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/library_tile.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/theme.hpp"

#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListView>
#include <QMenu>
#include <QMessageBox>
#include <QPainter>
#include <QSettings>
#include <QToolButton>

namespace kasuri::app {
namespace {
constexpr int detail_width = 284;
const QString folders_key = QStringLiteral("library/folders"), favourites_key = QStringLiteral("library/favourites");
} // namespace

LibraryPanel::LibraryPanel(Bench& bench, Files& files, LookActions& look, QWidget* parent)
    : QWidget(parent), bench_(bench), files_(files), look_(look), model_(new LibraryModel(this)) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 1, 0, 0);
    column->setSpacing(0);
    column->addWidget(heading());
    auto* row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    make_list();
    row->addWidget(list_, 1);
    row->addWidget(details());
    column->addLayout(row, 1);
    connect_model();
    model_->set_favourites(QSettings().value(favourites_key).toStringList());
    own_folders_ = QSettings().value(folders_key).toStringList();
    show_chosen();
}

Heading* LibraryPanel::heading() {
    auto* made = new Heading(tr("Library"), this);
    search_ = new QLineEdit(this);
    search_->setObjectName("library_search");
    search_->setPlaceholderText(tr("title, note, tag, function \u2026"));
    search_->setAccessibleName(tr("Search the library"));
    search_->setClearButtonEnabled(true);
    search_->setFixedWidth(240);
    search_->installEventFilter(this);
    count_ = quiet_label({}, this, 11.5);
    auto* folders = new QToolButton(this);
    folders->setObjectName("library_folders");
    folders->setText(tr("folders") + " \u25be");
    folders->setFont(theme::face(11.5));
    folders->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(folders);
    folders->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] { choose_folders(*menu); });
    auto* away = new QToolButton(this);
    away->setText(tr("close"));
    away->setFont(theme::face(11.5));
    away->setToolTip(tr("Put the library away (Ctrl+B)"));
    connect(away, &QToolButton::clicked, this, &LibraryPanel::closed);
    made->add_control(search_);
    made->add_control(count_);
    made->add_control(folders);
    made->add_control(away);
    return made;
}

void LibraryPanel::make_list() {
    list_ = new QListView(this);
    list_->setObjectName("library");
    list_->setModel(model_);
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setUniformItemSizes(true);
    list_->setMinimumHeight(LibraryTile::picture_height + 52);
    list_->setDragEnabled(true);
    list_->setDragDropMode(QAbstractItemView::DragOnly);
    list_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setVerticalScrollMode(QAbstractItemView::ScrollPerPixel);
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    list_->setItemDelegate(new LibraryTile(list_));
    list_->setAccessibleName(tr("Filters and looks"));
    list_->installEventFilter(this);
}

QWidget* LibraryPanel::details() {
    auto* detail = new QWidget(this);
    detail->setFixedWidth(detail_width);
    auto* lines = new QVBoxLayout(detail);
    lines->setContentsMargins(theme::margin, 8, theme::margin, 8);
    lines->setSpacing(4);
    title_ = new QLabel(detail);
    title_->setFont(theme::face(12.5, true));
    title_->setWordWrap(true);
    note_ = quiet_label({}, detail, 11.5);
    note_->setWordWrap(true);
    note_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    note_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Ignored); // what does not fit is in its tool tip
    fault_ = new QLabel(detail);
    fault_->setFont(theme::face(11.5));
    fault_->setWordWrap(true);
    theme::tint(fault_, theme::bad);
    lines->addWidget(title_);
    lines->addWidget(note_, 1);
    lines->addWidget(fault_);
    lines->addLayout(act_row(detail));
    return detail;
}

QHBoxLayout* LibraryPanel::act_row(QWidget* detail) {
    auto* acts = new QHBoxLayout;
    acts->setSpacing(0);
    const auto act = [&](const QString& text, const QString& tip, void (LibraryPanel::*what)()) {
        auto* button = new QToolButton(detail);
        button->setText(text);
        button->setFont(theme::face(11.5));
        button->setToolTip(tip);
        connect(button, &QToolButton::clicked, this, what);
        acts->addWidget(button);
        acts_.push_back(button);
    };
    act(tr("open"), tr("On the bench (Return)"), &LibraryPanel::open_current);
    make_presets(detail);
    acts->addWidget(presets_);
    act(tr("add as a step"), tr("Behind the active step (Shift+Return); or drag it onto the line of steps"),
        &LibraryPanel::add_as_step);
    act(tr("compare"), tr("Before is what it makes; of two chosen ones, the first is opened and the second is before"),
        &LibraryPanel::compare);
    acts->addStretch(1);
    return acts;
}

void LibraryPanel::make_presets(QWidget* detail) {
    presets_ = new QToolButton(detail);
    presets_->setObjectName("library_presets");
    presets_->setText(tr("at") + " \u25be");
    presets_->setFont(theme::face(11.5));
    presets_->setToolTip(tr("Open it at one of its presets"));
    presets_->setPopupMode(QToolButton::InstantPopup);
    auto* of_presets = new QMenu(presets_);
    presets_->setMenu(of_presets);
    connect(of_presets, &QMenu::aboutToShow, this, [this, of_presets] {
        of_presets->clear();
        for (const QString& preset : list_->currentIndex().data(LibraryModel::presets_role).toStringList())
            of_presets->addAction(preset, this, [this, preset] { open_preset(preset); });
    });
}

void LibraryPanel::connect_model() {
    connect(search_, &QLineEdit::textChanged, model_, &LibraryModel::set_query);
    connect(model_, &LibraryModel::modelReset, this, [this] {
        if (model_->rowCount() > 0)
            list_->setCurrentIndex(model_->index(0));
        count();
        show_chosen();
    });
    connect(model_, &LibraryModel::read, this, &LibraryPanel::count);
    connect(model_, &LibraryModel::dataChanged, this, &LibraryPanel::show_chosen);
    connect(model_, &LibraryModel::favourites_changed, this,
            [this] { QSettings().setValue(favourites_key, model_->favourites()); });
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, &LibraryPanel::show_chosen);
    connect(list_, &QListView::doubleClicked, this, &LibraryPanel::open_current);
    connect(list_, &QListView::customContextMenuRequested, this, [this](const QPoint& at) {
        pop_up(this, list_->viewport()->mapToGlobal(at), [this](QMenu& menu) { fill_menu(menu); });
    });
}

void LibraryPanel::begin() {
    set_folders();
    search_->setFocus();
    search_->selectAll();
}

void LibraryPanel::set_folders() {
    std::vector<std::filesystem::path> folders = usual_library_folders();
    for (const QString& folder : own_folders_)
        folders.push_back(bytes_of(folder));
    const std::filesystem::path project = bench_.session().path().parent_path(); // the one that is being worked in
    std::error_code error;
    if (!project.empty())
        folders.push_back(std::filesystem::absolute(project, error));
    // Once is enough, also for folders within others.
    std::vector<std::filesystem::path> once;
    for (const std::filesystem::path& folder : folders) {
        const std::filesystem::path whole = std::filesystem::weakly_canonical(folder, error);
        const bool within = std::any_of(once.begin(), once.end(), [&](const std::filesystem::path& other) {
            return whole == other || whole.string().starts_with(other.string() + "/");
        });
        if (!within && std::filesystem::is_directory(whole, error))
            once.push_back(whole);
    }
    model_->set_folders(std::move(once));
}

void LibraryPanel::add_folder(const QString& folder) {
    if (!own_folders_.contains(folder))
        own_folders_ << folder;
    set_folders();
    emit folders_changed();
}

void LibraryPanel::keep_folder(const QString& folder) {
    add_folder(folder);
    QSettings().setValue(folders_key, own_folders_);
}

void LibraryPanel::remove_folder(const QString& folder) {
    own_folders_.removeAll(folder);
    QSettings().setValue(folders_key, own_folders_);
    set_folders();
    emit folders_changed();
}

void LibraryPanel::choose_folders(QMenu& menu) {
    menu.clear();
    for (const std::filesystem::path& folder : model_->folders()) {
        const QString name = text_of(folder);
        if (own_folders_.contains(name))
            menu.addAction(tr("Leave out %1").arg(name), this, [this, name] { remove_folder(name); });
        else
            menu.addAction(name)->setEnabled(false);
    }
    menu.addSeparator();
    menu.addAction(tr("Add a folder\u2026"), this, [this] {
        const QString folder = QFileDialog::getExistingDirectory(this, tr("Which folder of filters?"));
        if (!folder.isEmpty())
            keep_folder(folder);
    });
}

QString LibraryPanel::current() const { return list_->currentIndex().data(LibraryModel::path_role).toString(); }

void LibraryPanel::count() {
    const int shown = model_->rowCount(), all = model_->all();
    count_->setText(model_->reading()  ? tr("reading \u2026")
                        : shown == all ? tr("%1 in all").arg(all)
                                       : tr("%1 of %2").arg(shown).arg(all));
}

void LibraryPanel::show_chosen() {
    const QModelIndex index = list_->currentIndex();
    const bool any = index.isValid();
    title_->setText(any                      ? index.data().toString()
                        : model_->all() == 0 ? tr("Nothing here yet")
                                             : tr("Nothing is found"));
    QStringList told, presets;
    if (any) {
        const QString note = index.data(LibraryModel::note_role).toString(),
                      tags = index.data(LibraryModel::tags_role).toString();
        if (const int steps = index.data(LibraryModel::look_role).toInt(); steps > 0)
            told << counted(steps, tr("A look of 1 step."), tr("A look of %1 steps."));
        if (!note.isEmpty())
            told << note;
        if (!tags.isEmpty())
            told << tags;
        presets = index.data(LibraryModel::presets_role).toStringList();
        if (!presets.isEmpty())
            told << tr("Presets: %1").arg(presets.join(", "));
    } else if (model_->all() > 0) {
        told << tr("Search for fewer words.");
    }
    note_->setText(told.join('\n'));
    note_->setToolTip(note_->text());
    const QString fault = index.data(LibraryModel::fault_role).toString();
    fault_->setText(fault);
    fault_->setVisible(!fault.isEmpty());
    for (QToolButton* button : acts_)
        button->setEnabled(any);
    presets_->setEnabled(!presets.isEmpty());
}

void LibraryPanel::open_current() {
    if (const QString path = current(); !path.isEmpty())
        files_.open(path);
}

void LibraryPanel::open_preset(const QString& preset) {
    if (const QString path = current(); !path.isEmpty())
        files_.open_at(path, preset);
}

void LibraryPanel::add_as_step() {
    if (const QString path = current(); !path.isEmpty())
        look_.add_files({path}, bench_.look().current() + 1);
}

void LibraryPanel::compare() {
    const QModelIndexList chosen = list_->selectionModel()->selectedIndexes();
    if (chosen.size() > 2) {
        emit said(tr("Two can be compared, not %1.").arg(chosen.size()), true);
        return;
    }
    QString with = current();
    if (chosen.size() == 2) {
        const QString first =
            chosen[chosen[0].row() < chosen[1].row() ? 0 : 1].data(LibraryModel::path_role).toString();
        with = chosen[chosen[0].row() < chosen[1].row() ? 1 : 0].data(LibraryModel::path_role).toString();
        files_.open(first);
        if (bench_.session().path().string() != bytes_of(first) && bench_.look().path().string() != bytes_of(first))
            return; // it was not opened
    }
    if (const Status opened = bench_.against().open(with.toStdString()); !opened)
        bench_.refuse(opened.error());
}

void LibraryPanel::rename() {
    const QString path = current();
    bool accepted = false;
    const QString name = QInputDialog::getText(this, tr("Rename the file"), tr("Name:"), QLineEdit::Normal,
                                               QFileInfo(path).completeBaseName(), &accepted);
    if (!accepted)
        return;
    if (const Status done = model_->rename(path, name); !done)
        emit said(QString::fromStdString(done.error().text()), true);
}

void LibraryPanel::duplicate() {
    const Result<QString> made = model_->duplicate(current());
    emit said(made ? tr("Copied to %1").arg(made.value()) : QString::fromStdString(made.error().text()), !made);
}

void LibraryPanel::to_trash() {
    const QString path = current();
    if (const Status done = model_->to_trash(path); !done)
        emit said(QString::fromStdString(done.error().text()), true);
    else
        emit said(tr("%1 is in the trash").arg(QFileInfo(path).fileName()), false);
}

void LibraryPanel::fill_menu(QMenu& menu) {
    const QModelIndex index = list_->currentIndex();
    if (!index.isValid())
        return;
    const QString path = current();
    const bool favourite = index.data(LibraryModel::favourite_role).toBool();
    menu.addAction(tr("Open"), this, &LibraryPanel::open_current);
    menu.addAction(tr("Add as a step"), this, &LibraryPanel::add_as_step);
    menu.addAction(list_->selectionModel()->selectedIndexes().size() == 2 ? tr("Compare these two")
                                                                          : tr("Compare with it"),
                   this, &LibraryPanel::compare);
    menu.addSeparator();
    menu.addAction(favourite ? tr("No favourite any more") : tr("A favourite"), this,
                   [this, path, favourite] { model_->set_favourite(path, !favourite); });
    menu.addAction(tr("Rename the file\u2026"), this, &LibraryPanel::rename);
    menu.addAction(tr("Duplicate"), this, &LibraryPanel::duplicate);
    menu.addAction(tr("Move to the trash"), this, &LibraryPanel::to_trash);
}

bool LibraryPanel::eventFilter(QObject* object, QEvent* event) {
    if (event->type() != QEvent::KeyPress)
        return QWidget::eventFilter(object, event);
    const auto* key = static_cast<QKeyEvent*>(event);
    switch (key->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (key->modifiers() & Qt::ShiftModifier)
            add_as_step();
        else
            open_current();
        return true;
    case Qt::Key_Escape:
        if (object == search_ && !search_->text().isEmpty())
            search_->clear();
        else
            emit closed();
        return true;
    case Qt::Key_Down:
        if (object == search_) {
            list_->setFocus();
            return true;
        }
        break;
    case Qt::Key_Delete:
        if (object == list_) {
            to_trash();
            return true;
        }
        break;
    case Qt::Key_F2:
        if (object == list_) {
            rename();
            return true;
        }
        break;
    default: break;
    }
    return QWidget::eventFilter(object, event);
}

void LibraryPanel::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, 0, width(), 1, theme::hairline);
}

} // namespace kasuri::app
