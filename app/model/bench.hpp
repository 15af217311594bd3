#pragma once
#include "model/against.hpp"
#include "model/bench_keeper.hpp"
#include "model/config_use.hpp"
#include "model/file_watch.hpp"
#include "model/look_model.hpp"
#include "model/over_time.hpp"
#include "model/playback.hpp"
#include "model/readings_model.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"
#include "model/takes.hpp"

#include <QObject>

namespace kasuri::app {

/// All that is worked on: the filter or look, what it is seen on, read by and compared with. One undo history holds the
/// changes of all of them. Knows no window: what there is to tell, it says.
class Bench : public QObject {
    Q_OBJECT
public:
    explicit Bench(QObject* parent = nullptr);

    Session& session() { return session_; }
    LookModel& look() { return look_; }
    SheetModel& sheet() { return sheet_; }
    Playback& playback() { return playback_; }
    OverTime& over_time() { return over_time_; }
    ReadingsModel& readings() { return readings_; }
    Against& against() { return against_; }
    TakesModel& takes() { return takes_; }
    FileWatch& file_watch() { return watch_; }
    Tuning& tuning() { return tuning_; }
    ConfigUse& config() { return config_; }
    BenchKeeper& keeper() { return keeper_; }

    void undo() { session_.undo_stack().undo(); }
    void redo() { session_.undo_stack().redo(); }
    /// Brings the rule into its canonical form; says so where it cannot be read.
    void format();
    /// Shorter where that is proved the same, worked out in the background; undone if it has been changed since.
    void simplify();
    /// The rule, or all steps of a look, for another working space, so that the picture stays as it is; in the
    /// background, undoable.
    void carry(const std::string& to);
    /// The look as it is worked on: the active step as it stands in the editor.
    document::Look look_as_worked_on() const;
    void add_chart();
    /// Reads the ICC profile of a press in the background and remembers it; then the sheet can be seen as it prints.
    void use_print(const QString& file);
    /// Those of the last session that are still there.
    void restore_prints();

    /// Something to know.
    void say(const QString& message) { emit said(message, false); }
    /// Something that could not be done.
    void refuse(const QString& message) { emit said(message, true); }
    void refuse(const Error& error) { emit said(QString::fromStdString(error.text()), true); }

signals:
    void said(const QString& message, bool bad);
    void spaces_changed();

private:
    void carry_look(const std::string& to);
    /// Changes of `model` become steps of the one undo history.
    template <class State, class Model>
    void record(Model& model);
    void relay();

    Session session_;
    LookModel look_;
    SheetModel sheet_;
    Playback playback_;
    OverTime over_time_;
    ReadingsModel readings_;
    Against against_;
    TakesModel takes_;
    FileWatch watch_;
    Tuning tuning_;
    ConfigUse config_;
    BenchKeeper keeper_;
};

} // namespace kasuri::app
