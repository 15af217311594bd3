#pragma once
#include "document/edit.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"

#include <QElapsedTimer>
#include <QUndoCommand>

#include <vector>

namespace kasuri::app {

/// Edits of the text; typing that goes on without a pause is one step.
class TextCommand : public QUndoCommand {
public:
    /// `done`: the editor has made the first edit already.
    TextCommand(Session& session, const document::TextEdit& edit, const QString& name, bool done);
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
    qint64 at_; ///< milliseconds; edits of one replacement come within the same few
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

/// The sheet before and after; steps of one key without a pause are one.
class SheetCommand : public QUndoCommand {
public:
    SheetCommand(SheetModel& sheet, const QString& name, const QString& key, Arrangement before);
    void undo() override { sheet_.arrange(before_); }
    void redo() override;
    int id() const override { return 3; }
    bool mergeWith(const QUndoCommand* other) override;

private:
    SheetModel& sheet_;
    Arrangement before_, after_;
    QString key_;
    bool done_ = true;
    qint64 at_;
};

} // namespace kasuri::app
