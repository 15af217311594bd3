#pragma once
#include "model/against.hpp"
#include "model/bench_keeper.hpp"
#include "model/file_watch.hpp"
#include "model/look_model.hpp"
#include "model/readings_model.hpp"
#include "model/recovery_keeper.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"
#include "model/takes.hpp"

#include <QObject>
#include <QUrl>

class QMenu;
class QWidget;

namespace kasuri::app {

class LookActions;
class RulePanel;

/// What the window's commands do: files, hand-over, undo. Knows the models and asks the user through dialogs;
/// the window shows what it says.
class Bench : public QObject {
    Q_OBJECT
public:
    explicit Bench(QWidget* window);

    Session& session() { return session_; }
    const Session& session() const { return session_; }
    LookModel& look() { return look_; }
    LookActions& look_actions() { return *look_actions_; }
    SheetModel& sheet() { return sheet_; }
    ReadingsModel& readings() { return readings_; }
    Against& against() { return against_; }
    TakesModel& takes() { return takes_; }
    FileWatch& file_watch() { return watch_; }
    Tuning& tuning() { return tuning_; }
    BenchKeeper& keeper() { return keeper_; }
    /// From now on unsaved work is kept in `folder`; what programs that are gone left there is offered.
    void keep_recovery(const std::filesystem::path& folder);
    void bring_back(const LeftBehind& left);
    RecoveryKeeper* recovery() const { return recovery_; }

    void new_filter();
    void ask_open();
    /// A filter or a look goes on the bench (asking about unsaved work), a picture into a new cell.
    void open(const QString& file, const QString& lens = QStringLiteral("colour"));
    /// A filter at one of its presets.
    void open_at(const QString& file, const QString& preset);
    void compare_with_file(const QString& file);
    void open_urls(const QList<QUrl>& urls);
    bool save();
    bool save_to(const QString& file);
    bool ask_save_as();
    void open_bake();
    void ask_render();
    void open_apply();
    void ask_report();
    /// One page about what is on the bench with the pictures on the sheet, written in the background.
    void write_report(const QString& file);
    void open_preferences() { emit preferences_wanted(); }
    void open_help() { emit help_wanted(QString()); }
    void show_keys() { emit help_wanted(QStringLiteral("keys")); }
    /// Applies the rule to a picture file in the background.
    void render(const QString& in, const QString& out);
    void undo() { session_.undo_stack().undo(); }
    void redo() { session_.undo_stack().redo(); }
    void format();
    void reset_values() { session_.reset_values(); }
    void add_chart();
    void fill_targets(QMenu& menu);
    void fill_readings(QMenu& menu);
    /// How bright the room is that the interface is for; the surround of pictures stays.
    void fill_rooms(QMenu& menu);
    static void choose_room(const QString& name); ///< and remembers it
    static void restore_room();
    /// What before may be: the picture as it comes, the rule as it is now, another filter.
    void fill_against(QMenu& menu);
    void compare_with_now();
    void compare_with_what_comes_in();
    void open_library() { emit library_wanted(); }
    /// Among the recent files.
    void remember(const QString& file);
    void compare_with_take(int index);
    void remember_take();
    void flip_take(int by) { takes_.flip(by); }
    /// All takes as cells of one picture, or back.
    void show_takes();
    /// A filter of its own, with the take's values as defaults.
    bool write_take(int index, const QString& file);
    void ask_against();
    void peek() { emit peek_wanted(); }
    void trace() { emit trace_wanted(); }
    void toggle_mix() { emit mix_wanted(); }
    void open_wishes() { emit wishes_wanted(); }
    /// What is done at the caret is the editor's: these only carry it there.
    using InEditor = void (*)(RulePanel&);
    void in_editor(InEditor what) { emit editor_wanted(what); }
    using FillInEditor = void (*)(RulePanel&, QMenu&);
    void fill_in_editor(QMenu& menu, FillInEditor fill) { emit editor_menu_wanted(menu, fill); }
    void tear_off_sheet() { emit sheet_window_wanted(); }
    void ask_config();
    /// Reads an OpenColorIO config in the background and remembers it; then its spaces can be used everywhere.
    void use_config(const QString& file);
    /// The config of the last session, else the one of $OCIO.
    void restore_config();
    void apply_fix() { emit fix_wanted(); }
    void next_fault() { emit next_fault_wanted(); }
    void next_panel() { emit next_panel_wanted(); }
    void quit();
    void fill_recent(QMenu& menu);
    /// Whether unsaved work may go: saved, given up, or nothing to lose.
    bool may_leave();

signals:
    void said(const QString& message, bool bad);
    void spaces_changed();
    void fix_wanted();
    void next_fault_wanted();
    void next_panel_wanted();
    void peek_wanted();
    void trace_wanted();
    void mix_wanted();
    void wishes_wanted();
    void takes_wanted(const std::vector<kasuri::document::KeptTake>& takes);
    void editor_wanted(kasuri::app::Bench::InEditor what);
    void editor_menu_wanted(QMenu& menu, kasuri::app::Bench::FillInEditor fill);
    void sheet_window_wanted();
    void library_wanted();
    void preferences_wanted();
    void help_wanted(const QString& page);

private:
    void open_look(const QString& file);

    QWidget* window_;
    Session session_;
    LookModel look_;
    SheetModel sheet_;
    ReadingsModel readings_;
    Against against_;
    TakesModel takes_;
    FileWatch watch_;
    Tuning tuning_;
    BenchKeeper keeper_;
    LookActions* look_actions_;
    RecoveryKeeper* recovery_ = nullptr;
};

} // namespace kasuri::app
