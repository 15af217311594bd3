#include "widgets/sheet_settings.hpp"

#include "colour/space.hpp"
#include "model/sheet.hpp"

#include <QMap>
#include <QSettings>
#include <QVariant>

namespace kasuri::app {
namespace {
/// The most pictures of which something is kept.
constexpr std::size_t most_pictures = 500;
} // namespace

void restore_settings(SheetModel& sheet) {
    QSettings settings;
    Screen screen;
    if (const std::string space = settings.value("screen/space").toString().toStdString(); colour::find_space(space))
        screen.space = space;
    screen.limits = settings.value("screen/soft").toBool() ? Limits::soft : Limits::hard;
    sheet.set_screen(screen);
    std::map<std::string, std::string> said;
    const QVariantMap spaces = settings.value("pictures/spaces").toMap();
    for (auto entry = spaces.begin(); entry != spaces.end(); ++entry)
        if (const std::string space = entry.value().toString().toStdString(); colour::find_space(space))
            said[entry.key().toStdString()] = space;
    sheet.remember_spaces(std::move(said));
}

void store_settings(const SheetModel& sheet) {
    QSettings settings;
    settings.setValue("screen/space", QString::fromStdString(sheet.screen().space));
    settings.setValue("screen/soft", sheet.screen().limits == Limits::soft);
    QVariantMap spaces;
    for (const auto& [path, space] : sheet.said_spaces())
        if (spaces.size() < static_cast<qsizetype>(most_pictures))
            spaces.insert(QString::fromStdString(path), QString::fromStdString(space));
    settings.setValue("pictures/spaces", spaces);
}

} // namespace kasuri::app
