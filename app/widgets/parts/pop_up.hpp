#pragma once
#include <QMenu>

namespace kasuri::app {

/// Shows a menu that `fill` fills. It lives until it is closed or the widget that it is about is gone, whichever comes
/// first: nobody waits for it, so nothing can go from under who does.
template <class Fill>
void pop_up(QWidget* of, const QPoint& at, Fill&& fill) {
    auto* menu = new QMenu(of);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    fill(*menu);
    menu->popup(at);
}

} // namespace kasuri::app
