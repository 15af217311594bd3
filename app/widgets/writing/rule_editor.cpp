#include "widgets/writing/rule_editor.hpp"

#include "base/said.hpp"

#include "model/display.hpp"
#include "widgets/parts/message_box.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/editor_settings.hpp"
#include "widgets/writing/rule_lexer.hpp"

#include <Qsci/qscicommandset.h>

#include <QAction>
#include <QContextMenuEvent>
#include <QDropEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMimeData>
#include <QPainter>
#include <QUndoStack>

#include <algorithm>

namespace kasuri::app {
namespace {
constexpr int error_mark = 8; // the first indicator that lexers leave free
constexpr int warning_mark = 9;
constexpr int message_pause_ms = 350;
constexpr int number_margin = 0;
constexpr int fold_margin = 2;
constexpr int least_lines = 12;
} // namespace

RuleEditor::RuleEditor(QUndoStack& undo, QWidget* parent) : QsciScintilla(parent), undo_(undo) {
    setAccessibleName(tr("Rule"));
    setFrameShape(QFrame::NoFrame);
    setUtf8(true);
    setEolMode(EolUnix);
    lexer_ = new RuleLexer(this);
    setLexer(lexer_);
    setMarginType(number_margin, NumberMargin);
    setMarginWidth(number_margin, "0000");
    setMarginLineNumbers(number_margin, true);
    setMarginsFont(theme::mono(10.5));
    setFolding(PlainFoldStyle, fold_margin);
    setMarginWidth(fold_margin, 11);
    SendScintilla(SCI_SETAUTOMATICFOLD, SC_AUTOMATICFOLD_SHOW | SC_AUTOMATICFOLD_CHANGE);
    setMarginWidth(1, 2);
    setMarginSensitivity(1, false);
    setMarginMarkerMask(1, 0);
    take_room();
    connect(&theme::changes(), &theme::Changes::room_changed, this, &RuleEditor::take_room);
    setCaretLineVisible(true);
    setCaretWidth(2);
    setWrapMode(WrapWord);
    setWrapIndentMode(WrapIndentFixed);
    SendScintilla(SCI_SETWRAPSTARTINDENT, 2);
    SendScintilla(SCI_SETEXTRAASCENT, 1);
    SendScintilla(SCI_SETEXTRADESCENT, 1);
    setMinimumHeight(least_lines * textHeight(0)); // the text is the truth: whatever is open, so much of it is seen
    setTabWidth(4);
    setIndentationsUseTabs(false);
    setAutoIndent(true);
    setBraceMatching(SloppyBraceMatch);
    SendScintilla(SCI_SETHSCROLLBAR, 0);
    indicatorDefine(SquiggleIndicator, error_mark);
    setIndicatorForegroundColor(theme::bad, error_mark);
    indicatorDefine(SquiggleIndicator, warning_mark);
    setIndicatorForegroundColor(theme::third, warning_mark);
    setAnnotationDisplay(AnnotationStandard);
    // The window's undo covers text and values; Scintilla keeps none.
    SendScintilla(SCI_SETUNDOCOLLECTION, 0);
    SendScintilla(SCI_EMPTYUNDOBUFFER);
    for (const auto command : {QsciCommand::Undo, QsciCommand::Redo, QsciCommand::LineCut})
        if (QsciCommand* bound = standardCommands()->find(command)) {
            bound->setKey(0);
            bound->setAlternateKey(0);
        }
    message_ = new MessageBox(viewport());
    connect(message_, &MessageBox::fix_clicked, this, &RuleEditor::apply_fix);
    pause_.setSingleShot(true);
    pause_.setInterval(message_pause_ms);
    connect(&pause_, &QTimer::timeout, this, &RuleEditor::choose_message);
    connect(this, &QsciScintillaBase::SCN_MODIFIED, this,
            [this](int position, int type, const char* text, int length) { modified(position, type, text, length); });
    connect(this, &QsciScintillaBase::SCN_UPDATEUI, this, [this](int) { place_message(); });
    connect(this, &QsciScintillaBase::SCN_ZOOM, this, [this] { setMarginWidth(number_margin, "0000"); });
    connect(this, &QsciScintilla::cursorPositionChanged, this, [this] { pause_.start(); });
}

void RuleEditor::take_room() {
    lexer_->take_room();
    setPaper(theme::field);
    setMarginsForegroundColor(theme::third);
    setMarginsBackgroundColor(theme::field);
    setFoldMarginColors(theme::field, theme::field);
    for (int mark = SC_MARKNUM_FOLDEREND; mark <= static_cast<int>(SC_MARKNUM_FOLDEROPEN); ++mark) {
        setMarkerForegroundColor(theme::field, mark);
        setMarkerBackgroundColor(theme::third, mark);
    }
    setCaretLineBackgroundColor(theme::current_line);
    setCaretForegroundColor(theme::accent);
    setSelectionBackgroundColor(theme::chosen);
    setSelectionForegroundColor(theme::text);
    setMatchedBraceBackgroundColor(theme::grid);
    setMatchedBraceForegroundColor(theme::text);
    recolor();
}

std::string RuleEditor::content() const { return mirror_; }

void RuleEditor::modified(int position, int type, const char* text, int length) {
    const auto at = static_cast<std::size_t>(position);
    const auto count = static_cast<std::size_t>(length);
    document::TextEdit edit;
    edit.at = static_cast<std::uint32_t>(position);
    if (type & SC_MOD_INSERTTEXT) {
        edit.inserted.assign(text, count);
        mirror_.insert(at, edit.inserted);
    } else if (type & SC_MOD_DELETETEXT) {
        edit.removed = mirror_.substr(at, count);
        mirror_.erase(at, count);
    } else {
        return;
    }
    colours_ = document::colours_in(mirror_);
    if (!line_values_.empty()) { // of the text as it was
        line_values_.clear();
        viewport()->update();
    }
    if (!following_)
        emit edited(edit);
}

void RuleEditor::replace_all(const std::string& text) {
    following_ = true;
    clearAnnotations();
    shown_.reset();
    message_->hide();
    setText(QString::fromStdString(text));
    following_ = false;
    SendScintilla(SCI_GOTOPOS, 0);
}

void RuleEditor::follow(const document::TextEdit& edit) {
    following_ = true;
    SendScintilla(SCI_SETTARGETSTART, static_cast<unsigned long>(edit.at));
    SendScintilla(SCI_SETTARGETEND, edit.at + edit.removed.size());
    SendScintilla(SCI_REPLACETARGET, edit.inserted.size(), edit.inserted.c_str());
    following_ = false;
    SendScintilla(SCI_GOTOPOS, static_cast<unsigned long>(edit.at + edit.inserted.size()));
}

void RuleEditor::set_parameters(std::set<std::string> names) { lexer_->set_parameters(std::move(names)); }

int RuleEditor::line_of(std::uint32_t offset) const {
    return static_cast<int>(SendScintilla(SCI_LINEFROMPOSITION, static_cast<unsigned long>(offset)));
}

void RuleEditor::set_diagnostics(const std::vector<lang::Diagnostic>& diagnostics) {
    if (diagnostics.empty() && diagnostics_.empty())
        return; // nothing to take away: no line has to be painted again
    diagnostics_ = diagnostics;
    const auto length = static_cast<std::uint32_t>(mirror_.size());
    for (const int mark : {error_mark, warning_mark}) {
        SendScintilla(SCI_SETINDICATORCURRENT, mark);
        SendScintilla(SCI_INDICATORCLEARRANGE, 0UL, static_cast<long>(length));
    }
    for (const lang::Diagnostic& diagnostic : diagnostics_) {
        Span span = diagnostic.span;
        span.end = std::min(span.end, length);
        if (span.begin >= span.end) { // nothing there to underline: take what stands before it
            span.end = std::min(span.begin + 1, length);
            if (span.begin >= length || mirror_[span.begin] == '\n') {
                span.end = std::min(span.begin, length);
                span.begin = span.end > 0 ? span.end - 1 : 0;
            }
        }
        SendScintilla(SCI_SETINDICATORCURRENT,
                      diagnostic.severity == lang::Severity::error ? error_mark : warning_mark);
        SendScintilla(SCI_INDICATORFILLRANGE, static_cast<unsigned long>(span.begin), static_cast<long>(span.size()));
    }
    // A message whose fault is gone goes at once; a new one waits for a pause, so that lines do not jump.
    shown_.reset();
    line_faults_.clear();
    if (diagnostics_.empty())
        choose_message();
    else
        pause_.start();
}

const lang::Diagnostic* RuleEditor::shown_fault() const {
    return shown_ && *shown_ < diagnostics_.size() ? &diagnostics_[*shown_] : nullptr;
}

void RuleEditor::choose_message() {
    // The fault on the caret's line, else the first error, else the first warning.
    const int caret_line = line_of(static_cast<std::uint32_t>(SendScintilla(SCI_GETCURRENTPOS)));
    std::optional<std::size_t> chosen;
    const auto take_first = [&](auto&& wanted) {
        for (std::size_t i = 0; i < diagnostics_.size() && !chosen; ++i)
            if (wanted(diagnostics_[i]))
                chosen = i;
    };
    take_first([&](const lang::Diagnostic& d) { return line_of(d.span.begin) == caret_line; });
    take_first([](const lang::Diagnostic& d) { return d.severity == lang::Severity::error; });
    take_first([](const lang::Diagnostic&) { return true; });
    shown_ = chosen;
    following_ = true;
    clearAnnotations();
    if (const lang::Diagnostic* fault = shown_fault()) {
        message_->show_fault(*fault);
        const int width = viewport()->width() - marginWidth(number_margin) - 20;
        const int line_height = static_cast<int>(SendScintilla(SCI_TEXTHEIGHT, 0));
        const int lines = std::max(1, (message_->height_for(width) + line_height - 1) / line_height);
        message_->resize(width, lines * line_height);
        annotate(line_of(fault->span.begin), QString(lines - 1, '\n') + " ", RuleLexer::plain);
        message_->show();
    } else {
        message_->hide();
    }
    following_ = false;
    place_message();
    if (const lang::Diagnostic* fault = shown_fault(); fault && line_of(fault->span.begin) == caret_line) {
        // All of it is seen from where the caret is.
        const int line_height = static_cast<int>(SendScintilla(SCI_TEXTHEIGHT, 0));
        if (const int below = message_->geometry().bottom() + 1 - viewport()->height(); below > 0)
            SendScintilla(SCI_LINESCROLL, 0UL, static_cast<long>((below + line_height - 1) / line_height));
        place_message();
    }
    find_line_faults();
}

void RuleEditor::find_line_faults() {
    line_faults_.clear();
    std::set<int> lines;
    if (const lang::Diagnostic* fault = shown_fault())
        lines.insert(line_of(fault->span.begin));
    for (const lang::Severity severity : {lang::Severity::error, lang::Severity::warning})
        for (const lang::Diagnostic& fault : diagnostics_)
            if (fault.severity == severity && lines.insert(line_of(fault.span.begin)).second)
                line_faults_.push_back({std::min(fault.span.begin, static_cast<std::uint32_t>(mirror_.size())),
                                        QString::fromStdString(lang::message(fault)),
                                        severity == lang::Severity::error});
    viewport()->update();
}

void RuleEditor::place_message() {
    const lang::Diagnostic* fault = shown_fault();
    if (!fault)
        return;
    const int line = line_of(fault->span.begin);
    const long end = SendScintilla(SCI_GETLINEENDPOSITION, line);
    const int y = static_cast<int>(SendScintilla(SCI_POINTYFROMPOSITION, 0, end)) +
        static_cast<int>(SendScintilla(SCI_TEXTHEIGHT, line));
    message_->move(marginWidth(number_margin) + 8, y);
}

bool RuleEditor::apply_fix() {
    const lang::Diagnostic* fault = shown_fault();
    if (!fault || fault->fixes.empty()) {
        const auto found =
            std::find_if(diagnostics_.begin(), diagnostics_.end(), [](const auto& d) { return !d.fixes.empty(); });
        if (found == diagnostics_.end())
            return false;
        fault = &*found;
    }
    const lang::Fix fix = fault->fixes.front(); // the fault goes away while it is mended
    emit fix_wanted(fix);
    return true;
}

QString RuleEditor::expression_at_caret() const {
    if (hasSelectedText())
        return selectedText().simplified();
    int line = 0, index = 0;
    getCursorPosition(&line, &index);
    return wordAtLineIndex(line, index);
}

void RuleEditor::set_line_values(std::vector<LineValue> values) {
    if (values == line_values_)
        return; // nothing to paint again
    line_values_ = std::move(values);
    viewport()->update();
}

void RuleEditor::select(Span span) {
    SendScintilla(SCI_ENSUREVISIBLE, static_cast<unsigned long>(line_of(span.begin)));
    SendScintilla(SCI_SETSEL, static_cast<unsigned long>(span.begin), static_cast<long>(span.end));
}

void RuleEditor::draw_line_ends(QPainter& painter, std::span<const LineValue> ends) const {
    constexpr int gap = 18, least = 34;
    painter.setFont(theme::mono(10.5 * text_size(*this) / usual_text_size));
    const QFontMetrics metrics = painter.fontMetrics();
    const int line_height = static_cast<int>(SendScintilla(SCI_TEXTHEIGHT, 0));
    for (const LineValue& value : ends) {
        const long end = SendScintilla(SCI_GETLINEENDPOSITION, static_cast<unsigned long>(line_of(value.end)));
        const int x = static_cast<int>(SendScintilla(SCI_POINTXFROMPOSITION, 0, end)) + gap,
                  y = static_cast<int>(SendScintilla(SCI_POINTYFROMPOSITION, 0, end));
        const int room = viewport()->width() - 8 - x;
        if (room < least)
            continue; // the trace has all values, F8 goes to all faults
        const QRect where(x, y, room, line_height);
        painter.setPen(value.bad ? theme::bad : theme::third);
        painter.drawText(where, Qt::AlignRight | Qt::AlignVCenter,
                         metrics.elidedText(value.text, Qt::ElideRight, room));
    }
}

void RuleEditor::set_working(const std::string& space) {
    if (space == working_)
        return;
    working_ = space;
    viewport()->update();
}

void RuleEditor::draw_colours(QPainter& painter) const {
    const int line_height = static_cast<int>(SendScintilla(SCI_TEXTHEIGHT, 0));
    for (const document::ColourPlace& colour : colours_) {
        const auto begin = static_cast<long>(colour.span.begin), end = static_cast<long>(colour.span.end);
        const int left = static_cast<int>(SendScintilla(SCI_POINTXFROMPOSITION, 0, begin)),
                  right = static_cast<int>(SendScintilla(SCI_POINTXFROMPOSITION, 0, end));
        const int top = static_cast<int>(SendScintilla(SCI_POINTYFROMPOSITION, 0, begin)),
                  last = static_cast<int>(SendScintilla(SCI_POINTYFROMPOSITION, 0, end));
        // Of a colour that goes on in the next line the part in the first one is enough.
        const QRect bar(left, top + line_height - 3, (top == last ? right : viewport()->width() - 8) - left, 3);
        painter.fillRect(bar, colour_on_screen(colour.values, working_));
    }
}

void RuleEditor::go_to_next_fault() {
    if (diagnostics_.empty())
        return;
    const auto caret = static_cast<std::uint32_t>(SendScintilla(SCI_GETCURRENTPOS));
    const auto next =
        std::find_if(diagnostics_.begin(), diagnostics_.end(), [caret](const auto& d) { return d.span.begin > caret; });
    SendScintilla(SCI_GOTOPOS,
                  static_cast<unsigned long>((next == diagnostics_.end() ? diagnostics_.front() : *next).span.begin));
    setFocus();
    choose_message();
}

bool RuleEditor::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        // The window's shortcuts come before the editor's own keys.
        const QKeySequence pressed(static_cast<QKeyEvent*>(event)->keyCombination());
        for (const QAction* action : window()->actions())
            if (action->shortcuts().contains(pressed)) {
                event->ignore();
                return false;
            }
    }
    return QsciScintilla::event(event);
}

void RuleEditor::resizeEvent(QResizeEvent* event) {
    QsciScintilla::resizeEvent(event);
    if (shown_)
        pause_.start();
    place_message();
}

void RuleEditor::contextMenuEvent(QContextMenuEvent* event) {
    pop_up(this, event->globalPos(), [this](QMenu& menu) { fill_menu(menu); });
}

void RuleEditor::fill_menu(QMenu& menu) {
    QAction* undo = undo_.createUndoAction(&menu, tr("Undo"));
    QAction* redo = undo_.createRedoAction(&menu, tr("Redo"));
    menu.addActions({undo, redo});
    menu.addSeparator();
    menu.addAction(tr("Cut"), this, &QsciScintilla::cut)->setEnabled(hasSelectedText());
    menu.addAction(tr("Copy"), this, &QsciScintilla::copy)->setEnabled(hasSelectedText());
    menu.addAction(tr("Paste"), this, &QsciScintilla::paste);
    menu.addAction(tr("Select all"), this, [this] { selectAll(); });
    if (const lang::Diagnostic* fault = shown_fault(); fault && !fault->fixes.empty()) {
        menu.addSeparator();
        menu.addAction(QString::fromStdString(translated(fault->fixes.front().label)), this, &RuleEditor::apply_fix);
    }
}

void RuleEditor::focusInEvent(QFocusEvent* event) {
    QsciScintilla::focusInEvent(event);
    viewport()->update();
}

void RuleEditor::focusOutEvent(QFocusEvent* event) {
    QsciScintilla::focusOutEvent(event);
    viewport()->update();
}

void RuleEditor::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls())
        event->acceptProposedAction();
    else
        QsciScintilla::dragEnterEvent(event);
}

void RuleEditor::dropEvent(QDropEvent* event) {
    // A file dropped on the text is opened, not pasted as its address.
    if (event->mimeData()->hasUrls()) {
        emit files_dropped(event->mimeData()->urls());
        event->acceptProposedAction();
    } else {
        QsciScintilla::dropEvent(event);
    }
}

void RuleEditor::paintEvent(QPaintEvent* event) {
    QsciScintilla::paintEvent(event);
    QPainter painter(viewport());
    draw_colours(painter);
    draw_line_ends(painter, line_values_);
    draw_line_ends(painter, line_faults_);
    if (hasFocus()) {
        painter.fillRect(QRectF(0, 0, 2.5, viewport()->height()), theme::accent);
    }
}

} // namespace kasuri::app
