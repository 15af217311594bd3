#include "model/undo_commands.hpp"

namespace kasuri::app {

qint64 undo_clock() {
    static const QElapsedTimer clock = [] {
        QElapsedTimer timer;
        timer.start();
        return timer;
    }();
    return clock.elapsed();
}

namespace {
constexpr qint64 one_gesture = 30; ///< a replacement comes as a removal and an insertion at once

} // namespace

TextCommand::TextCommand(Session& session, const document::TextEdit& edit, const QString& name, bool done,
                         const QString& key)
    : QUndoCommand(name), session_(session), edits_{edit}, done_(done), typed_(done), key_(key), at_(undo_clock()) {}

void TextCommand::undo() {
    for (auto edit = edits_.rbegin(); edit != edits_.rend(); ++edit) {
        session_.change_text(edit->inverse());
        emit session_.text_edited(edit->inverse());
    }
    emit session_.text_changed();
}

void TextCommand::redo() {
    if (done_) {
        done_ = false;
        return;
    }
    for (const document::TextEdit& edit : edits_) {
        session_.change_text(edit);
        emit session_.text_edited(edit);
    }
    emit session_.text_changed();
}

bool TextCommand::continues(const TextCommand& next) const {
    if (!key_.isEmpty() && next.key_ == key_)
        return next.at_ - at_ < undo_pause;
    if (!typed_ || !next.typed_)
        return false;
    const document::TextEdit& last = edits_.back();
    const document::TextEdit& first = next.edits_.front();
    if (next.at_ - at_ <= one_gesture && last.inserted.empty() && last.at == first.at)
        return true;
    const bool both_insert = last.removed.empty() && first.removed.empty() && first.inserted.size() <= 4 &&
        first.inserted.find('\n') == std::string::npos && last.at + last.inserted.size() == first.at;
    const bool both_remove = last.inserted.empty() && first.inserted.empty() && first.removed.size() <= 4 &&
        (first.at + first.removed.size() == last.at || first.at == last.at);
    return next.at_ - at_ < undo_pause && (both_insert || both_remove);
}

bool TextCommand::mergeWith(const QUndoCommand* other) {
    const auto* next = static_cast<const TextCommand*>(other);
    if (!continues(*next))
        return false;
    edits_.insert(edits_.end(), next->edits_.begin(), next->edits_.end());
    at_ = next->at_;
    return true;
}

ValueCommand::ValueCommand(Session& session, ValueMap after, const QString& name, int key)
    : QUndoCommand(name), session_(session), before_(session.chosen_values()), after_(std::move(after)), key_(key),
      at_(undo_clock()) {}

void ValueCommand::undo() { session_.change_values(before_); }
void ValueCommand::redo() { session_.change_values(after_); }

bool ValueCommand::mergeWith(const QUndoCommand* other) {
    const auto* next = static_cast<const ValueCommand*>(other);
    if (key_ < 0 || next->key_ != key_ || next->at_ - at_ > undo_pause)
        return false;
    after_ = next->after_;
    at_ = next->at_;
    return true;
}

} // namespace kasuri::app
