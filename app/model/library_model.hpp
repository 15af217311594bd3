#pragma once
#include "base/cancel.hpp"
#include "document/library.hpp"
#include "model/display.hpp"
#include "model/rule_state.hpp"

#include <QAbstractListModel>
#include <QFileSystemWatcher>
#include <QImage>
#include <QThreadPool>
#include <QTimer>

#include <atomic>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

namespace kasuri::app {

/// The filters and looks of some folders, those that match a search, favourites first. Folders are watched; reading,
/// checking and thumbnails happen in the background, in this order, so that there is something to search at once.
class LibraryModel : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role {
        path_role = Qt::UserRole, ///< QString
        note_role,
        tags_role,
        presets_role, ///< QStringList
        fault_role,   ///< empty: it compiles
        favourite_role,
        look_role, ///< how many steps, 0 for a filter
    };
    explicit LibraryModel(QObject* parent = nullptr);
    ~LibraryModel() override;

    void set_folders(std::vector<std::filesystem::path> folders);
    const std::vector<std::filesystem::path>& folders() const { return folders_; }
    void set_query(const QString& query);
    const QString& query() const { return query_; }
    /// What thumbnails are made of: something small. Null: none are made.
    void set_sample(PicturePtr sample, const Screen& screen = {});
    void set_favourites(const QStringList& paths);
    QStringList favourites() const;
    void set_favourite(const QString& path, bool favourite);
    /// Looks at the folders now; otherwise a moment after something in them changes.
    void look();

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : static_cast<int>(shown_.size());
    }
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override {
        return QAbstractListModel::flags(index) | Qt::ItemIsDragEnabled;
    }
    QStringList mimeTypes() const override { return {"text/uri-list"}; }
    QMimeData* mimeData(const QModelIndexList& indexes) const override;
    int all() const { return static_cast<int>(entries_.size()); }
    bool reading() const { return reading_; }
    bool busy() const { return reading_ || waiting_ > 0; } ///< thumbnails too
    QModelIndex index_of(const QString& path) const;

    // What can be done with files. Errors say why, and change nothing.
    Status rename(const QString& path, const QString& name);
    Result<QString> duplicate(const QString& path);
    Status to_trash(const QString& path);

signals:
    void read();  ///< everything can be searched
    void drawn(); ///< all thumbnails are there
    void favourites_changed();

private:
    struct Item {
        document::LibraryEntry entry;
        std::string fault;
        bool checked = false;
        QImage picture;
        std::uint64_t sample = 0; ///< what the picture was made of
    };
    using ItemPtr = std::shared_ptr<Item>;
    void sort_out();
    void draw();
    void drew(const std::string& path, std::uint64_t sample, const QImage& picture, const std::string& fault);

    std::vector<std::filesystem::path> folders_;
    std::map<std::string, ItemPtr> entries_; ///< by path
    std::vector<ItemPtr> shown_;
    std::set<std::string> favourites_;
    QString query_;
    PicturePtr sample_;
    Screen screen_;
    std::uint64_t sample_number_ = 0;
    QFileSystemWatcher watcher_;
    QTimer pause_;
    QThreadPool pool_, reader_; ///< thumbnails; files
    CancelToken stop_;
    bool reading_ = false, again_ = false;
    int waiting_ = 0;
};

/// Where filters are: what is installed with the program, the user's own, and folders that were added.
std::vector<std::filesystem::path> usual_library_folders();
/// The user's own folder, which is there when this returns.
std::filesystem::path own_library_folder();

/// A small picture through a filter at its first preset (a filter does nothing at its defaults), or through a look. The
/// fault if it does not compile.
QImage library_thumbnail(const document::LibraryEntry& entry, const image::Picture& sample, std::string& fault,
                         const Screen& screen = {});

} // namespace kasuri::app
