#pragma once
#include "handover/cube.hpp"
#include "model/session.hpp"

#include <QDialog>

#include <memory>
#include <optional>

class QButtonGroup;
class QLabel;
class QLineEdit;
class QPushButton;

namespace kasuri::app {

/// Hands the rule over as a LUT: size and domain, the measured error before anything is written, then the file.
/// Stays open beside the work; the table is computed in the background.
class BakeWindow : public QDialog {
    Q_OBJECT
public:
    BakeWindow(Session& session, QWidget* parent = nullptr);
    ~BakeWindow() override;
    /// Writes the measured table; what is said goes to `said`.
    void write_to(const QString& file);
    bool measured() const { return baked_ != nullptr; }

signals:
    void said(const QString& message, bool bad);

private:
    void measure();
    void show_measured(int ticket, const std::shared_ptr<Result<handover::Baked>>& result);

    Session& session_;
    QButtonGroup* sizes_;
    QLineEdit* low_;
    QLineEdit* high_;
    QLabel* error_;
    QPushButton* write_;
    std::shared_ptr<const handover::Baked> baked_;
    std::shared_ptr<const lang::Rule> rule_;
    std::vector<double> values_;
    CancelToken cancel_;
    int ticket_ = 0;
};

} // namespace kasuri::app
