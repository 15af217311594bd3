#include "widgets/space_menu.hpp"

#include "colour/space.hpp"

#include <QMenu>

namespace kasuri::app {

void add_spaces(QMenu& menu, const std::string& current, const std::function<void(const std::string&)>& chosen, bool encoded_only) {
    menu.setToolTipsVisible(true);
    for (const colour::Space& space : colour::spaces()) {
        if (encoded_only && space.transfer == "linear")
            continue;
        const std::string name(space.name);
        QAction* action = menu.addAction(QString::fromStdString(name), &menu, [chosen, name] { chosen(name); });
        action->setCheckable(true);
        action->setChecked(name == current);
        action->setToolTip(QString::fromUtf8(space.doc.data(), static_cast<qsizetype>(space.doc.size())));
    }
}

} // namespace kasuri::app
