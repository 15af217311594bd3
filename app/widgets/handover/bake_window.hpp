#pragma once
#include "base/cancel.hpp"
#include "handover/cube.hpp"
#include "model/look_model.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"

#include <QDialog>

#include <memory>
#include <optional>
#include <string>

class QButtonGroup;
class QCheckBox;
class QHBoxLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QToolButton;

namespace kasuri::app {

/// Hands the rule or the look over as a LUT: size, domain and spaces, the measured error before anything is written,
/// the smallest size for a wished error, then the file. Stays open beside the work; the table is computed in the
/// background.
class BakeWindow : public QDialog {
    Q_OBJECT
public:
    BakeWindow(Session& session, LookModel& look, SheetModel& sheet, QWidget* parent = nullptr);
    ~BakeWindow() override;
    /// Writes the table, in the background; what the file is, as it was read back, goes to `said`.
    void write_to(const QString& file);
    bool writing() const { return writing_; }
    bool measured() const { return baked_ != nullptr; }
    const baking::Baked* baked() const { return baked_.get(); }
    QString words() const;

signals:
    void said(const QString& message, bool bad);

private:
    QHBoxLayout* size_row();
    QHBoxLayout* wished_row();
    QHBoxLayout* domain_row();
    QHBoxLayout* space_row();
    QLineEdit* field(const QString& text, const QString& name);
    void ask_write();
    void measure();
    void find_size();
    void start(bool search);
    void show_measured(int ticket, const std::shared_ptr<Result<baking::Baked>>& result);
    void show_written(const QString& file, const Result<handover::LutFile>& written);
    QToolButton* space_button(std::string& space, const QString& usual, const QString& name);

    Session& session_;
    LookModel& look_;
    SheetModel& sheet_;
    QButtonGroup* sizes_;
    QLineEdit* low_;
    QLineEdit* high_;
    QLineEdit* wished_;
    QCheckBox* shaper_;
    QLabel* error_;
    QPushButton* write_;
    std::string in_space_, out_space_; ///< empty: the working space
    std::shared_ptr<const baking::Baked> baked_;
    std::shared_ptr<const subject::Subject> subject_;
    CancelToken cancel_;
    int ticket_ = 0;
    bool writing_ = false;
};

} // namespace kasuri::app
