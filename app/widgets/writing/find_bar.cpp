#include "widgets/writing/find_bar.hpp"

#include "widgets/parts/heading.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QRegularExpression>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr int hit_mark = 10; // an indicator of its own

QToolButton* button(const QString& text, const QString& tip, QWidget* parent, bool checkable = false) {
    auto* made = new QToolButton(parent);
    made->setText(text);
    made->setToolTip(tip);
    made->setAccessibleName(tip);
    made->setFont(theme::face(11.5));
    made->setCheckable(checkable);
    return made;
}

} // namespace

FindBar::FindBar(RuleEditor& editor, Session& session, QWidget* parent)
    : QWidget(parent), editor_(editor), session_(session) {
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(theme::margin, 4, 8, 4);
    rows->setSpacing(3);
    const auto field = [this](const QString& name) {
        auto* made = new QLineEdit(this);
        made->setFont(theme::mono());
        made->setAccessibleName(name);
        made->setPlaceholderText(name);
        made->installEventFilter(this);
        return made;
    };
    auto* first = new QHBoxLayout;
    first->setSpacing(3);
    wanted_ = field(tr("Find"));
    count_ = quiet_label({}, this, 11.5);
    whole_ = button(tr("word"), tr("Whole words only"), this, true);
    letters_ = button(tr("Aa"), tr("Capital and small letters are different"), this, true);
    auto* before = button(QString::fromUtf8("\u25b4"), tr("The one before (Shift+Return)"), this);
    auto* after = button(QString::fromUtf8("\u25be"), tr("The next one (Return)"), this);
    auto* away = button(QString::fromUtf8("\u00d7"), tr("Close (Escape)"), this);
    first->addWidget(wanted_, 1);
    for (QWidget* each : std::initializer_list<QWidget*>{count_, whole_, letters_, before, after, away})
        first->addWidget(each);
    rows->addLayout(first);
    second_ = new QWidget(this);
    auto* below = new QHBoxLayout(second_);
    below->setContentsMargins(0, 0, 0, 0);
    below->setSpacing(3);
    instead_ = field(tr("Put instead"));
    one_ = button(tr("this one"), tr("Replace this one and go to the next (Return)"), this);
    all_ = button(tr("all"), tr("Replace all of them, as one step (Ctrl+Return)"), this);
    below->addWidget(instead_, 1);
    below->addWidget(one_);
    below->addWidget(all_);
    rows->addWidget(second_);
    editor_.indicatorDefine(QsciScintilla::StraightBoxIndicator, hit_mark);
    QColor mark = theme::accent;
    mark.setAlpha(45);
    editor_.setIndicatorForegroundColor(mark, hit_mark);
    editor_.setIndicatorOutlineColor(theme::accent, hit_mark);
    editor_.setIndicatorDrawUnder(true, hit_mark);
    setTabOrder(wanted_, instead_);
    connect(wanted_, &QLineEdit::textChanged, this, &FindBar::search);
    connect(whole_, &QToolButton::toggled, this, &FindBar::search);
    connect(letters_, &QToolButton::toggled, this, &FindBar::search);
    connect(&session_, &Session::text_changed, this, [this] {
        if (isVisible())
            search();
    });
    connect(before, &QToolButton::clicked, this, [this] { next(-1); });
    connect(after, &QToolButton::clicked, this, [this] { next(1); });
    connect(away, &QToolButton::clicked, this, &FindBar::close_bar);
    connect(one_, &QToolButton::clicked, this, &FindBar::replace_one);
    connect(all_, &QToolButton::clicked, this, &FindBar::replace_all);
    hide();
}

void FindBar::set_whole_words(bool whole) { whole_->setChecked(whole); }
void FindBar::set_case_matters(bool matters) { letters_->setChecked(matters); }

void FindBar::open(bool replacing) {
    second_->setVisible(replacing);
    if (const QString chosen = editor_.selectedText(); !chosen.isEmpty() && !chosen.contains('\n'))
        wanted_->setText(chosen);
    show();
    search();
    wanted_->setFocus();
    wanted_->selectAll();
}

void FindBar::close_bar() {
    hide();
    hits_.clear();
    mark();
    editor_.setFocus();
}

void FindBar::search() {
    hits_.clear();
    const QString text = QString::fromStdString(session_.text());
    if (!wanted_->text().isEmpty() && isVisible()) {
        const QString escaped = QRegularExpression::escape(wanted_->text());
        const QRegularExpression pattern(whole_->isChecked() ? "\\b" + escaped + "\\b" : escaped,
                                         letters_->isChecked() ? QRegularExpression::UseUnicodePropertiesOption
                                                               : QRegularExpression::CaseInsensitiveOption |
                                                 QRegularExpression::UseUnicodePropertiesOption);
        qsizetype letters = 0;
        std::uint32_t bytes = 0; // the text is counted in bytes
        for (auto found = pattern.globalMatch(text); found.hasNext();) {
            const QRegularExpressionMatch match = found.next();
            bytes += static_cast<std::uint32_t>(text.mid(letters, match.capturedStart() - letters).toUtf8().size());
            const auto size = static_cast<std::uint32_t>(match.captured().toUtf8().size());
            hits_.push_back({bytes, bytes + size});
            bytes += size;
            letters = match.capturedEnd();
        }
    }
    mark();
}

std::ptrdiff_t FindBar::current() const {
    const auto begin = static_cast<std::uint32_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETSELECTIONSTART)),
               end = static_cast<std::uint32_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETSELECTIONEND));
    for (std::size_t i = 0; i < hits_.size(); ++i)
        if (hits_[i].begin == begin && hits_[i].end == end)
            return static_cast<std::ptrdiff_t>(i);
    return -1;
}

void FindBar::mark() {
    editor_.SendScintilla(QsciScintillaBase::SCI_SETINDICATORCURRENT, hit_mark);
    editor_.SendScintilla(QsciScintillaBase::SCI_INDICATORCLEARRANGE, 0UL, static_cast<long>(session_.text().size()));
    for (const Span hit : hits_)
        editor_.SendScintilla(QsciScintillaBase::SCI_INDICATORFILLRANGE, static_cast<unsigned long>(hit.begin),
                              static_cast<long>(hit.size()));
    const bool any = !hits_.empty();
    one_->setEnabled(any);
    all_->setEnabled(any);
    const std::ptrdiff_t now = current();
    count_->setText(wanted_->text().isEmpty() ? QString()
                        : !any                ? tr("none")
                        : now >= 0            ? tr("%1 of %2").arg(now + 1).arg(hits_.size())
                                              : QString::number(hits_.size()));
}

void FindBar::next(int by) {
    if (hits_.empty())
        return;
    const auto count = static_cast<std::ptrdiff_t>(hits_.size());
    std::ptrdiff_t to = current();
    if (to >= 0) {
        to = (to + by + count) % count;
    } else {
        const auto caret = static_cast<std::uint32_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS));
        to = std::find_if(hits_.begin(), hits_.end(), [&](Span hit) { return hit.begin >= caret; }) - hits_.begin();
        to = by > 0 ? (to == count ? 0 : to) : (to == 0 ? count - 1 : to - 1);
    }
    editor_.select(hits_[static_cast<std::size_t>(to)]);
    mark();
}

void FindBar::replace_one() {
    const std::ptrdiff_t now = current();
    if (now < 0)
        return next(1);
    const Span hit = hits_[static_cast<std::size_t>(now)];
    const std::string text = instead_->text().toStdString();
    session_.apply_edit({hit.begin, std::string(text_of(session_.text(), hit)), text}, tr("replace"));
    editor_.SendScintilla(QsciScintillaBase::SCI_GOTOPOS, static_cast<unsigned long>(hit.begin + text.size()));
    next(1);
}

void FindBar::replace_all() {
    if (hits_.empty())
        return;
    const std::string text = session_.text(), instead = instead_->text().toStdString();
    const std::uint32_t begin = hits_.front().begin, end = hits_.back().end;
    document::TextEdit edit{begin, text.substr(begin, end - begin), {}};
    std::uint32_t done = begin;
    for (const Span hit : hits_) {
        edit.inserted += text.substr(done, hit.begin - done) + instead;
        done = hit.end;
    }
    session_.apply_edit(edit, tr("replace %1 times").arg(hits_.size()));
}

bool FindBar::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Escape)
        event->accept();
    if (event->type() != QEvent::KeyPress)
        return QWidget::eventFilter(object, event);
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool enter = key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter;
    if (key->key() == Qt::Key_Escape)
        close_bar();
    else if (enter && object == instead_ && key->modifiers() & Qt::ControlModifier)
        replace_all();
    else if (enter && object == instead_)
        replace_one();
    else if (enter)
        next(key->modifiers() & Qt::ShiftModifier ? -1 : 1);
    else
        return QWidget::eventFilter(object, event);
    return true;
}

} // namespace kasuri::app
