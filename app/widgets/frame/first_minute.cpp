#include "widgets/frame/first_minute.hpp"

#include "model/bench.hpp"
#include "widgets/files/files.hpp"
#include "widgets/handover/handover_actions.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QPainter>
#include <QSettings>
#include <QToolButton>

#include <algorithm>
#include <utility>

namespace kasuri::app {
namespace {

constexpr const char* closed = "first_minute/closed";

struct Row {
    const char *title, *how;
};
constexpr Row table[] = {
    {QT_TRANSLATE_NOOP("FirstMinute", "bring a picture"),
     QT_TRANSLATE_NOOP("FirstMinute", "Drop a PNG, TIFF or EXR on the sheet, or open one with Ctrl+O.")},
    {QT_TRANSLATE_NOOP("FirstMinute", "write a line"),
     QT_TRANSLATE_NOOP("FirstMinute",
                       "On the left, such as out.g = 0.5 * g + 0.5 * b: everything follows as you type.")},
    {QT_TRANSLATE_NOOP("FirstMinute", "pin a place"),
     QT_TRANSLATE_NOOP("FirstMinute", "Point at the picture and press P (Ctrl+P while you write).")},
    {QT_TRANSLATE_NOOP("FirstMinute", "make a value"),
     QT_TRANSLATE_NOOP("FirstMinute",
                       "Write param meet = 0 in 0 .. 1 above the line that uses it: it can be dragged then.")},
    {QT_TRANSLATE_NOOP("FirstMinute", "promise something"),
     QT_TRANSLATE_NOOP("FirstMinute", "The + in the row at the bottom adds a proof, such as that greys stay grey.")},
    {QT_TRANSLATE_NOOP("FirstMinute", "use it"),
     QT_TRANSLATE_NOOP("FirstMinute", "Ctrl+S saves the filter, Ctrl+L writes a LUT with its measured error.")},
};
static_assert(std::size(table) == FirstMinute::count);

/// Whether there is a name that was not there before.
bool any_new(const std::set<std::string>& now, const std::set<std::string>& before) {
    return !std::includes(before.begin(), before.end(), now.begin(), now.end());
}

QString said_of(const char* text) { return QCoreApplication::translate("FirstMinute", text); }

} // namespace

FirstMinute::FirstMinute(Bench& bench, Files& files, HandoverActions& handover, QWidget* parent)
    : QWidget(parent), bench_(bench) {
    setFixedHeight(30);
    setAccessibleName(tr("The first minute"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(theme::margin, 0, theme::margin, 1);
    row->setSpacing(6);
    row->addWidget(quiet_label(tr("First minute"), this));
    for (std::size_t i = 0; i < count; ++i) {
        QToolButton* made = buttons_[i] = new QToolButton(this);
        const QString how = said_of(table[i].how);
        made->setToolTip(how);
        connect(made, &QToolButton::clicked, this, [this, how] { emit said(how, false); });
        row->addWidget(made);
    }
    row->addStretch(1);
    auto* close = new QToolButton(this);
    close->setObjectName("close");
    close->setText(tr("close"));
    close->setToolTip(tr("Not shown again; F1 has it as a page"));
    connect(close, &QToolButton::clicked, this, &FirstMinute::close_for_good);
    row->addWidget(close);
    hide();
    connect(&bench_.sheet(), &SheetModel::changed, this, &FirstMinute::look);
    connect(&bench_.sheet(), &SheetModel::pins_changed, this, &FirstMinute::look);
    connect(&bench_.session(), &Session::text_replaced, this, [this] {
        before_.text = bench_.session().text();
        other_rule_ = other_proofs_ = true;
    });
    connect(&bench_.session(), &Session::rule_changed, this, &FirstMinute::look);
    const auto used = [this] {
        if (isVisible())
            tick(use);
    };
    connect(&files, &Files::saved, this, used);
    connect(&handover, &HandoverActions::wrote, this, used);
}

FirstMinute::There FirstMinute::there() const {
    const auto& cells = bench_.sheet().cells();
    There all;
    all.pictures = static_cast<int>(std::count_if(cells.begin(), cells.end(), [](const Cell& c) { return !c.target; }));
    all.pins = static_cast<int>(bench_.sheet().pins().size());
    if (const lang::Rule* const now = bench_.session().rule())
        for (const lang::Parameter& parameter : now->parameters)
            all.parameters.insert(parameter.name);
    all.proofs = proofs_;
    all.text = bench_.session().text();
    return all;
}

void FirstMinute::begin() {
    before_ = there();
    done_ = {};
    for (std::size_t i = 0; i < count; ++i)
        buttons_[i]->setText(QString("%1 %2").arg(i + 1).arg(said_of(table[i].title)));
    show();
}

void FirstMinute::begin_if_new() {
    if (!QSettings().value(closed).toBool())
        begin();
}

void FirstMinute::close_for_good() {
    QSettings().setValue(closed, true);
    hide();
}

void FirstMinute::look() {
    if (!isVisible())
        return;
    const There now = there();
    if (bench_.session().compiles() && std::exchange(other_rule_, false))
        before_.parameters = now.parameters;
    if (now.pictures > before_.pictures)
        tick(picture);
    if (bench_.session().compiles() && now.text != before_.text)
        tick(rule);
    if (now.pins > before_.pins)
        tick(pin);
    if (any_new(now.parameters, before_.parameters))
        tick(value);
}

void FirstMinute::show_proofs(const ProofsResult& proofs) {
    proofs_.clear();
    for (const proof::Outcome& outcome : proofs.outcomes)
        if (!outcome.offered)
            proofs_.insert(outcome.title);
    if (std::exchange(other_proofs_, false))
        before_.proofs = proofs_;
    if (isVisible() && any_new(proofs_, before_.proofs))
        tick(proof);
}

void FirstMinute::tick(Step step) {
    if (std::exchange(done_[step], true))
        return;
    buttons_[step]->setText(QString::fromUtf8("\u2713 ") + said_of(table[step].title));
    theme::tint(buttons_[step], theme::second);
    if (std::all_of(done_.begin(), done_.end(), [](bool done) { return done; })) {
        emit said(tr("That was the first minute. F1 has the rest."), false);
        close_for_good();
    }
}

void FirstMinute::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::field);
    painter.fillRect(0, height() - 1, width(), 1, theme::hairline);
}

} // namespace kasuri::app
