#include "widgets/actions.hpp"

#include "widgets/bench.hpp"
#include "widgets/editor_commands.hpp"
#include "widgets/find_bar.hpp"
#include "widgets/look_actions.hpp"
#include "widgets/rule_panel.hpp"

#include <QAction>
#include <QCoreApplication>
#include <QMenu>

namespace kasuri::app {
namespace {

constexpr const char* const group = "group"; // what follows stands in a menu of this name
constexpr const char* const line = "line";   // what follows stands in the menu itself again, under a line
constexpr ActionRow table[] = {
    {"new", QT_TRANSLATE_NOOP("Actions", "New filter"), "Ctrl+N", [](Bench& b) { b.new_filter(); }},
    {"open", QT_TRANSLATE_NOOP("Actions", "Open filter or picture\u2026"), "Ctrl+O", [](Bench& b) { b.ask_open(); }},
    {"recent", QT_TRANSLATE_NOOP("Actions", "Recent"), "", nullptr, [](Bench& b, QMenu& menu) { b.fill_recent(menu); }},
    {"save", QT_TRANSLATE_NOOP("Actions", "Save"), "Ctrl+S", [](Bench& b) { b.save(); }},
    {"save_as", QT_TRANSLATE_NOOP("Actions", "Save as\u2026"), "Ctrl+Shift+S", [](Bench& b) { b.ask_save_as(); }},
    {line, nullptr, "", nullptr},
    {"undo", QT_TRANSLATE_NOOP("Actions", "Undo"), "Ctrl+Z", [](Bench& b) { b.undo(); }},
    {"redo", QT_TRANSLATE_NOOP("Actions", "Redo"), "Ctrl+Shift+Z", [](Bench& b) { b.redo(); }},
    {line, nullptr, "", nullptr},
    {group, QT_TRANSLATE_NOOP("Actions", "Hand over"), "", nullptr},
    {"bake", QT_TRANSLATE_NOOP("Actions", "Hand over a LUT\u2026"), "Ctrl+L", [](Bench& b) { b.open_bake(); }},
    {"render", QT_TRANSLATE_NOOP("Actions", "Apply to a picture file\u2026"), "Ctrl+R",
     [](Bench& b) { b.ask_render(); }},
    {"apply", QT_TRANSLATE_NOOP("Actions", "Apply to a folder or a sequence\u2026"), "Ctrl+Shift+R",
     [](Bench& b) { b.open_apply(); }},
    {"report", QT_TRANSLATE_NOOP("Actions", "Write a report\u2026"), "", [](Bench& b) { b.ask_report(); }},
    {group, QT_TRANSLATE_NOOP("Actions", "Rule"), "", nullptr},
    {"fix", QT_TRANSLATE_NOOP("Actions", "Apply the offered fix"), "Alt+Return", [](Bench& b) { b.apply_fix(); }},
    {"next_fault", QT_TRANSLATE_NOOP("Actions", "Next error or warning"), "F8", [](Bench& b) { b.next_fault(); }},
    {"format", QT_TRANSLATE_NOOP("Actions", "Bring the rule into its canonical form"), "Ctrl+Shift+I",
     [](Bench& b) { b.format(); }},
    {"find", QT_TRANSLATE_NOOP("Actions", "Find in the rule\u2026"), "Ctrl+F",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.find_bar()->open(false); }); }},
    {"replace", QT_TRANSLATE_NOOP("Actions", "Find and replace\u2026"), "Ctrl+H",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.find_bar()->open(true); }); }},
    {"fold", QT_TRANSLATE_NOOP("Actions", "Fold the lines at the caret, or unfold"), "Ctrl+Shift+F",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.commands()->toggle_fold(); }); }},
    {"rename", QT_TRANSLATE_NOOP("Actions", "Rename the name at the caret"), "F2",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.commands()->rename(); }); }},
    {"definition", QT_TRANSLATE_NOOP("Actions", "Go to where the name is given"), "F12",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.commands()->go_to_definition(); }); }},
    {"comment", QT_TRANSLATE_NOOP("Actions", "Turn lines into comments, or back"), "Ctrl+/",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.commands()->toggle_comments(); }); }},
    {"colour", QT_TRANSLATE_NOOP("Actions", "Set the colour at the caret\u2026"), "Ctrl+Shift+C",
     [](Bench& b) { b.in_editor([](RulePanel& r) { r.open_picker(); }); }},
    {"recipes", QT_TRANSLATE_NOOP("Actions", "Write a recipe"), "", nullptr,
     [](Bench& b, QMenu& menu) {
         b.fill_in_editor(menu, [](RulePanel& r, QMenu& m) { r.commands()->fill_recipes(m); });
     }},
    {"add_proof", QT_TRANSLATE_NOOP("Actions", "Add a proof"), "", nullptr,
     [](Bench& b, QMenu& menu) {
         b.fill_in_editor(menu, [](RulePanel& r, QMenu& m) { r.commands()->fill_proofs(m); });
     }},
    {"mix", QT_TRANSLATE_NOOP("Actions", "Mix table"), "Ctrl+M", [](Bench& b) { b.toggle_mix(); }},
    {"wishes", QT_TRANSLATE_NOOP("Actions", "A matrix from wishes\u2026"), "Ctrl+Shift+M",
     [](Bench& b) { b.open_wishes(); }},
    {"reset", QT_TRANSLATE_NOOP("Actions", "Reset all values"), "", [](Bench& b) { b.reset_values(); }},
    {group, QT_TRANSLATE_NOOP("Actions", "Look"), "", nullptr},
    {"add_step", QT_TRANSLATE_NOOP("Actions", "Add a step"), "", nullptr,
     [](Bench& b, QMenu& menu) { b.look_actions().fill_add(menu); }},
    {"empty_step", QT_TRANSLATE_NOOP("Actions", "Add an empty step"), "Ctrl+Shift+N",
     [](Bench& b) { b.look_actions().add_empty(b.look().current() + 1); }},
    {"step", QT_TRANSLATE_NOOP("Actions", "Step in hand"), "", nullptr,
     [](Bench& b, QMenu& menu) { b.look_actions().fill_current(menu); }},
    {"step_before", QT_TRANSLATE_NOOP("Actions", "Step before"), "Ctrl+PgUp",
     [](Bench& b) { b.look_actions().take_next(-1); }},
    {"step_after", QT_TRANSLATE_NOOP("Actions", "Next step"), "Ctrl+PgDown",
     [](Bench& b) { b.look_actions().take_next(1); }},
    {"up_to_here", QT_TRANSLATE_NOOP("Actions", "Show up to the step in hand, or all"), "Ctrl+Shift+U",
     [](Bench& b) { b.look_actions().toggle_up_to_here(); }},
    {"title", QT_TRANSLATE_NOOP("Actions", "Title of the look\u2026"), "",
     [](Bench& b) { b.look_actions().ask_title(); }},
    {"look_proofs", QT_TRANSLATE_NOOP("Actions", "Proofs of the look\u2026"), "",
     [](Bench& b) { b.look_actions().open_proofs(); }},
    {group, QT_TRANSLATE_NOOP("Actions", "Compare"), "", nullptr},
    {"against", QT_TRANSLATE_NOOP("Actions", "Before is"), "", nullptr,
     [](Bench& b, QMenu& menu) { b.fill_against(menu); }},
    {"keep_now", QT_TRANSLATE_NOOP("Actions", "Compare with the rule as it is now"), "Ctrl+K",
     [](Bench& b) { b.compare_with_now(); }},
    {"take", QT_TRANSLATE_NOOP("Actions", "Remember a take"), "Ctrl+T", [](Bench& b) { b.remember_take(); }},
    {"take_before", QT_TRANSLATE_NOOP("Actions", "Flip to the take before"), "Alt+PgUp",
     [](Bench& b) { b.flip_take(-1); }},
    {"take_after", QT_TRANSLATE_NOOP("Actions", "Flip to the next take"), "Alt+PgDown",
     [](Bench& b) { b.flip_take(1); }},
    {"takes", QT_TRANSLATE_NOOP("Actions", "Takes side by side, or back"), "Ctrl+Shift+K",
     [](Bench& b) { b.show_takes(); }},
    {group, QT_TRANSLATE_NOOP("Actions", "Sheet"), "", nullptr},
    {"peek", QT_TRANSLATE_NOOP("Actions", "Show the expression at the caret on the sheet"), "Ctrl+E",
     [](Bench& b) { b.peek(); }},
    {"trace", QT_TRANSLATE_NOOP("Actions", "Trace at the pin"), "Ctrl+Shift+T", [](Bench& b) { b.trace(); }},
    {"add_target", QT_TRANSLATE_NOOP("Actions", "Add a target"), "", nullptr,
     [](Bench& b, QMenu& menu) { b.fill_targets(menu); }},
    {"add_chart", QT_TRANSLATE_NOOP("Actions", "Add a chart cell"), "", [](Bench& b) { b.add_chart(); }},
    {"add_reading", QT_TRANSLATE_NOOP("Actions", "Add a reading"), "", nullptr,
     [](Bench& b, QMenu& menu) { b.fill_readings(menu); }},
    {"sheet_window", QT_TRANSLATE_NOOP("Actions", "Sheet in a window of its own, or back"), "Ctrl+Shift+W",
     [](Bench& b) { b.tear_off_sheet(); }},
    {"next_panel", QT_TRANSLATE_NOOP("Actions", "Next panel"), "F6", [](Bench& b) { b.next_panel(); }},
    {line, nullptr, "", nullptr},
    {"library", QT_TRANSLATE_NOOP("Actions", "Library"), "Ctrl+B", [](Bench& b) { b.open_library(); }},
    {"room", QT_TRANSLATE_NOOP("Actions", "Room"), "", nullptr, [](Bench& b, QMenu& menu) { b.fill_rooms(menu); }},
    {"config", QT_TRANSLATE_NOOP("Actions", "Colour config\u2026"), "", [](Bench& b) { b.ask_config(); }},
    {"preferences", QT_TRANSLATE_NOOP("Actions", "Settings\u2026"), "Ctrl+,", [](Bench& b) { b.open_preferences(); }},
    {line, nullptr, "", nullptr},
    {"help", QT_TRANSLATE_NOOP("Actions", "Help"), "F1", [](Bench& b) { b.open_help(); }},
    {"keys", QT_TRANSLATE_NOOP("Actions", "All keys"), "Ctrl+F1", [](Bench& b) { b.show_keys(); }},
    {line, nullptr, "", nullptr},
    {"quit", QT_TRANSLATE_NOOP("Actions", "Quit"), "Ctrl+Q", [](Bench& b) { b.quit(); }},
};

} // namespace

std::span<const ActionRow> action_table() { return table; }

void fill_menu(QMenu& menu, QWidget& window, Bench& bench) {
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
        if (!row.run) { // filled when it opens
            QMenu* sub = to->addMenu(text);
            sub->setObjectName(row.id);
            QObject::connect(sub, &QMenu::aboutToShow, &window, [sub, &bench, &row] { row.fill(bench, *sub); });
            continue;
        }
        QAction* action = to->addAction(text, &window, [&row, &bench] { row.run(bench); });
        action->setObjectName(row.id);
        if (*row.shortcut) {
            action->setShortcut(QKeySequence(row.shortcut));
            action->setShortcutContext(Qt::WindowShortcut);
        }
        window.addAction(action);
    }
}

} // namespace kasuri::app
