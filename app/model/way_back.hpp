#pragma once
#include "base/cancel.hpp"
#include "inverse/look.hpp"

#include <QObject>
#include <QString>

#include <filesystem>
#include <memory>

namespace kasuri::app {

/// The way back from steps of a look (inverse/look), worked out in the background.
class WayBack : public QObject {
    Q_OBJECT
public:
    explicit WayBack(QObject* parent = nullptr);
    ~WayBack() override;

    /// The latest request counts; what is under way is called off. `tables`: also where a rule cannot be solved; LUTs
    /// have tables always. `whole`: it is a look, not a step out of one.
    void find(document::Look look, std::filesystem::path folder, bool tables = false, bool whole = true);
    void cancel();
    bool running() const { return running_; }
    /// Nothing while it is running, and where nothing could be tried.
    const inverse::LookBack* made() const;
    /// What came of it: what is lost or in the way, how exact it is, and for which values. One line for each.
    const QString& words() const { return words_; }
    /// The rules of the way back, one after the other, each below a line with its name.
    QString text() const;

signals:
    void finished();

private:
    using Made = std::shared_ptr<const Result<inverse::LookBack>>;
    void done(int ticket, const Made& made);

    Made made_;
    QString words_;
    CancelToken cancel_;
    int ticket_ = 0;
    bool running_ = false;
};

} // namespace kasuri::app
