#include "widgets/sheet_settings.hpp"

#include "colour/space.hpp"
#include "model/readings_model.hpp"
#include "model/sheet.hpp"

#include <QMap>
#include <QSettings>
#include <QStringList>
#include <QVariant>

namespace kasuri::app {
namespace {
/// The most pictures of which something is kept.
constexpr std::size_t most_pictures = 500;
} // namespace

void restore_settings(SheetModel& sheet, ReadingsModel& readings) {
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
    if (settings.contains("sheet/strips")) {
        for (const Strip& strip : std::vector<Strip>(sheet.strips()))
            sheet.remove_strip(strip.id);
        for (const QString& line : settings.value("sheet/strips").toStringList())
            if (const targets::Target* target = targets::find(line.section('|', 0, 0).toStdString())) {
                std::vector<double> values;
                for (const QString& value : line.section('|', 1).split(',', Qt::SkipEmptyParts))
                    values.push_back(value.toDouble());
                sheet.add_strip(*target, values.empty() ? values : completed(target->settings, values));
            }
    }
    if (settings.contains("sheet/readings")) {
        std::vector<std::string> lines;
        for (const QString& line : settings.value("sheet/readings").toStringList())
            lines.push_back(line.toStdString());
        readings.restore(lines);
    }
}

void store_settings(const SheetModel& sheet, const ReadingsModel& readings) {
    QSettings settings;
    settings.setValue("screen/space", QString::fromStdString(sheet.screen().space));
    settings.setValue("screen/soft", sheet.screen().limits == Limits::soft);
    QVariantMap spaces;
    for (const auto& [path, space] : sheet.said_spaces())
        if (spaces.size() < static_cast<qsizetype>(most_pictures))
            spaces.insert(QString::fromStdString(path), QString::fromStdString(space));
    settings.setValue("pictures/spaces", spaces);
    QStringList strips, read;
    for (const Strip& strip : sheet.strips())
        if (strip.target) {
            QStringList values;
            for (const double value : strip.settings)
                values << QString::number(value, 'g', 17);
            strips << QString::fromStdString(std::string(strip.target->name)) + "|" + values.join(',');
        }
    for (const std::string& line : readings.stored())
        read << QString::fromStdString(line);
    settings.setValue("sheet/strips", strips);
    settings.setValue("sheet/readings", read);
}

} // namespace kasuri::app
