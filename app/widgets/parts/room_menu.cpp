#include "widgets/parts/room_menu.hpp"

#include "widgets/parts/theme.hpp"

#include <QCoreApplication>
#include <QMenu>
#include <QSettings>

namespace kasuri::app {

void fill_rooms(QMenu& menu) {
    menu.clear();
    for (const theme::Room& room : theme::rooms()) {
        const QString name = QString::fromLatin1(room.name);
        QAction* action =
            menu.addAction(QCoreApplication::translate("Rooms", room.title), &menu, [name] { choose_room(name); });
        action->setCheckable(true);
        action->setChecked(theme::room() == name);
    }
}

void choose_room(const QString& name) {
    theme::set_room(name);
    QSettings().setValue("room", name);
}

void restore_room() {
    if (const QString kept = QSettings().value("room").toString(); !kept.isEmpty())
        theme::set_room(kept);
}

} // namespace kasuri::app
