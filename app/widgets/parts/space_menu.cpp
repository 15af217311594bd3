#include "widgets/parts/space_menu.hpp"

#include "colour/space.hpp"
#include "model/words.hpp"

#include <QMenu>

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
    QMenu* linear = encoded_only ? nullptr : menu.addMenu(QObject::tr("proportional to light"));
    if (linear)
        linear->setToolTipsVisible(true);
    for (const colour::Space& space : colour::spaces())
        if (!is_linear(space))
            add(menu, space);
        else if (linear)
            add(*linear, space);
    const std::vector<std::string> further = colour::added_spaces();
    if (further.empty())
        return;
    menu.addSeparator();
    QMenu* config = menu.addMenu(QObject::tr("of the colour config"));
    config->setToolTipsVisible(true);
    for (const std::string& name : further)
        if (const colour::Space* space = colour::find_space(name))
            add(*config, *space);
}

} // namespace kasuri::app
