#include "widgets/writing/editor_commands.hpp"

#include "document/line_edits.hpp"
#include "lang/symbol.hpp"
#include "model/words.hpp"
#include "proof/proof.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>

#include <cmath>

namespace kasuri::app {
namespace {

constexpr double pixels_a_step = 4;

QString text_of(const std::string& text) { return QString::fromStdString(text); }

/// Shift finer, Alt coarser; Ctrl is what takes hold of a number.
double factor(Qt::KeyboardModifiers modifiers) {
    return modifiers & Qt::ShiftModifier ? 0.1 : modifiers & Qt::AltModifier ? 10 : 1;
}

} // namespace

EditorCommands::EditorCommands(RuleEditor& editor, Session& session)
    : QObject(&editor), editor_(editor), viewport_(editor.viewport()), session_(session) {
    editor_.installEventFilter(this);
    editor_.viewport()->installEventFilter(this);
    editor_.viewport()->setMouseTracking(true);
}

std::size_t EditorCommands::caret() const {
    return static_cast<std::size_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETCURRENTPOS));
}

std::size_t EditorCommands::position_at(const QPoint& point) const {
    const long at = editor_.SendScintilla(QsciScintillaBase::SCI_POSITIONFROMPOINTCLOSE,
                                          static_cast<unsigned long>(point.x()), static_cast<long>(point.y()));
    return at < 0 ? std::string::npos : static_cast<std::size_t>(at);
}

void EditorCommands::toggle_comments() {
    const auto begin = static_cast<std::uint32_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETSELECTIONSTART));
    const auto end = static_cast<std::uint32_t>(editor_.SendScintilla(QsciScintillaBase::SCI_GETSELECTIONEND));
    const document::TextEdit edit = document::with_comments_toggled(session_.text(), {begin, end});
    if (edit.removed == edit.inserted)
        return;
    session_.apply_edit(edit, tr("comment"));
    if (end > begin)
        editor_.select({edit.at, edit.at + static_cast<std::uint32_t>(edit.inserted.size())});
    else // the next line, so that pressing again goes on
        editor_.SendScintilla(QsciScintillaBase::SCI_LINEDOWN);
}

void EditorCommands::toggle_fold() {
    const long line = editor_.SendScintilla(QsciScintillaBase::SCI_LINEFROMPOSITION, caret());
    const bool header = editor_.SendScintilla(QsciScintillaBase::SCI_GETFOLDLEVEL, static_cast<unsigned long>(line)) &
        QsciScintillaBase::SC_FOLDLEVELHEADERFLAG;
    const long parent =
        header ? line : editor_.SendScintilla(QsciScintillaBase::SCI_GETFOLDPARENT, static_cast<unsigned long>(line));
    if (parent < 0)
        return emit said(tr("There is nothing to fold here: bodies of functions and runs of three parameters, presets, "
                            "proofs or comments are."),
                         false);
    editor_.SendScintilla(QsciScintillaBase::SCI_TOGGLEFOLD, static_cast<unsigned long>(parent));
    editor_.SendScintilla(QsciScintillaBase::SCI_ENSUREVISIBLE, static_cast<unsigned long>(parent));
    if (parent != line)
        editor_.SendScintilla(QsciScintillaBase::SCI_GOTOLINE, static_cast<unsigned long>(parent));
}

void EditorCommands::step_number(double by) {
    const auto place = document::number_at(session_.text(), caret());
    if (!place)
        return emit said(tr("Put the caret on a number."), true);
    const double step = place->step() * (std::fabs(by) < 1 ? 0.1 : 1);
    const double steps = std::fabs(by) < 1 ? by * 10 : by;
    const double value = (std::round(place->value / step) + steps) * step;
    const document::TextEdit edit = document::with_number(session_.text(), *place, value, step);
    session_.apply_edit(edit, tr("number"), QString("number %1").arg(place->span.begin));
}

void EditorCommands::rename() {
    const auto symbol = lang::symbol_at(session_.text(), caret());
    if (!symbol)
        return emit said(
            tr("Put the caret on a name that the rule itself gives: a parameter, a let, a source or a function."),
            true);
    delete rename_field_;
    renamed_at_ = caret();
    std::uint32_t begin = symbol->definition.begin;
    for (const Span place : symbol->places)
        if (renamed_at_ >= place.begin && renamed_at_ <= place.end)
            begin = place.begin;
    rename_field_ = new QLineEdit(text_of(symbol->name), editor_.viewport());
    rename_field_->setAccessibleName(tr("New name"));
    rename_field_->setFont(theme::mono());
    const auto at = static_cast<long>(begin);
    const int x = static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTXFROMPOSITION, 0, at)),
              y = static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTYFROMPOSITION, 0, at));
    const int width = std::max(120, rename_field_->fontMetrics().horizontalAdvance(rename_field_->text()) + 60);
    rename_field_->setGeometry(std::max(0, std::min(x - 4, editor_.viewport()->width() - width)), y - 3, width,
                               static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0)) + 6);
    rename_field_->selectAll();
    rename_field_->installEventFilter(this);
    rename_field_->show();
    rename_field_->setFocus();
    emit said(symbol->places.size() == 1
                  ? tr("Return renames it, Escape leaves it.")
                  : tr("Return renames it in %1 places, Escape leaves it.").arg(symbol->places.size()),
              false);
}

void EditorCommands::finish_rename() {
    const std::string text = session_.text();
    const auto symbol = lang::symbol_at(text, renamed_at_);
    const std::string name = rename_field_->text().trimmed().toStdString();
    if (symbol) {
        const lang::Renamed made = lang::renamed(text, *symbol, name, proof::vocabulary());
        if (!made.fault.empty())
            return emit said(text_of(made.fault), true); // the field stays, to be mended
        std::size_t caret = renamed_at_;
        for (const Span place : symbol->places)
            if (place.end <= renamed_at_)
                caret = caret + name.size() - symbol->name.size();
        rename_field_->deleteLater();
        rename_field_.clear();
        if (made.text != text)
            session_.apply_edit(document::difference(text, made.text), tr("rename %1").arg(text_of(symbol->name)));
        editor_.SendScintilla(QsciScintillaBase::SCI_GOTOPOS, static_cast<unsigned long>(caret));
    }
    editor_.setFocus();
}

bool EditorCommands::definition_at(std::size_t position) {
    const auto symbol = lang::symbol_at(session_.text(), position);
    if (symbol)
        editor_.select(symbol->definition);
    return symbol.has_value();
}

void EditorCommands::go_to_definition() {
    if (!definition_at(caret()))
        emit said(tr("The rule itself does not say what stands there; F1 tells what the language says."), true);
}

void EditorCommands::write(const document::Written& written, const QString& name) {
    session_.apply_edit(written.edit, name);
    editor_.SendScintilla(QsciScintillaBase::SCI_GOTOPOS, static_cast<unsigned long>(written.caret));
    // A number is chosen, so that typing replaces it.
    if (const auto place = document::number_at(session_.text(), written.caret);
        place && place->span.begin <= written.caret)
        editor_.select(place->span);
    editor_.setFocus();
}

void EditorCommands::fill_recipes(QMenu& menu) {
    menu.clear();
    menu.setToolTipsVisible(true);
    for (const document::Recipe& recipe : document::recipes())
        menu.addAction(words(recipe.title), this,
                       [this, &recipe] {
                           write(document::with_recipe(session_.text(), caret(), recipe), words(recipe.title));
                       })
            ->setToolTip(words(recipe.doc));
}

void EditorCommands::fill_proofs(QMenu& menu) {
    menu.clear();
    menu.setToolTipsVisible(true);
    for (const proof::ReadyMade& row : proof::ready_made())
        menu.addAction(words(row.title), this,
                       [this, &row] {
                           write(document::with_last_line(session_.text(), row.line),
                                 tr("proof: %1").arg(words(row.title)));
                       })
            ->setToolTip(words(row.doc));
}

bool EditorCommands::drag(QEvent* event) {
    auto* mouse = static_cast<QMouseEvent*>(event);
    const bool held = mouse->modifiers() & Qt::ControlModifier;
    const std::size_t position = position_at(mouse->position().toPoint());
    switch (event->type()) {
    case QEvent::MouseButtonPress: {
        if (mouse->button() != Qt::LeftButton || !held || position == std::string::npos)
            return false;
        const auto place = document::number_at(session_.text(), position);
        if (!place && document::colour_at(session_.text(), position)) {
            emit colour_wanted(position);
            return true;
        }
        if (!place)
            return definition_at(position);
        dragged_ = Dragged{place->span.begin, place->value, place->step(), static_cast<int>(mouse->position().x()),
                           mouse->modifiers()};
        ++drags_;
        return true;
    }
    case QEvent::MouseMove: {
        if (!dragged_) {
            const bool number = held && position != std::string::npos && document::number_at(session_.text(), position);
            editor_.viewport()->setCursor(number ? Qt::SizeHorCursor : Qt::IBeamCursor);
            return number;
        }
        const auto place = document::number_at(session_.text(), dragged_->at);
        if (!place) { // somebody else has changed the text
            dragged_.reset();
            return true;
        }
        if (factor(mouse->modifiers()) != factor(dragged_->modifiers)) { // from here on in other steps
            dragged_->modifiers = mouse->modifiers();
            dragged_->value = place->value;
            dragged_->x = static_cast<int>(mouse->position().x());
        }
        const double step = dragged_->step * factor(mouse->modifiers());
        const double value = dragged_->value + std::trunc((mouse->position().x() - dragged_->x) / pixels_a_step) * step;
        const document::TextEdit edit = document::with_number(session_.text(), *place, value, step);
        if (edit.inserted != edit.removed)
            session_.apply_edit(edit, tr("number"), QString("drag %1").arg(drags_));
        return true;
    }
    case QEvent::MouseButtonRelease: {
        const bool was = dragged_.has_value();
        dragged_.reset();
        return was;
    }
    default: return false;
    }
}

bool EditorCommands::eventFilter(QObject* object, QEvent* event) {
    if (object == rename_field_ && event->type() == QEvent::FocusOut) {
        rename_field_->deleteLater();
        rename_field_.clear();
        return false;
    }
    if (object == rename_field_ && (event->type() == QEvent::KeyPress || event->type() == QEvent::ShortcutOverride)) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        const bool enter = key == Qt::Key_Return || key == Qt::Key_Enter; // which the field would hand on to the text
        if (key == Qt::Key_Escape || enter) {
            event->accept();
            if (event->type() == QEvent::KeyPress && enter)
                finish_rename();
            else if (event->type() == QEvent::KeyPress)
                editor_.setFocus(); // which takes the field away
            return true;
        }
    }
    if (object == &editor_ && (event->type() == QEvent::KeyPress || event->type() == QEvent::ShortcutOverride)) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->modifiers() & Qt::AltModifier && (key->key() == Qt::Key_Up || key->key() == Qt::Key_Down)) {
            event->accept();
            if (event->type() == QEvent::KeyPress)
                step_number((key->key() == Qt::Key_Up ? 1 : -1) * (key->modifiers() & Qt::ShiftModifier ? 0.1 : 1));
            return true;
        }
    }
    if (object == viewport_ &&
        (event->type() == QEvent::MouseButtonPress || event->type() == QEvent::MouseMove ||
         event->type() == QEvent::MouseButtonRelease))
        return drag(event);
    return QObject::eventFilter(object, event);
}

} // namespace kasuri::app
