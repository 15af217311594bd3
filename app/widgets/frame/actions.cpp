#include "widgets/frame/actions.hpp"

#include "model/bench.hpp"
#include "widgets/compare/compare_actions.hpp"
#include "widgets/files/files.hpp"
#include "widgets/frame/first_minute.hpp"
#include "widgets/frame/main_window.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/handover/handover_actions.hpp"
#include "widgets/look/look_actions.hpp"
#include "widgets/parts/room_menu.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/target_menu.hpp"
#include "widgets/sheet/frames_bar.hpp"
#include "widgets/writing/editor_commands.hpp"
#include "widgets/writing/find_bar.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QAction>
#include <QCoreApplication>
#include <QMenu>

namespace kasuri::app {
namespace {

/// What a row does with the part of the window that it is about.
template <class Part, class Do>
constexpr Act on(Do) {
    return {[](const WindowParts& parts) { Do{}(parts.get<Part>()); },
            [](const WindowParts& parts) { return parts.has<Part>(); }};
}
template <class Part, class Do>
constexpr Fill fill(Do) {
    return {[](const WindowParts& parts, QMenu& menu) { Do{}(parts.get<Part>(), menu); },
            [](const WindowParts& parts) { return parts.has<Part>(); }};
}

constexpr const char* const group = "group"; // what follows stands in a menu of this name
constexpr const char* const line = "line";   // what follows stands in the menu itself again, under a line
constexpr ActionRow table[] = {
    {"new", QT_TRANSLATE_NOOP("Actions", "New filter"), "Ctrl+N", on<Files>([](Files& c) { c.new_filter(); })},
    {"open", QT_TRANSLATE_NOOP("Actions", "Open filter or picture\u2026"), "Ctrl+O",
     on<Files>([](Files& c) { c.ask_open(); })},
    {"recent", QT_TRANSLATE_NOOP("Actions", "Recent"), "", {}, fill<Files>([](Files& c, QMenu& menu) {
         c.fill_recent(menu);
     })},
    {"save", QT_TRANSLATE_NOOP("Actions", "Save"), "Ctrl+S", on<Files>([](Files& c) { c.save(); })},
    {"save_as", QT_TRANSLATE_NOOP("Actions", "Save as\u2026"), "Ctrl+Shift+S",
     on<Files>([](Files& c) { c.ask_save_as(); })},
    {line, nullptr, "", {}},
    {"undo", QT_TRANSLATE_NOOP("Actions", "Undo"), "Ctrl+Z", on<Bench>([](Bench& c) { c.undo(); })},
    {"redo", QT_TRANSLATE_NOOP("Actions", "Redo"), "Ctrl+Shift+Z", on<Bench>([](Bench& c) { c.redo(); })},
    {line, nullptr, "", {}},
    {group, QT_TRANSLATE_NOOP("Actions", "Hand over"), "", {}},
    {"bake", QT_TRANSLATE_NOOP("Actions", "Hand over a LUT\u2026"), "Ctrl+L",
     on<HandoverActions>([](HandoverActions& c) { c.open_bake(); })},
    {"render", QT_TRANSLATE_NOOP("Actions", "Apply to a picture file\u2026"), "Ctrl+R",
     on<HandoverActions>([](HandoverActions& c) { c.ask_render(); })},
    {"apply", QT_TRANSLATE_NOOP("Actions", "Apply to a folder or a sequence\u2026"), "Ctrl+Shift+R",
     on<HandoverActions>([](HandoverActions& c) { c.open_apply(); })},
    {"report", QT_TRANSLATE_NOOP("Actions", "Write a report\u2026"), "",
     on<HandoverActions>([](HandoverActions& c) { c.ask_report(); })},
    {group, QT_TRANSLATE_NOOP("Actions", "Rule"), "", {}},
    {"fix", QT_TRANSLATE_NOOP("Actions", "Apply the offered fix"), "Alt+Return",
     on<RulePanel>([](RulePanel& c) { c.editor()->apply_fix(); })},
    {"next_fault", QT_TRANSLATE_NOOP("Actions", "Next error or warning"), "F8",
     on<RulePanel>([](RulePanel& c) { c.editor()->go_to_next_fault(); })},
    {"format", QT_TRANSLATE_NOOP("Actions", "Bring the rule into its canonical form"), "Ctrl+Shift+I",
     on<Bench>([](Bench& c) { c.format(); })},
    {"simplify", QT_TRANSLATE_NOOP("Actions", "Make it shorter, if it is proved the same"), "Ctrl+Shift+Y",
     on<Bench>([](Bench& c) { c.simplify(); })},
    {"carry",
     QT_TRANSLATE_NOOP("Actions", "Carry to another working space"),
     "",
     {},
     fill<Bench>([](Bench& c, QMenu& menu) { add_spaces(menu, {}, [&c](const std::string& to) { c.carry(to); }); })},
    {"find", QT_TRANSLATE_NOOP("Actions", "Find in the rule\u2026"), "Ctrl+F",
     on<RulePanel>([](RulePanel& c) { c.find_bar()->open(false); })},
    {"replace", QT_TRANSLATE_NOOP("Actions", "Find and replace\u2026"), "Ctrl+H",
     on<RulePanel>([](RulePanel& c) { c.find_bar()->open(true); })},
    {"fold", QT_TRANSLATE_NOOP("Actions", "Fold the lines at the caret, or unfold"), "Ctrl+Shift+F",
     on<RulePanel>([](RulePanel& c) { c.commands()->toggle_fold(); })},
    {"rename", QT_TRANSLATE_NOOP("Actions", "Rename the name at the caret"), "F2",
     on<RulePanel>([](RulePanel& c) { c.commands()->rename(); })},
    {"definition", QT_TRANSLATE_NOOP("Actions", "Go to where the name is given"), "F12",
     on<RulePanel>([](RulePanel& c) { c.commands()->go_to_definition(); })},
    {"comment", QT_TRANSLATE_NOOP("Actions", "Turn lines into comments, or back"), "Ctrl+/",
     on<RulePanel>([](RulePanel& c) { c.commands()->toggle_comments(); })},
    {"colour", QT_TRANSLATE_NOOP("Actions", "Set the colour at the caret\u2026"), "Ctrl+Shift+C",
     on<RulePanel>([](RulePanel& c) { c.open_picker(); })},
    {"recipes", QT_TRANSLATE_NOOP("Actions", "Write a recipe"), "", {}, fill<RulePanel>([](RulePanel& c, QMenu& menu) {
         c.commands()->fill_recipes(menu);
     })},
    {"add_proof", QT_TRANSLATE_NOOP("Actions", "Add a proof"), "", {}, fill<RulePanel>([](RulePanel& c, QMenu& menu) {
         c.commands()->fill_proofs(menu);
     })},
    {"mix", QT_TRANSLATE_NOOP("Actions", "Mix table"), "Ctrl+M", on<MainWindow>([](MainWindow& c) { c.toggle_mix(); })},
    {"wishes", QT_TRANSLATE_NOOP("Actions", "A matrix from wishes\u2026"), "Ctrl+Shift+M",
     on<SideWindows>([](SideWindows& c) { c.open_wishes(); })},
    {"fit", QT_TRANSLATE_NOOP("Actions", "Find the rule of a LUT or pictures\u2026"), "Ctrl+Shift+L",
     on<SideWindows>([](SideWindows& c) { c.open_fit(); })},
    {"way_back", QT_TRANSLATE_NOOP("Actions", "The way back\u2026"), "Ctrl+Shift+B",
     on<SideWindows>([](SideWindows& c) { c.open_way_back(); })},
    {"reset", QT_TRANSLATE_NOOP("Actions", "Reset all values"), "",
     on<Bench>([](Bench& c) { c.session().reset_values(); })},
    {group, QT_TRANSLATE_NOOP("Actions", "Look"), "", {}},
    {"add_step", QT_TRANSLATE_NOOP("Actions", "Add a step"), "", {}, fill<LookActions>([](LookActions& c, QMenu& menu) {
         c.fill_add(menu);
     })},
    {"empty_step", QT_TRANSLATE_NOOP("Actions", "Add an empty step"), "Ctrl+Shift+N",
     on<LookActions>([](LookActions& c) { c.add_empty_next(); })},
    {"step", QT_TRANSLATE_NOOP("Actions", "Active step"), "", {}, fill<LookActions>([](LookActions& c, QMenu& menu) {
         c.fill_current(menu);
     })},
    {"step_before", QT_TRANSLATE_NOOP("Actions", "Step before"), "Ctrl+PgUp",
     on<LookActions>([](LookActions& c) { c.take_next(-1); })},
    {"step_after", QT_TRANSLATE_NOOP("Actions", "Next step"), "Ctrl+PgDown",
     on<LookActions>([](LookActions& c) { c.take_next(1); })},
    {"up_to_here", QT_TRANSLATE_NOOP("Actions", "Show up to the active step, or all"), "Ctrl+Shift+U",
     on<LookActions>([](LookActions& c) { c.toggle_up_to_here(); })},
    {"title", QT_TRANSLATE_NOOP("Actions", "Title of the look\u2026"), "",
     on<LookActions>([](LookActions& c) { c.ask_title(); })},
    {"look_proofs", QT_TRANSLATE_NOOP("Actions", "Proofs of the look\u2026"), "",
     on<LookActions>([](LookActions& c) { c.open_proofs(); })},
    {group, QT_TRANSLATE_NOOP("Actions", "Compare"), "", {}},
    {"against",
     QT_TRANSLATE_NOOP("Actions", "Before is"),
     "",
     {},
     fill<CompareActions>([](CompareActions& c, QMenu& menu) { c.fill(menu); })},
    {"keep_now", QT_TRANSLATE_NOOP("Actions", "Compare with the rule as it is now"), "Ctrl+K",
     on<CompareActions>([](CompareActions& c) { c.with_now(); })},
    {"take", QT_TRANSLATE_NOOP("Actions", "Remember a take"), "Ctrl+T",
     on<CompareActions>([](CompareActions& c) { c.remember_take(); })},
    {"take_before", QT_TRANSLATE_NOOP("Actions", "Flip to the take before"), "Alt+PgUp",
     on<Bench>([](Bench& c) { c.takes().flip(-1); })},
    {"take_after", QT_TRANSLATE_NOOP("Actions", "Flip to the next take"), "Alt+PgDown",
     on<Bench>([](Bench& c) { c.takes().flip(1); })},
    {"takes", QT_TRANSLATE_NOOP("Actions", "Takes side by side, or back"), "Ctrl+Shift+K",
     on<CompareActions>([](CompareActions& c) { c.show_takes(); })},
    {group, QT_TRANSLATE_NOOP("Actions", "Sheet"), "", {}},
    {"peek", QT_TRANSLATE_NOOP("Actions", "Show the expression at the caret on the sheet"), "Ctrl+E",
     on<MainWindow>([](MainWindow& c) { c.peek(); })},
    {"pin", QT_TRANSLATE_NOOP("Actions", "Pin what is pointed at"), "Ctrl+P",
     on<MainWindow>([](MainWindow& c) { c.pin_pointed(); })},
    {"play", QT_TRANSLATE_NOOP("Actions", "Play the numbered frames, or stop"), "F5",
     on<MainWindow>([](MainWindow& c) { c.play(); })},
    {"play_from", QT_TRANSLATE_NOOP("Actions", "Play from this frame on"), "Ctrl+F5",
     on<MainWindow>([](MainWindow& c) { c.bench().playback().begin_here(c.playable_cell()); })},
    {"play_up_to", QT_TRANSLATE_NOOP("Actions", "Play up to this frame"), "Ctrl+Shift+F5",
     on<MainWindow>([](MainWindow& c) { c.bench().playback().end_here(c.playable_cell()); })},
    {"playing", QT_TRANSLATE_NOOP("Actions", "Frames"), "", {}, fill<MainWindow>([](MainWindow& c, QMenu& menu) {
         FramesBar::fill_menu(menu, c.bench().playback(), c.playable_cell());
     })},
    {"over_time", QT_TRANSLATE_NOOP("Actions", "The pin over time"), "Ctrl+Shift+P",
     on<MainWindow>([](MainWindow& c) { c.pin_over_time(); })},
    {"trace", QT_TRANSLATE_NOOP("Actions", "Trace at the pin"), "Ctrl+Shift+T",
     on<SideWindows>([](SideWindows& c) { c.open_trace(); })},
    {"add_target", QT_TRANSLATE_NOOP("Actions", "Add a target"), "", {}, fill<Bench>([](Bench& c, QMenu& menu) {
         fill_targets(menu, c.sheet());
     })},
    {"add_chart", QT_TRANSLATE_NOOP("Actions", "Add a chart cell"), "", on<Bench>([](Bench& c) { c.add_chart(); })},
    {"add_reading", QT_TRANSLATE_NOOP("Actions", "Add a reading"), "", {}, fill<Bench>([](Bench& c, QMenu& menu) {
         fill_readings(menu, c.readings());
     })},
    {"sheet_window", QT_TRANSLATE_NOOP("Actions", "Sheet in a window of its own, or back"), "Ctrl+Shift+W",
     on<SideWindows>([](SideWindows& c) { c.tear_off_sheet(); })},
    {"menu", QT_TRANSLATE_NOOP("Actions", "Open this menu"), "F10",
     on<MainWindow>([](MainWindow& c) { c.open_menu(); })},
    {"next_panel", QT_TRANSLATE_NOOP("Actions", "Next panel"), "F6",
     on<MainWindow>([](MainWindow& c) { c.next_panel(); })},
    {line, nullptr, "", {}},
    {"library", QT_TRANSLATE_NOOP("Actions", "Library"), "Ctrl+B",
     on<MainWindow>([](MainWindow& c) { c.toggle_library(); })},
    {"room", QT_TRANSLATE_NOOP("Actions", "Room"), "", {}, fill<MainWindow>([](MainWindow&, QMenu& menu) {
         fill_rooms(menu);
     })},
    {"config", QT_TRANSLATE_NOOP("Actions", "Colour config\u2026"), "", on<Files>([](Files& c) { c.ask_config(); })},
    {"preferences", QT_TRANSLATE_NOOP("Actions", "Settings\u2026"), "Ctrl+,",
     on<SideWindows>([](SideWindows& c) { c.open_preferences(); })},
    {line, nullptr, "", {}},
    {"help", QT_TRANSLATE_NOOP("Actions", "Help"), "F1", on<SideWindows>([](SideWindows& c) { c.open_help(); })},
    {"keys", QT_TRANSLATE_NOOP("Actions", "All keys"), "Ctrl+F1",
     on<SideWindows>([](SideWindows& c) { c.open_help("keys"); })},
    {"first_minute", QT_TRANSLATE_NOOP("Actions", "The first minute, step by step"), "",
     on<FirstMinute>([](FirstMinute& c) { c.begin(); })},
    {line, nullptr, "", {}},
    {"quit", QT_TRANSLATE_NOOP("Actions", "Quit"), "Ctrl+Q", on<MainWindow>([](MainWindow& c) { c.close(); })},
};

} // namespace

std::span<const ActionRow> action_table() { return table; }

void fill_menu(QMenu& menu, QWidget& window, const WindowParts& parts) {
    QMenu* to = &menu;
    for (const ActionRow& row : table) {
        const QString text = row.text ? QCoreApplication::translate("Actions", row.text) : QString();
        if (row.id == line) {
            to = &menu;
            menu.addSeparator();
            continue;
        }
        if (row.id == group) {
            to = menu.addMenu(text);
            continue;
        }
        if (!row.act.run) { // filled when it opens
            QMenu* sub = to->addMenu(text);
            sub->setObjectName(row.id);
            QObject::connect(sub, &QMenu::aboutToShow, &window, [sub, &parts, &row] { row.fill.fill(parts, *sub); });
            continue;
        }
        QAction* action = to->addAction(text, &window, [&row, &parts] { row.act.run(parts); });
        action->setObjectName(row.id);
        if (*row.shortcut) {
            action->setShortcut(QKeySequence(row.shortcut));
            action->setShortcutContext(Qt::WindowShortcut);
        }
        window.addAction(action);
    }
}

} // namespace kasuri::app
