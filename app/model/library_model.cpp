#include "model/library_model.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "document/filter_file.hpp"
#include "handover/render.hpp"
#include "look/make.hpp"
#include "model/display.hpp"
#include "model/file_names.hpp"
#include "proof/proof.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QMimeData>
#include <QPointer>
#include <QStandardPaths>
#include <QUrl>

#include <algorithm>
#include <tuple>
#include <utility>

namespace kasuri::app {
namespace {

constexpr int pause_ms = 150;

QString text(const std::string& from) { return QString::fromStdString(from); }

/// A filter at its first preset, or a look.
Result<subject::Subject> subject_of(const document::LibraryEntry& entry) {
    if (entry.is_look) {
        const Result<document::Look> look = document::load_look(entry.path);
        if (!look)
            return look.error();
        Result<look::Made> made = look::make(look.value(), entry.path.parent_path());
        if (!made)
            return made.error();
        return made.value().subject;
    }
    lang::CheckOptions options;
    options.open = document::used_beside(entry.path);
    lang::Checked checked = lang::check(entry.text, proof::vocabulary(), options);
    for (const lang::Diagnostic& d : checked.diagnostics)
        if (!checked.ok && d.severity == lang::Severity::error)
            return Error{lang::message(d), said("line {}", line_column(entry.text, d.span.begin).line), ""};
    subject::Subject subject(std::move(checked.rule));
    const std::vector<lang::Preset>& presets = subject.rule()->presets;
    return presets.empty() ? subject : subject.at(presets.front().values);
}

} // namespace

QImage library_thumbnail(const document::LibraryEntry& entry, const image::Picture& sample, std::string& fault,
                         const Screen& screen) {
    fault = entry.fault;
    if (!fault.empty())
        return {};
    Result<subject::Subject> subject = subject_of(entry);
    if (!subject) {
        fault = subject.error().text();
        return {};
    }
    subject::Bindings pictures; // a filter that reads further pictures gets channels of this one
    for (const lang::SourceInput& source : subject.value().sources()) {
        image::Picture one = sample;
        if (const std::size_t i = pictures.size() % 3; source.type == lang::float_type)
            one.planes = {sample.planes[i], sample.planes[i], sample.planes[i], nullptr};
        pictures.try_emplace(source.name,
                             subject::Bound{std::make_shared<const image::Picture>(std::move(one)), {}, {}});
    }
    const std::optional<image::Picture> made =
        handover::applied(subject.value().with_bindings(std::move(pictures)), sample);
    return made ? shown(*made, lens("colour"), screen) : QImage();
}

std::filesystem::path own_library_folder() {
    const std::filesystem::path folder =
        std::filesystem::path(QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation).toStdString()) /
        "kasuri/filters";
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    return folder;
}

std::vector<std::filesystem::path> usual_library_folders() {
    std::vector<std::filesystem::path> folders = {own_library_folder()};
    QStringList shipped;
    for (const char* kind : {"filters", "looks"})
        shipped << QStandardPaths::locateAll(QStandardPaths::GenericDataLocation, QStringLiteral("kasuri/%1").arg(kind),
                                             QStandardPaths::LocateDirectory)
                << QDir(QCoreApplication::applicationDirPath() + QStringLiteral("/../share/kasuri/%1").arg(kind))
                       .absolutePath();
    for (const QString& folder : shipped) {
        const std::filesystem::path path = QDir(folder).canonicalPath().toStdString();
        if (!path.empty() && std::find(folders.begin(), folders.end(), path) == folders.end())
            folders.push_back(path);
    }
    return folders;
}

LibraryModel::LibraryModel(QObject* parent) : QAbstractListModel(parent) {
    pool_.setMaxThreadCount(1); // the sheet comes first
    pool_.setThreadPriority(QThread::LowPriority);
    pause_.setSingleShot(true);
    pause_.setInterval(pause_ms);
    connect(&pause_, &QTimer::timeout, this, &LibraryModel::look);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, &pause_, qOverload<>(&QTimer::start));
}

LibraryModel::~LibraryModel() {
    stop_.cancel();
    pool_.clear();
    pool_.waitForDone();
    reader_.waitForDone();
}

void LibraryModel::set_folders(std::vector<std::filesystem::path> folders) {
    if (folders == folders_)
        return;
    folders_ = std::move(folders);
    look();
}

void LibraryModel::look() {
    if (reading_) {
        again_ = true;
        return;
    }
    reading_ = true;
    std::map<std::string, ItemPtr> known = entries_;
    reader_.start([this, folders = folders_, known = std::move(known), stop = stop_] {
        auto found = std::make_shared<std::map<std::string, ItemPtr>>();
        auto below = std::make_shared<QStringList>();
        for (const std::filesystem::path& folder : folders) {
            for (const std::filesystem::path& each : document::library_folders(folder))
                *below << text_of(each);
            for (const std::filesystem::path& path : document::library_files(folder)) {
                if (stop.cancelled())
                    return;
                const auto kept = known.find(path.string());
                if (kept != known.end() && document::same_file(kept->second->entry)) {
                    (*found)[path.string()] = kept->second;
                    continue;
                }
                auto item = std::make_shared<Item>();
                const Status read = within_memory("", [&]() -> Status {
                    item->entry = document::library_entry(path);
                    return {};
                });
                item->fault = read ? item->entry.fault : read.error().text();
                (*found)[path.string()] = std::move(item);
            }
        }
        QMetaObject::invokeMethod(
            this,
            [this, found, below] {
                entries_ = std::move(*found);
                QStringList watched = watcher_.directories();
                for (const QString& folder : *below)
                    if (!watched.removeAll(folder) && QFile::exists(folder))
                        watcher_.addPath(folder);
                if (!watched.isEmpty())
                    watcher_.removePaths(watched);
                reading_ = false;
                sort_out();
                emit read();
                draw();
                if (std::exchange(again_, false))
                    look();
            },
            Qt::QueuedConnection);
    });
}

void LibraryModel::sort_out() {
    std::vector<ItemPtr> shown;
    const std::string wanted = query_.toStdString();
    for (const auto& [path, item] : entries_)
        if (document::matches(item->entry, wanted))
            shown.push_back(item);
    std::stable_sort(shown.begin(), shown.end(), [this](const ItemPtr& a, const ItemPtr& b) {
        const auto key = [this](const ItemPtr& item) { // of what is looked for by its title, the title counts
            return std::make_tuple(!query_.isEmpty() &&
                                       !text(item->entry.title).contains(query_.trimmed(), Qt::CaseInsensitive),
                                   !favourites_.contains(item->entry.path.string()), text(item->entry.title).toLower(),
                                   item->entry.path.string());
        };
        return key(a) < key(b);
    });
    if (shown == shown_)
        return;
    beginResetModel();
    shown_ = std::move(shown);
    endResetModel();
}

void LibraryModel::set_query(const QString& query) {
    query_ = query;
    sort_out();
}

void LibraryModel::set_sample(PicturePtr sample, const Screen& screen) {
    if (sample == sample_ && screen == screen_)
        return;
    sample_ = std::move(sample);
    screen_ = screen;
    ++sample_number_;
    draw();
}

void LibraryModel::draw() {
    if (!sample_)
        return;
    pool_.clear(); // what waits is for an older sample, or is asked for again
    waiting_ = 0;
    std::vector<ItemPtr> order = shown_; // what is seen comes first
    for (const auto& [path, item] : entries_)
        if (std::find(shown_.begin(), shown_.end(), item) == shown_.end())
            order.push_back(item);
    for (const ItemPtr& item : order) {
        if (item->checked && item->sample == sample_number_)
            continue;
        ++waiting_;
        pool_.start([this, item, sample = sample_, screen = screen_, number = sample_number_, stop = stop_] {
            if (stop.cancelled())
                return;
            std::string fault;
            const Result<QImage> made = within_memory(
                "", [&]() -> Result<QImage> { return library_thumbnail(item->entry, *sample, fault, screen); });
            if (!made)
                fault = made.error().text();
            const QImage picture = made ? made.value() : QImage();
            QMetaObject::invokeMethod(
                this,
                [this, path = item->entry.path.string(), number, picture, fault] {
                    drew(path, number, picture, fault);
                },
                Qt::QueuedConnection);
        });
    }
    if (waiting_ == 0)
        emit drawn();
}

void LibraryModel::drew(const std::string& path, std::uint64_t sample, const QImage& picture,
                        const std::string& fault) {
    const auto found = entries_.find(path);
    if (found == entries_.end() || sample != sample_number_)
        return;
    found->second->picture = picture;
    found->second->fault = fault;
    found->second->checked = true;
    found->second->sample = sample;
    if (const QModelIndex index = index_of(text(path)); index.isValid())
        emit dataChanged(index, index);
    if (waiting_ > 0 && --waiting_ == 0)
        emit drawn();
}

QModelIndex LibraryModel::index_of(const QString& path) const {
    const std::string wanted = bytes_of(path);
    for (std::size_t i = 0; i < shown_.size(); ++i)
        if (shown_[i]->entry.path.string() == wanted)
            return index(static_cast<int>(i));
    return {};
}

QVariant LibraryModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || static_cast<std::size_t>(index.row()) >= shown_.size())
        return {};
    const Item& item = *shown_[static_cast<std::size_t>(index.row())];
    switch (role) {
    case Qt::DisplayRole: return text(item.entry.title);
    case Qt::DecorationRole: return item.picture;
    case Qt::ToolTipRole:
        return text(item.entry.title + (item.fault.empty() ? "" : "\nError: " + item.fault) +
                    (item.entry.note.empty() ? "" : "\n" + item.entry.note) + "\n" + item.entry.path.string());
    case Qt::AccessibleTextRole:
        return text(item.entry.title) + (item.fault.empty() ? QString() : tr(", has an error")) +
            (favourites_.contains(item.entry.path.string()) ? tr(", a favourite") : QString());
    case path_role: return text_of(item.entry.path);
    case note_role: return text(item.entry.note);
    case tags_role: return text(item.entry.tags);
    case presets_role: {
        QStringList list;
        for (const std::string& preset : item.entry.presets)
            list << text(preset);
        return list;
    }
    case fault_role: return text(item.fault);
    case favourite_role: return favourites_.contains(item.entry.path.string());
    case look_role: return item.entry.is_look ? static_cast<int>(item.entry.steps) : 0;
    default: return {};
    }
}

QMimeData* LibraryModel::mimeData(const QModelIndexList& indexes) const {
    auto* data = new QMimeData;
    QList<QUrl> urls;
    for (const QModelIndex& index : indexes)
        urls << url_of(index.data(path_role).toString());
    data->setUrls(urls);
    return data;
}

void LibraryModel::set_favourites(const QStringList& paths) {
    favourites_.clear();
    for (const QString& path : paths)
        favourites_.insert(bytes_of(path));
    sort_out();
}

QStringList LibraryModel::favourites() const {
    QStringList list;
    for (const std::string& path : favourites_)
        list << text(path);
    return list;
}

void LibraryModel::set_favourite(const QString& path, bool favourite) {
    if (favourite)
        favourites_.insert(bytes_of(path));
    else
        favourites_.erase(bytes_of(path));
    sort_out();
    if (const QModelIndex index = index_of(path); index.isValid())
        emit dataChanged(index, index);
    emit favourites_changed();
}

Status LibraryModel::rename(const QString& path, const QString& name) {
    const std::filesystem::path from = bytes_of(path);
    if (name.trimmed().isEmpty() || name.contains('/'))
        return Error{"is not a name for a file", name.toStdString(), "A name without slashes is needed."};
    std::filesystem::path to = from.parent_path() / name.trimmed().toStdString();
    if (to.extension() != from.extension())
        to += from.extension();
    std::error_code error;
    if (to == from)
        return {};
    if (std::filesystem::exists(to, error))
        return Error{"is there already", to.string(), "Choose another name."};
    std::filesystem::rename(from, to, error);
    if (error)
        return Error{said("cannot be renamed: {}", error.message()), from.string(), ""};
    if (favourites_.contains(from.string())) {
        favourites_.erase(from.string());
        favourites_.insert(to.string());
        emit favourites_changed();
    }
    look();
    return {};
}

Result<QString> LibraryModel::duplicate(const QString& path) {
    const std::filesystem::path from = bytes_of(path);
    std::filesystem::path to = document::free_name(from);
    std::error_code error;
    std::filesystem::copy_file(from, to, error);
    if (error) { // where the program is installed nothing can be written: the copy is the user's own
        to = document::free_name(own_library_folder() / from.filename());
        error.clear();
        std::filesystem::copy_file(from, to, error);
    }
    if (error)
        return Error{said("cannot be copied: {}", error.message()), from.string(), ""};
    std::filesystem::permissions(to, std::filesystem::perms::owner_write, std::filesystem::perm_options::add, error);
    look();
    return text_of(to);
}

Status LibraryModel::to_trash(const QString& path) {
    if (!QFile::moveToTrash(path))
        return Error{"cannot be moved to the trash", bytes_of(path),
                     "It may belong to somebody else, or there is no trash on that disk."};
    look();
    return {};
}

} // namespace kasuri::app
