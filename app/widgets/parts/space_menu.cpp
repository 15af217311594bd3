#include "widgets/parts/space_menu.hpp"

#include "colour/space.hpp"
#include "model/words.hpp"

#include <QMenu>

#include <algorithm>

namespace kasuri::app {

void add_spaces(QMenu& menu, const std::string& current, const std::function<void(const std::string&)>& chosen,
                bool encoded_only) {
    menu.setToolTipsVisible(true);
    const auto add = [&](QMenu& to, const colour::Space& space) {
        const std::string name(space.name);
        QAction* action =
            to.addAction(QString::fromStdString(name).replace("&", "&&"), &menu, [chosen, name] { chosen(name); });
        action->setCheckable(true);
        action->setChecked(name == current);
        action->setToolTip(words(space.doc));
    };
    const auto add_those = [&](const QString& title, const std::vector<std::string>& names) {
        if (names.empty())
            return;
        QMenu* of_config = menu.addMenu(title);
        of_config->setToolTipsVisible(true);
        for (const std::string& name : names)
            if (const colour::Space* space = colour::find_space(name))
                add(*of_config, *space);
    };
    if (encoded_only) { // a display: as the show sees it, before what a screen may be
        const std::vector<std::string> prints = colour::added_prints();
        std::vector<std::string> views = colour::added_views();
        std::erase_if(views,
                      [&](const auto& name) { return std::find(prints.begin(), prints.end(), name) != prints.end(); });
        add_those(QObject::tr("as printed"), prints);
        add_those(QObject::tr("views of the colour config"), views);
        menu.addSeparator();
    }
    QMenu* linear = encoded_only ? nullptr : menu.addMenu(QObject::tr("proportional to light"));
    if (linear)
        linear->setToolTipsVisible(true);
    for (const colour::Space& space : colour::spaces())
        if (!is_linear(space))
            add(menu, space);
        else if (linear)
            add(*linear, space);
    menu.addSeparator();
    add_those(QObject::tr("of the colour config"), colour::added_spaces());
}

} // namespace kasuri::app
