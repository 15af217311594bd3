#pragma once
#include "model/recovery_keeper.hpp"

class QWidget;

namespace kasuri::app {

class Bench;

/// Keeps unsaved work where a crash does not reach it, and offers what was kept.
class Recovery : public QObject {
    Q_OBJECT
public:
    Recovery(Bench& bench, QWidget* window);

    /// From now on unsaved work is kept in `folder`; what programs that are gone left there is offered.
    void keep_in(const std::filesystem::path& folder);
    void bring_back(const LeftBehind& left);
    /// Null before keep_in.
    RecoveryKeeper* keeper() const { return keeper_; }

private:
    Bench& bench_;
    QWidget* window_;
    RecoveryKeeper* keeper_ = nullptr;
};

} // namespace kasuri::app
