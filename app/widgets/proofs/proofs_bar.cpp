#include "widgets/proofs/proofs_bar.hpp"

#include "base/text.hpp"
#include "model/words.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QMouseEvent>
#include <QPainter>
#include <QToolButton>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
constexpr int mark = 13;

QString shown(double value) {
    return QString::fromStdString(number_text(value, std::fabs(value) >= 100 ? 4 : 2)).replace('-', QChar(0x2212));
}
/// A figure is rarely equal to its limit: one sign reads better than two.
QString sign(const std::string& relation) { return relation.starts_with('<') ? QString("<") : QString(">"); }
QString target_words(const std::string& name) {
    const targets::Target* target = targets::find(name);
    return target ? words(target->title) : QString::fromStdString(name);
}
} // namespace

ProofItem::ProofItem(QWidget* parent) : QWidget(parent) { setFixedHeight(36); }

void ProofItem::show_outcome(const proof::Outcome& outcome) {
    outcome_ = outcome;
    setFocusPolicy(outcome.passed ? Qt::NoFocus : Qt::StrongFocus);
    setCursor(outcome.passed ? Qt::ArrowCursor : Qt::PointingHandCursor);
    QString tip = title() + ": " + figure_text() +
        (outcome.passed ? QString() : " " + target_words(outcome.worst.target)) + "\n" + words(outcome.doc);
    QString known = QString::fromStdString(proof::how_known(outcome));
    known[0] = known[0].toUpper();
    tip += "\n" + known + ".";
    if (!outcome.passed) {
        const auto triple = [](const std::array<float, 4>& c) {
            return QString("%1  %2  %3")
                .arg(theme::number(static_cast<double>(c[0])))
                .arg(theme::number(static_cast<double>(c[1])))
                .arg(theme::number(static_cast<double>(c[2])));
        };
        tip += tr("\nWorst on %1: %2  \u2192  %3")
                   .arg(target_words(outcome.worst.target), triple(outcome.worst.before), triple(outcome.worst.after));
    }
    if (outcome.offered)
        tip += "\n" + tr("Nobody promised this: the + adds it to the rule.");
    setToolTip(tip);
    setAccessibleName(outcome.offered ? tr("Not promised: %1 %2").arg(title(), figure_text())
                                      : title() + (outcome.passed ? tr(" passes ") : tr(" fails ")) + figure_text());
    updateGeometry();
    update();
}

void ProofItem::set_old(bool old) {
    old_ = old;
    update();
}

QString ProofItem::title() const {
    return (outcome_.of_look ? tr("look: %1") : QStringLiteral("%1")).arg(words(outcome_.title));
}

QString ProofItem::figure_text() const {
    if (outcome_.offered)
        return !outcome_.passed ? tr("does not hold on")
            : outcome_.proved   ? tr("holds, proved")
            : outcome_.bounded  ? tr("holds, bounded")
                                : tr("holds");
    if (outcome_.passed && outcome_.proved)
        return tr("proved");
    if (outcome_.passed && outcome_.bounded)
        return tr("bounded");
    if (outcome_.passed)
        return outcome_.figure == 0
            ? QString("0")
            : QString("%1 %2 %3").arg(shown(outcome_.figure), sign(outcome_.relation), shown(outcome_.limit));
    return tr("fails: %1 %2 %3 on")
        .arg(shown(outcome_.figure), sign(proof::opposite(outcome_.relation)), shown(outcome_.limit));
}

int ProofItem::width_at(Brief brief) const {
    int width = 12 + mark + 8 + QFontMetrics(theme::face(12.5, true)).horizontalAdvance(title()) + 16;
    if (figures(brief))
        width += 10 + QFontMetrics(theme::face()).horizontalAdvance(figure_text());
    if (figures(brief) && !outcome_.passed)
        width += QFontMetrics(theme::face()).horizontalAdvance(target_words(outcome_.worst.target)) + 6;
    return width;
}

QSize ProofItem::sizeHint() const { return {width_at(brief_), 36}; }

void ProofItem::set_brief(Brief brief) {
    if (brief == brief_)
        return;
    brief_ = brief;
    updateGeometry();
    update();
}

void ProofItem::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    if (old_)
        painter.setOpacity(0.55);
    if (!outcome_.offered)
        theme::draw_mark(painter, QRectF(12, (height() - mark) / 2.0, mark, mark), outcome_.passed);
    int x = outcome_.offered ? 12 : 12 + mark + 8;
    painter.setFont(theme::face(12.5, !outcome_.offered));
    painter.setPen(outcome_.offered ? theme::second : theme::text);
    const bool cut = !figures(brief_);
    const QString words = painter.fontMetrics().elidedText(title(), Qt::ElideRight, width() - x - (cut ? 8 : 0));
    if (cut && !outcome_.passed) { // a link, as its place would be
        QFont link = painter.font();
        link.setUnderline(true);
        painter.setFont(link);
    }
    painter.drawText(QRect(x, 0, width(), height()), Qt::AlignLeft | Qt::AlignVCenter, words);
    x += painter.fontMetrics().horizontalAdvance(words) + 10;
    painter.setFont(theme::face());
    painter.setPen(theme::second);
    if (!cut)
        painter.drawText(QRect(x, 0, width(), height()), Qt::AlignLeft | Qt::AlignVCenter, figure_text());
    x += painter.fontMetrics().horizontalAdvance(figure_text()) + 6;
    if (!outcome_.passed && !cut) {
        QFont link = theme::face();
        link.setUnderline(true);
        painter.setFont(link);
        painter.setPen(outcome_.offered ? theme::second : theme::text);
        painter.drawText(QRect(x, 0, width(), height()), Qt::AlignLeft | Qt::AlignVCenter,
                         target_words(outcome_.worst.target));
    }
    painter.setOpacity(1);
    painter.fillRect(width() - 1, 0, 1, height(), theme::hairline);
    if (hasFocus())
        painter.fillRect(QRectF(0, 0, 2.5, height()), theme::accent);
}

void ProofItem::mousePressEvent(QMouseEvent*) {
    if (!outcome_.passed)
        emit followed(outcome_);
}

void ProofItem::keyPressEvent(QKeyEvent* event) {
    if (!outcome_.passed && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space))
        emit followed(outcome_);
    else
        QWidget::keyPressEvent(event);
}

ProofsBar::ProofsBar(QWidget* parent) : QWidget(parent) {
    setFixedHeight(37);
    setAccessibleName(tr("Proofs"));
    row_ = new QHBoxLayout(this);
    row_->setContentsMargins(0, 1, theme::margin, 0);
    row_->setSpacing(0);
    auto* add = add_ = new QToolButton(this);
    add->setObjectName("add_proof");
    add->setText("+");
    add->setToolTip(tr("Add a ready-made proof to the rule"));
    add->setAccessibleName(tr("Add a proof"));
    add->setPopupMode(QToolButton::InstantPopup);
    add->setMenu(new QMenu(add));
    connect(add->menu(), &QMenu::aboutToShow, this, [this, add] { emit add_opening(*add->menu()); });
    row_->addSpacing(6);
    row_->addWidget(add);
    row_->addStretch(1);
    sum_ = quiet_label({}, this);
    row_->addWidget(sum_);
}

void ProofsBar::show_outcomes(const std::vector<proof::Outcome>& outcomes, bool of_rule, const QString& fault,
                              bool complete) {
    while (complete && items_.size() > outcomes.size()) {
        items_.back()->deleteLater();
        items_.pop_back();
    }
    while (items_.size() < outcomes.size()) {
        auto* item = new ProofItem(this);
        connect(item, &ProofItem::followed, this, &ProofsBar::followed);
        row_->insertWidget(static_cast<int>(items_.size()), item);
        items_.push_back(item);
    }
    std::size_t failed = 0, promised = 0;
    for (std::size_t i = 0; i < outcomes.size(); ++i) {
        items_[i]->show_outcome(outcomes[i]);
        items_[i]->set_old(old_);
        promised += outcomes[i].offered ? 0 : 1;
        failed += outcomes[i].passed || outcomes[i].offered ? 0 : 1;
    }
    for (std::size_t i = outcomes.size(); i < items_.size(); ++i)
        items_[i]->set_old(true);
    sum_->setToolTip(fault);
    sum_->setText(!complete                          ? tr("measuring \u2026")
                      : !fault.isEmpty()             ? tr("the look's own proofs are not measured")
                      : !of_rule && outcomes.empty() ? tr("the active step is not a rule: nothing is proved of it")
                      : old_                         ? tr("old")
                      : promised == 0                ? tr("nothing promised")
                      : failed == 0                  ? tr("all %1 pass").arg(promised)
                                                     : tr("%1 of %2 fail").arg(failed).arg(promised));
    make_room();
}

void ProofsBar::make_room() {
    const int room = width() - add_->sizeHint().width() - sum_->sizeHint().width() - 6 - 2 * theme::margin;
    auto brief = ProofItem::Brief::no;
    for (const auto tried : {ProofItem::Brief::no, ProofItem::Brief::passing, ProofItem::Brief::all}) {
        int sum = 0;
        for (const ProofItem* item : items_)
            sum += item->width_at(tried);
        brief = tried;
        if (sum <= room)
            break;
    }
    for (ProofItem* item : items_)
        item->set_brief(brief);
}

void ProofsBar::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    make_room();
}

void ProofsBar::set_old(bool old) {
    old_ = old;
    for (ProofItem* item : items_)
        item->set_old(old);
    if (old)
        sum_->setText(tr("old"));
}

void ProofsBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(0, 0, width(), 1, theme::hairline);
}

} // namespace kasuri::app
