#include "widgets/target_menu.hpp"
#include "model/words.hpp"

#include <QMenu>

namespace kasuri::app {

void add_target_actions(QMenu& menu, const std::function<bool(const targets::Target&)>& wanted,
                        const std::function<void(const targets::Target&)>& chosen) {
    menu.setToolTipsVisible(true);
    const auto utf8 = [](std::string_view text) {
        return QString::fromUtf8(text.data(), static_cast<qsizetype>(text.size()));
    };
    for (const targets::Target* target : targets::all())
        if (wanted(*target)) {
            QAction* action = menu.addAction(words(target->title), &menu, [chosen, target] { chosen(*target); });
            action->setObjectName(utf8(target->name));
            action->setToolTip(words(target->doc) + (target->source.empty() ? QString() : "\n" + utf8(target->source)));
        }
}

} // namespace kasuri::app
