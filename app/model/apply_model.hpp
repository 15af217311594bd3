#pragma once
#include "base/cancel.hpp"
#include "handover/batch.hpp"
#include "model/display.hpp"

#include <QAbstractListModel>
#include <QImage>
#include <QString>
#include <QThreadPool>

#include <map>
#include <memory>
#include <string>
#include <thread>
#include <vector>

namespace kasuri::app {

/// Pictures that a rule or a look is applied to: a contact sheet of how they come out, made in the background, and
/// their rendering to files.
class ApplyModel : public QAbstractListModel {
    Q_OBJECT
public:
    enum Role { path_role = Qt::UserRole, written_role };
    explicit ApplyModel(QObject* parent = nullptr);
    ~ApplyModel() override;

    void set_subject(std::shared_ptr<const subject::Subject> subject);
    /// As which the contact sheet is shown.
    void set_screen(const Screen& screen);
    /// As BatchOrder::inputs. The error if there is nothing; then the list stays as it is.
    Status set_inputs(const std::vector<std::string>& inputs);
    const std::vector<std::string>& inputs() const { return inputs_; }

    /// What was said of pictures' spaces, by path, before what their files say. Frames of one sequence mean the same.
    void set_said_spaces(std::map<std::string, std::string> spaces);
    /// Of each of `items`, where something was said.
    std::map<std::filesystem::path, std::string> spaces_of(const std::vector<handover::BatchItem>& items) const;

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : static_cast<int>(items_.size());
    }
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;

    /// Begins to render; told by `progressed`, at the end by `finished`. The error if it cannot begin.
    Status render(const handover::BatchOrder& order, handover::BatchOptions options);
    void cancel() { rendering_cancel_.cancel(); }
    bool rendering() const { return rendering_; }
    bool drawing() const { return waiting_ > 0; }
    const handover::BatchReport& report() const { return report_; }

signals:
    void progressed(std::size_t done, std::size_t all, double seconds_left);
    void finished();
    void drawn();

private:
    struct Item {
        std::filesystem::path path;
        QImage picture;
        QString fault;
        bool written = false;
        std::string space{}; ///< that was said
    };
    void draw();
    void mark(const std::vector<std::filesystem::path>& paths, bool written, const QString& fault);

    std::shared_ptr<const subject::Subject> subject_;
    std::vector<std::string> inputs_;
    std::vector<Item> items_;
    std::map<std::string, std::string> said_spaces_;
    Screen screen_;
    QThreadPool pool_;
    CancelToken drawing_cancel_, rendering_cancel_;
    std::uint64_t drawing_ = 0;
    int waiting_ = 0;
    std::thread thread_;
    bool rendering_ = false;
    handover::BatchReport report_;
};

} // namespace kasuri::app
