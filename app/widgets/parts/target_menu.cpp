#include "widgets/parts/target_menu.hpp"
#include "model/readings_model.hpp"
#include "model/sheet.hpp"
#include "model/words.hpp"

#include <QCoreApplication>
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

void fill_targets(QMenu& menu, SheetModel& sheet) {
    menu.clear();
    add_target_actions(
        *menu.addMenu(QCoreApplication::translate("Actions", "as a strip")),
        [](const targets::Target& target) { return target.shape == targets::Shape::strip; },
        [&sheet](const targets::Target& target) { sheet.add_strip(target); });
    menu.addSeparator();
    add_target_actions(
        menu, [](const targets::Target& target) { return target.shape != targets::Shape::strip; },
        [&sheet](const targets::Target& target) { sheet.add_target(target, "colour"); });
}

void fill_readings(QMenu& menu, ReadingsModel& model) {
    menu.clear();
    for (const readings::Reading* reading : readings::all())
        menu.addAction(words(reading->title), &model, [&model, reading] { model.add(*reading); });
}

} // namespace kasuri::app
