#pragma once
#include "model/preview_result.hpp"

#include <QWidget>

#include <array>
#include <cstddef>
#include <set>
#include <string>

class QToolButton;

namespace kasuri::app {

class Bench;
class Files;
class HandoverActions;

/// The first minute beside a working bench: what there is to do in one row, each ticked when it has been done, in any
/// order. A click says how. It goes for good when it is closed, and when all is done.
class FirstMinute : public QWidget {
    Q_OBJECT
public:
    enum Step : std::size_t { picture, rule, pin, value, proof, use, count };

    FirstMinute(Bench& bench, Files& files, HandoverActions& handover, QWidget* parent);
    /// Shows it: what is there now was there before.
    void begin();
    /// Begins unless it has been closed once.
    void begin_if_new();
    void close_for_good();
    void show_proofs(const ProofsResult& proofs);
    bool is_done(Step step) const { return done_[step]; }
    QToolButton* button(Step step) const { return buttons_[step]; }

signals:
    void said(const QString& message, bool bad);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    using Names = std::set<std::string>;
    /// What is on the bench.
    struct There {
        int pictures = 0, pins = 0;
        Names parameters{}, proofs{};
        std::string text{};
    };
    There there() const;
    void look();
    void tick(Step step);

    Bench& bench_;
    There before_;
    Names proofs_;                                   ///< that are written, at last
    bool other_rule_ = false, other_proofs_ = false; ///< another document has come: what is in it nobody has done
    std::array<bool, count> done_{};
    std::array<QToolButton*, count> buttons_{};
};

} // namespace kasuri::app
