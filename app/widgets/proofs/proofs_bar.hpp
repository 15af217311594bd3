#pragma once
#include "model/preview_result.hpp"

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QMenu;
class QToolButton;

namespace kasuri::app {

/// One proof as words with a mark; a failing one is a link to its worst place.
class ProofItem : public QWidget {
    Q_OBJECT
public:
    explicit ProofItem(QWidget* parent = nullptr);
    void show_outcome(const proof::Outcome& outcome);
    void set_old(bool old);
    const proof::Outcome& outcome() const { return outcome_; }
    /// How much is left out where there is little room: nothing; the figures of what passes; all figures.
    enum class Brief { no, passing, all };
    void set_brief(Brief brief);
    int width_at(Brief brief) const;
    QSize sizeHint() const override;

signals:
    void followed(const kasuri::proof::Outcome& outcome);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    QString figure_text() const;
    QString title() const;
    proof::Outcome outcome_;
    bool figures(Brief brief) const { return brief == Brief::no || (brief == Brief::passing && !outcome_.passed); }
    bool old_ = false;
    Brief brief_ = Brief::no;
};

/// The row of proofs along the bottom.
class ProofsBar : public QWidget {
    Q_OBJECT
public:
    explicit ProofsBar(QWidget* parent = nullptr);
    /// `complete`: false while more are being measured; what stands behind them is old until then.
    /// `of_rule`: false if the active step is not a rule, which promises nothing. `fault`: of the proofs of the look.
    void show_outcomes(const std::vector<proof::Outcome>& outcomes, bool of_rule = true, const QString& fault = {},
                       bool complete = true);
    void set_old(bool old);
    const std::vector<ProofItem*>& items() const { return items_; }

signals:
    void add_opening(QMenu& menu); ///< to be filled with what can be added
    void followed(const kasuri::proof::Outcome& outcome);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void make_room();
    QHBoxLayout* row_;
    QToolButton* add_;
    QLabel* sum_;
    std::vector<ProofItem*> items_;
    bool old_ = false;
};

} // namespace kasuri::app
