#pragma once
#include <QKeySequence>
#include <QString>

#include <functional>
#include <span>
#include <vector>

class QAction;
class QMenu;
class QWidget;

namespace kasuri::app {

class WindowParts;

/// What a row does, with the part of the window that it is about.
struct Act {
    void (*run)(const WindowParts& parts) = nullptr;
    bool (*part_is_there)(const WindowParts& parts) = nullptr;
};
/// Fills a menu when it opens.
struct Fill {
    void (*fill)(const WindowParts& parts, QMenu& menu) = nullptr;
    bool (*part_is_there)(const WindowParts& parts) = nullptr;
};

/// One row: an action of the window; or, with neither act nor fill, the name of the menu that the next ones stand
/// in, or a line in the first menu, where the next ones stand again.
struct ActionRow {
    const char* id;
    const char* text;
    const char* shortcut;
    Act act;
    Fill fill{}; ///< a menu that is filled when it opens, instead of an act
};

std::span<const ActionRow> action_table();

/// Puts every row into the menu and its shortcut on the window. `parts` must live as long as both.
void fill_menu(QMenu& menu, QWidget& window, const WindowParts& parts);

} // namespace kasuri::app
