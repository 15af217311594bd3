#pragma once
#include "document/edit.hpp"
#include "model/session.hpp"

#include <QElapsedTimer>
#include <QUndoCommand>

#include <utility>
#include <vector>

namespace kasuri::app {

/// Edits of the text; typing that goes on without a pause is one step.
class TextCommand : public QUndoCommand {
public:
    /// `done`: the editor has made the first edit already.
    TextCommand(Session& session, const document::TextEdit& edit, const QString& name, bool done,
                const QString& key = {});
    void undo() override;
    void redo() override;
    int id() const override { return 1; }
    bool mergeWith(const QUndoCommand* other) override;

private:
    bool continues(const TextCommand& next) const;

    Session& session_;
    std::vector<document::TextEdit> edits_;
    bool done_;
    bool typed_;
    QString key_; ///< of what went on in a table or by dragging
    qint64 at_;   ///< milliseconds; edits of one replacement come within the same few
};

/// Chosen values before and after; dragging one value is one step.
class ValueCommand : public QUndoCommand {
public:
    ValueCommand(Session& session, ValueMap after, const QString& name, int key);
    void undo() override;
    void redo() override;
    int id() const override { return 2; }
    bool mergeWith(const QUndoCommand* other) override;

private:
    Session& session_;
    ValueMap before_, after_;
    int key_; ///< which parameter, or -1 for several (never merged)
    qint64 at_;
};

qint64 undo_clock();                      ///< milliseconds
inline constexpr qint64 undo_pause = 800; ///< after which what goes on begins a new step

/// A model's arrangement before and after; steps of one key without a pause are one. Pushed when the step has been
/// made.
template <class Model, class Arrangement>
class ArrangementCommand : public QUndoCommand {
public:
    ArrangementCommand(Model& model, const QString& name, const QString& key, Arrangement before)
        : QUndoCommand(name), model_(model), before_(std::move(before)), after_(model.arrangement()), key_(key),
          at_(undo_clock()) {}
    void undo() override { model_.arrange(before_); }
    void redo() override {
        if (!std::exchange(done_, false))
            model_.arrange(after_);
    }
    int id() const override { return 3; }
    bool mergeWith(const QUndoCommand* other) override {
        const auto* next = dynamic_cast<const ArrangementCommand*>(other);
        if (!next || key_.isEmpty() || next->key_ != key_ || next->at_ - at_ > undo_pause)
            return false;
        after_ = next->after_;
        at_ = next->at_;
        return true;
    }

private:
    Model& model_;
    Arrangement before_, after_;
    QString key_;
    bool done_ = true;
    qint64 at_;
};

} // namespace kasuri::app
