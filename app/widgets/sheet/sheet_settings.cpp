#include "widgets/sheet/sheet_settings.hpp"

#include "base/movie_name.hpp"
#include "colour/space.hpp"
#include "model/file_names.hpp"
#include "model/playback.hpp"
#include "model/readings_model.hpp"
#include "model/sheet.hpp"

#include <QFileInfo>
#include <QMap>
#include <QSettings>
#include <QStringList>
#include <QVariant>

namespace kasuri::app {
namespace {
/// The most pictures of which something is kept.
constexpr std::size_t max_pictures = 500;

QString text_of(const std::vector<double>& numbers) {
    QStringList all;
    for (const double number : numbers)
        all << QString::number(number, 'g', 17);
    return all.join(',');
}

std::vector<double> numbers_of(const QString& text, std::span<const Setting> settings) {
    std::vector<double> numbers;
    for (const QString& number : text.split(',', Qt::SkipEmptyParts))
        numbers.push_back(number.toDouble());
    return numbers.empty() ? numbers : completed(settings, numbers);
}
} // namespace

void restore_settings(SheetModel& sheet, ReadingsModel& readings) {
    QSettings settings;
    Screen screen;
    if (const std::string space = settings.value("screen/space").toString().toStdString(); colour::find_space(space))
        screen.space = space;
    screen.limits = settings.value("screen/soft").toBool() ? Limits::soft : Limits::hard;
    screen.surround = std::clamp(settings.value("screen/surround", usual_surround).toDouble(), 0.0, 100.0);
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
            if (const targets::Target* target = targets::find(line.section('|', 0, 0).toStdString()))
                sheet.add_strip(*target, numbers_of(line.section('|', 1), target->settings));
    }
    if (settings.contains("sheet/readings")) {
        std::vector<std::string> lines;
        for (const QString& line : settings.value("sheet/readings").toStringList())
            lines.push_back(line.toStdString());
        readings.restore(lines);
    }
}

bool restore_cells(SheetModel& sheet) {
    const QVariantList cells = QSettings().value("sheet/cells").toList();
    for (const QVariant& entry : cells) {
        const QVariantMap cell = entry.toMap();
        const std::string lens = cell.value("lens").toString().toStdString();
        if (const targets::Target* target = targets::find(cell.value("target").toString().toStdString()))
            sheet.add_target(*target, lens, numbers_of(cell.value("settings").toString(), target->settings));
        else if (const QString picture = cell.value("picture").toString();
                 QFileInfo::exists(text_of(file_of(std::filesystem::path(bytes_of(picture))))))
            sheet.add_picture(bytes_of(picture), lens, cell.value("layer").toString().toStdString());
    }
    return !sheet.cells().empty();
}

void store_settings(const SheetModel& sheet, const ReadingsModel& readings) {
    QSettings settings;
    settings.setValue("screen/space", QString::fromStdString(sheet.screen().space));
    settings.setValue("screen/soft", sheet.screen().limits == Limits::soft);
    settings.setValue("screen/surround", sheet.screen().surround);
    QVariantMap spaces;
    for (const auto& [path, space] : sheet.said_spaces())
        if (spaces.size() < static_cast<qsizetype>(max_pictures))
            spaces.insert(QString::fromStdString(path), QString::fromStdString(space));
    settings.setValue("pictures/spaces", spaces);
    QStringList strips, read;
    for (const Strip& strip : sheet.strips())
        if (strip.target)
            strips << QString::fromStdString(std::string(strip.target->name)) + "|" + text_of(strip.settings);
    for (const std::string& line : readings.stored())
        read << QString::fromStdString(line);
    QVariantList cells;
    for (const Cell& cell : sheet.cells()) {
        if (cell.take) // of this document, and seen for a while
            continue;
        QVariantMap entry = {{"lens", QString::fromStdString(cell.lens)}};
        if (cell.target) {
            entry["target"] = QString::fromStdString(std::string(cell.target->name));
            entry["settings"] = text_of(cell.settings);
        } else {
            entry["picture"] = QFileInfo(text_of(cell.picture)).absoluteFilePath();
            entry["layer"] = QString::fromStdString(cell.layer);
        }
        cells << entry;
    }
    settings.setValue("sheet/cells", cells);
    settings.setValue("sheet/strips", strips);
    settings.setValue("sheet/readings", read);
}

void restore_playback(Playback& playback) {
    const QSettings settings;
    playback.set_rate(std::clamp(settings.value("frames/rate", playback.rate()).toDouble(), 0.0, 240.0));
    playback.set_keeps_own_rate(settings.value("frames/own", playback.keeps_own_rate()).toBool());
    playback.set_loops(settings.value("frames/loops", playback.loops()).toBool());
    if (const double size = settings.value("frames/memory").toDouble(); size > 0)
        playback.store().set_limit(static_cast<std::size_t>(size * 1024 * 1024));
}

void store_playback(const Playback& playback) {
    QSettings settings;
    settings.setValue("frames/rate", playback.rate());
    settings.setValue("frames/own", playback.keeps_own_rate());
    settings.setValue("frames/loops", playback.loops());
}

} // namespace kasuri::app
