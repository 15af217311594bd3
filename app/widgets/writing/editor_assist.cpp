#include "widgets/writing/editor_assist.hpp"

#include "document/filter_file.hpp"
#include "model/function_picture.hpp"
#include "proof/proof.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QBuffer>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QTimer>
#include <QToolTip>

#include <algorithm>

namespace kasuri::app {
namespace {

bool is_word(unsigned char c) { return std::isalnum(c) != 0 || c == '_' || c >= 0x80; }

QString escaped(std::string_view text) {
    return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size())).toHtmlEscaped();
}

} // namespace

EditorAssist::EditorAssist(RuleEditor& editor) : QObject(&editor), editor_(editor) {
    editor_.installEventFilter(this);
    editor_.viewport()->installEventFilter(this);
    list_ = new CompletionList(editor_.window());
    hint_ = new QLabel(editor_.window());
    hint_->setFont(theme::mono(11.5));
    hint_->setTextFormat(Qt::RichText);
    hint_->setFocusPolicy(Qt::NoFocus);
    hint_->setMargin(4);
    hint_->setAutoFillBackground(true);
    hint_->setFrameShape(QFrame::Box);
    QPalette palette = hint_->palette();
    palette.setColor(QPalette::Window, theme::current_line);
    palette.setColor(QPalette::WindowText, theme::text);
    hint_->setPalette(palette);
    hint_->hide();
    connect(list_, &CompletionList::accepted, this, &EditorAssist::accept);
    connect(&editor_, &QsciScintilla::cursorPositionChanged, this, &EditorAssist::refresh_hint);
    connect(&editor_, &QsciScintillaBase::SCN_MODIFIED, this,
            [this](int position, int kind, const char*, int length) { follow_edit(position, kind, length); });
    connect(&editor_, &QsciScintillaBase::SCN_CHARADDED, this, [this](int c) { after_typing(QChar(c)); });
}

lang::CheckOptions EditorAssist::options() const {
    lang::CheckOptions with;
    with.open = document::used_beside(path_);
    return with;
}

std::size_t EditorAssist::caret() const {
    return static_cast<std::size_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS));
}

QPoint EditorAssist::below(std::size_t position) const {
    const auto at = static_cast<long>(position);
    const QPoint point(static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTXFROMPOSITION, 0, at)),
                       static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTYFROMPOSITION, 0, at) +
                                        editor_.SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0)));
    return editor_.viewport()->mapTo(editor_.window(), point);
}

void EditorAssist::after_typing(const QString& typed) {
    if (accepting_)
        return;
    const bool word = typed.at(0).isLetter() || typed.at(0) == '_' || (list_->isVisible() && typed.at(0).isDigit());
    if (word || typed == ".")
        // Once the caret stands behind what was typed; more may have been typed by then.
        QTimer::singleShot(0, this, [this] {
            const std::string text = editor_.content();
            const std::size_t at = caret();
            if (at > 0 && at <= text.size() &&
                (is_word(static_cast<unsigned char>(text[at - 1])) || text[at - 1] == '.'))
                complete();
        });
    else if (list_->isVisible()) {
        list_->hide();
        QTimer::singleShot(0, this, &EditorAssist::refresh_hint);
    }
}

void EditorAssist::complete(bool asked) {
    const std::string text = editor_.content();
    asked_ = asked || (asked_ && list_->isVisible());
    lang::Completions found = lang::completions(text, caret(), proof::vocabulary(), options());
    const std::string_view written = text_of(text, found.replaces);
    // A word that is whole already needs no help.
    const bool whole = found.items.size() == 1 && found.items.front().text == written;
    if (found.items.empty() || whole || !editor_.hasFocus()) {
        list_->hide();
        return;
    }
    const std::size_t from = found.replaces.begin;
    made_for_ = text;
    made_at_ = caret();
    list_->show_items(std::move(found));
    const QWidget* window = editor_.window();
    QPoint at = below(from) + QPoint(-6, 2);
    if (at.y() + list_->height() > window->height()) // no room: above the line
        at.ry() -= list_->height() + static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0)) + 4;
    at.setX(std::max(0, std::min(at.x(), window->width() - list_->width())));
    list_->move(at);
    list_->raise();
    list_->show();
    hint_->hide(); // one at a time
}

void EditorAssist::accept() {
    const lang::Completion* chosen = list_->chosen();
    if (!chosen || !is_list_of_now())
        return list_->hide();
    const std::string content = editor_.content();
    const Span span = list_->completions().replaces;
    std::string text = chosen->text;
    const std::size_t end = caret();
    const bool call = chosen->kind == lang::CompletionKind::function || chosen->kind == lang::CompletionKind::type;
    const bool opened = end < content.size() && content[end] == '(';
    if (call && !opened)
        text += "()";
    accepting_ = true;
    editor_.SendScintilla(QsciScintillaBase::SCI_SETTARGETSTART, static_cast<unsigned long>(span.begin));
    editor_.SendScintilla(QsciScintillaBase::SCI_SETTARGETEND,
                          static_cast<unsigned long>(std::max<std::size_t>(end, span.begin)));
    editor_.SendScintilla(QsciScintillaBase::SCI_REPLACETARGET, text.size(), text.c_str());
    accepting_ = false;
    list_->hide();
    if (call && !opened)
        closings_.push_back(span.begin + text.size() - 1);
    // Between the brackets, whether they were there or not.
    const std::size_t after = span.begin + text.size() - (call && !opened ? 1 : 0) + (call && opened ? 1 : 0);
    editor_.SendScintilla(QsciScintillaBase::SCI_GOTOPOS, static_cast<unsigned long>(after));
    editor_.setFocus();
    refresh_hint();
}

void EditorAssist::refresh_hint() {
    if (list_->isVisible()) {
        // The caret went away from the word.
        const Span word = list_->completions().replaces;
        const std::string text = editor_.content();
        const std::size_t now = caret();
        const bool inside = now >= word.begin && now <= text.size() &&
            std::all_of(text.begin() + static_cast<std::ptrdiff_t>(word.begin),
                        text.begin() + static_cast<std::ptrdiff_t>(now),
                        [](char c) { return is_word(static_cast<unsigned char>(c)); });
        if (!inside)
            list_->hide();
        return;
    }
    if (!editor_.hasFocus()) {
        hint_->hide();
        return;
    }
    const std::string content = editor_.content();
    const std::string_view before = std::string_view(content).substr(0, std::min(caret(), content.size()));
    if (std::count(before.begin(), before.end(), '(') == std::count(before.begin(), before.end(), ')')) {
        hint_->hide(); // outside of all brackets
        return;
    }
    const auto help = lang::call_help(content, caret(), proof::vocabulary(), options());
    if (!help || help->forms.empty()) {
        hint_->hide();
        return;
    }
    QStringList lines;
    constexpr std::size_t max_forms = 4;
    for (std::size_t i = 0; i < std::min(max_forms, help->forms.size()); ++i) {
        const lang::CallForm& form = help->forms[i];
        const std::string_view text = form.text;
        lines << escaped(text.substr(0, form.active.begin)) + "<b>" + escaped(text_of(text, form.active)) + "</b>" +
                escaped(text.substr(form.active.end));
    }
    hint_->setText(lines.join("<br>"));
    hint_->adjustSize();
    const int line_height = static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0));
    QPoint at = below(help->name.begin) + QPoint(-5, -line_height - hint_->height() - 1);
    if (at.y() < 0)
        at.ry() = below(caret()).y() + 2;
    at.setX(std::max(0, std::min(at.x(), editor_.window()->width() - hint_->width())));
    hint_->move(at);
    hint_->raise();
    hint_->show();
}

QString EditorAssist::explained(std::size_t position) const {
    const auto found = lang::hover(editor_.content(), position, proof::vocabulary(), options());
    if (!found)
        return {};
    QString text = "<code><b>" + escaped(found->heading).replace("\n", "<br>") + "</b></code>";
    const std::string word(text_of(editor_.content(), found->span));
    if (const QImage picture = function_picture(word); !picture.isNull()) {
        QByteArray png;
        QBuffer buffer(&png);
        picture.save(&buffer, "PNG");
        text += "<br><img src=\"data:image/png;base64," + QString::fromLatin1(png.toBase64()) + "\">";
    }
    if (!found->doc.empty())
        text += "<br>" + escaped(found->doc).replace("\n", "<br>");
    return text;
}

void EditorAssist::explain_at_caret() {
    QString text = explained(caret());
    if (text.isEmpty() && caret() > 0)
        text = explained(caret() - 1); // just behind the word
    QToolTip::showText(editor_.window()->mapToGlobal(below(caret())), text, &editor_);
}

void EditorAssist::close() {
    list_->hide();
    hint_->hide();
}

void EditorAssist::follow_edit(int position, int kind, int length) {
    const auto at = static_cast<std::size_t>(position), count = static_cast<std::size_t>(length);
    if (kind & QsciScintillaBase::SC_MOD_INSERTTEXT) {
        for (std::size_t& closing : closings_)
            closing += closing >= at ? count : 0;
    } else if (kind & QsciScintillaBase::SC_MOD_DELETETEXT) {
        std::erase_if(closings_, [&](std::size_t closing) { return closing >= at && closing < at + count; });
        for (std::size_t& closing : closings_)
            closing -= closing >= at + count ? count : 0;
    }
}

bool EditorAssist::closes_already() const {
    const std::string text = editor_.content();
    return caret() < text.size() && text[caret()] == ')' &&
        std::find(closings_.begin(), closings_.end(), caret()) != closings_.end();
}

bool EditorAssist::is_list_of_now() const { return made_at_ == caret() && made_for_ == editor_.content(); }

bool EditorAssist::return_takes() const {
    if (list_->moved())
        return true;
    const lang::Completion* chosen = list_->chosen();
    return asked_ && chosen && chosen->text != text_of(made_for_, list_->completions().replaces);
}

bool EditorAssist::key(int key) {
    if (list_->isVisible() && !is_list_of_now()) { // more was typed since: it is of another word
        if (key == Qt::Key_Tab || key == Qt::Key_Down || key == Qt::Key_Up)
            complete();
        else if (key != Qt::Key_Backspace && key != Qt::Key_Delete)
            list_->hide();
    }
    if (!list_->isVisible()) {
        if (key == Qt::Key_Escape && hint_->isVisible()) {
            hint_->hide();
            return true;
        }
        return false;
    }
    switch (key) {
    case Qt::Key_Down: list_->choose(1); return true;
    case Qt::Key_Up: list_->choose(-1); return true;
    case Qt::Key_PageDown: list_->choose(8); return true;
    case Qt::Key_PageUp: list_->choose(-8); return true;
    case Qt::Key_Tab: accept(); return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        if (return_takes()) {
            accept();
            return true;
        }
        list_->hide();
        return false;
    case Qt::Key_Escape: list_->hide(); return true;
    case Qt::Key_Backspace:
    case Qt::Key_Delete:
        QTimer::singleShot(0, this, [this] {
            // Fewer letters, more that begin with them; none, and the list goes.
            const Span word = list_->completions().replaces;
            if (list_->isVisible() && caret() > word.begin)
                complete();
            else
                list_->hide();
        });
        return false;
    default: return false;
    }
}

bool EditorAssist::eventFilter(QObject* object, QEvent* event) {
    switch (event->type()) {
    case QEvent::ShortcutOverride: {
        const auto* pressed = static_cast<QKeyEvent*>(event);
        // In the text F1 tells about the word at the caret; elsewhere it opens the help.
        const bool asks = pressed->key() == Qt::Key_F1 && pressed->modifiers() == Qt::NoModifier;
        if (asks ||
            (list_->isVisible() && pressed->modifiers() == Qt::NoModifier &&
             (pressed->key() == Qt::Key_Escape || pressed->key() == Qt::Key_Return || pressed->key() == Qt::Key_Tab))) {
            event->accept();
            return true;
        }
        break;
    }
    case QEvent::KeyPress: {
        const auto* pressed = static_cast<QKeyEvent*>(event);
        if (pressed->key() == Qt::Key_Space && pressed->modifiers() == Qt::ControlModifier) {
            complete(true);
            return true;
        }
        if (pressed->key() == Qt::Key_F1) {
            explain_at_caret();
            return true;
        }
        if (pressed->modifiers() == Qt::NoModifier && key(pressed->key()))
            return true;
        if (pressed->text() == ")" && closes_already()) { // one that was written with the call
            std::erase(closings_, caret());
            editor_.SendScintilla(QsciScintillaBase::SCI_CHARRIGHT);
            list_->hide();
            return true;
        }
        break;
    }
    case QEvent::FocusOut:
        if (list_ && hint_) // they may have gone before, with the window
            close();
        break;
    case QEvent::ToolTip:
        if (object == editor_.viewport() || object == &editor_) {
            const auto* help = static_cast<QHelpEvent*>(event);
            const QPoint at = editor_.viewport()->mapFromGlobal(help->globalPos());
            const long position = editor_.SendScintilla(QsciScintillaBase::SCI_POSITIONFROMPOINTCLOSE,
                                                        static_cast<unsigned long>(at.x()), static_cast<long>(at.y()));
            const QString text = position >= 0 ? explained(static_cast<std::size_t>(position)) : QString();
            if (text.isEmpty())
                QToolTip::hideText();
            else
                QToolTip::showText(help->globalPos(), text, editor_.viewport());
            return true;
        }
        break;
    default: break;
    }
    return QObject::eventFilter(object, event);
}

} // namespace kasuri::app
