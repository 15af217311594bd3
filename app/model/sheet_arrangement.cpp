// How the sheet is arranged: order, strips, settings, pins.
#include "base/digest.hpp"
#include "handover/render.hpp"
#include "model/sheet.hpp"

#include <algorithm>
#include <utility>

namespace kasuri::app {
namespace {

/// Moves the one with the id before another one; 0: to the end.
template <class Things>
void move_before(Things& things, int id, int before) {
    const auto from = std::find_if(things.begin(), things.end(), [id](const auto& t) { return t.id == id; });
    if (from == things.end() || id == before)
        return;
    auto thing = std::move(*from);
    things.erase(from);
    const auto to = std::find_if(things.begin(), things.end(), [before](const auto& t) { return t.id == before; });
    things.insert(to, std::move(thing));
}

} // namespace

int SheetModel::duplicate(int id) {
    const Step step(*this, tr("a cell duplicated"));
    const auto found =
        std::find_if(arrangement_.cells.begin(), arrangement_.cells.end(), [id](const Cell& c) { return c.id == id; });
    if (found == arrangement_.cells.end())
        return 0;
    Cell copy = *found;
    copy.id = next_id_++;
    const int made = copy.id;
    arrangement_.cells.insert(found + 1, std::move(copy));
    emit changed();
    return made;
}

bool SheetModel::shows_takes() const {
    return std::any_of(cells().begin(), cells().end(), [](const Cell& cell) { return cell.take != nullptr; });
}

void SheetModel::try_take(std::shared_ptr<const document::KeptTake> take) {
    if (take == tried_ || (take && tried_ && *take == *tried_))
        return;
    tried_ = std::move(take);
    emit take_tried();
}

void SheetModel::show_takes(int id, const std::vector<document::KeptTake>& takes) {
    const Step step(*this, takes.empty() ? tr("takes put away") : tr("takes side by side"));
    std::erase_if(arrangement_.cells, [](const Cell& cell) { return cell.take != nullptr; });
    auto found =
        std::find_if(arrangement_.cells.begin(), arrangement_.cells.end(), [id](const Cell& c) { return c.id == id; });
    if (found != arrangement_.cells.end()) {
        const Cell shown = *found;
        for (const document::KeptTake& take : takes) {
            Cell copy = shown;
            copy.id = next_id_++;
            copy.take = std::make_shared<const document::KeptTake>(take);
            found = arrangement_.cells.insert(found + 1, std::move(copy));
        }
    }
    emit changed();
}

void SheetModel::move(int id, int before) {
    const Step step(*this, tr("a cell moved"));
    move_before(arrangement_.cells, id, before);
    emit changed();
}

void SheetModel::set_settings(int id, std::vector<double> settings) {
    const Step step(*this, tr("settings of a target"), QString("settings %1").arg(id));
    if (!find(id))
        return;
    at(id).settings = std::move(settings);
    emit changed();
}

void SheetModel::set_line(int id, const readings::Line& line) {
    const Step step(*this, tr("the line of a cut"), QString("line %1").arg(id));
    if (!find(id) || at(id).line == line)
        return;
    at(id).line = line;
    emit changed();
}

void SheetModel::forget_unused_images() {
    const auto used = [this](const std::string& path) { return uses(path); };
    std::erase_if(images_, [&](const auto& entry) { return entry.second && !used(entry.first); });
    std::erase_if(pictures_, [&](const auto& entry) { return !used(entry.first.substr(0, entry.first.rfind('#'))); });
}

const Strip* SheetModel::find_strip(int id) const {
    const auto found = std::find_if(arrangement_.strips.begin(), arrangement_.strips.end(),
                                    [id](const Strip& s) { return s.id == id; });
    return found == arrangement_.strips.end() ? nullptr : &*found;
}

Strip& SheetModel::strip_at(int id) {
    return *std::find_if(arrangement_.strips.begin(), arrangement_.strips.end(),
                         [id](const Strip& s) { return s.id == id; });
}

int SheetModel::add_strip(const targets::Target& target, std::vector<double> settings) {
    const Step step(*this, tr("a strip added"));
    arrangement_.strips.push_back({next_id_++, &target, std::move(settings)});
    const int id = arrangement_.strips.back().id;
    emit changed();
    return id;
}

int SheetModel::add_cut(int cell) {
    const Step step(*this, tr("a cut added"));
    for (const Strip& strip : arrangement_.strips)
        if (strip.is_cut() && strip.cell == cell)
            return strip.id; // it is there
    arrangement_.strips.push_back({next_id_++, nullptr, {}, cell});
    const int id = arrangement_.strips.back().id;
    emit changed();
    return id;
}

void SheetModel::remove_strip(int id) {
    const Step step(*this, tr("a strip removed"));
    std::erase_if(arrangement_.strips, [id](const Strip& s) { return s.id == id; });
    emit changed();
}

void SheetModel::move_strip(int id, int before) {
    const Step step(*this, tr("a strip moved"));
    move_before(arrangement_.strips, id, before);
    emit changed();
}

void SheetModel::set_strip(int id, const targets::Target& target) {
    const Step step(*this, tr("another strip"));
    if (!find_strip(id))
        return;
    Strip& strip = strip_at(id);
    strip.target = &target;
    strip.settings.clear();
    strip.cell = strip.pin = 0;
    emit changed();
}

void SheetModel::set_strip_settings(int id, std::vector<double> settings) {
    const Step step(*this, tr("settings of a strip"), QString("strip %1").arg(id));
    if (!find_strip(id))
        return;
    strip_at(id).settings = std::move(settings);
    emit changed();
}

int SheetModel::add_pin(const std::string& source, QPoint pixel) {
    const Step step(*this, tr("a pin set"));
    int number = 1;
    while (std::any_of(arrangement_.pins.begin(), arrangement_.pins.end(),
                       [number](const Pin& p) { return p.number == number; }))
        ++number;
    arrangement_.pins.push_back({number, source, pixel});
    active_pin_ = number;
    std::sort(arrangement_.pins.begin(), arrangement_.pins.end(),
              [](const Pin& a, const Pin& b) { return a.number < b.number; });
    emit pins_changed();
    return number;
}

void SheetModel::move_pin(int number, QPoint pixel) {
    const Step step(*this, tr("a pin moved"), QString("pin %1").arg(number));
    for (Pin& pin : arrangement_.pins)
        if (pin.number == number && pin.pixel != pixel) {
            pin.pixel = pixel;
            emit pins_changed();
        }
}

void SheetModel::remove_pin(int number) {
    const Step step(*this, tr("a pin removed"));
    if (std::erase_if(arrangement_.pins, [number](const Pin& p) { return p.number == number; }) == 0)
        return;
    forget_strips_without_pin();
    emit pins_changed();
}

void SheetModel::remove_pins() {
    const Step step(*this, tr("all pins removed"));
    arrangement_.pins.clear();
    forget_strips_without_pin();
    emit pins_changed();
}

void SheetModel::set_pins(std::vector<Pin> pins) {
    arrangement_.pins = std::move(pins);
    forget_strips_without_pin();
    emit pins_changed();
}

const Pin* SheetModel::active_pin() const {
    const auto& pins = arrangement_.pins;
    const auto found = std::find_if(pins.begin(), pins.end(), [this](const Pin& p) { return p.number == active_pin_; });
    return found != pins.end() ? &*found : pins.empty() ? nullptr : &pins.front();
}

void SheetModel::set_active_pin(int number) {
    if (std::exchange(active_pin_, number) != number)
        emit pins_changed();
}

void SheetModel::give(const std::string& source, const std::filesystem::path& picture, const std::string& layer) {
    const Step step(*this, tr("a picture for %1").arg(QString::fromStdString(source)));
    arrangement_.given[source] = {picture.string(), layer};
    read(picture.string());
    forget_unused_images();
    emit changed();
}

void SheetModel::clear_source_picture(const std::string& source) {
    const Step step(*this, tr("no picture for %1").arg(QString::fromStdString(source)));
    if (arrangement_.given.erase(source) == 0)
        return;
    forget_unused_images();
    emit changed();
}

subject::Bindings SheetModel::given_pictures() const {
    subject::Bindings pictures;
    for (const auto& [source, given] : arrangement_.given)
        if (PicturePtr picture = picture_in(given.picture, given.layer)) {
            const std::string file = handover::is_target(given.picture)
                ? given.picture
                : std::filesystem::path(given.picture).filename().string();
            pictures[source] = {std::move(picture), given.layer.empty() ? file : file + ":" + given.layer, {}};
        }
    return pictures;
}

Result<subject::Bindings> SheetModel::pictures_to_render() const {
    subject::Bindings pictures = given_pictures();
    for (const auto& [source, given] : arrangement_.given) {
        const auto found = pictures.find(source);
        if (found == pictures.end())
            return Error{said("the picture for {} has not been read", source), given.picture,
                         "Wait until it is there, or give another one."};
        Digest identity;
        identity.add(handover::identity_of(given.picture, given.layer));
        const auto said = said_spaces_.find(given.picture);
        identity.add(said == said_spaces_.end() ? "" : said->second);
        found->second.identity = identity.text();
    }
    return pictures;
}

void SheetModel::arrange(Arrangement arrangement) {
    arrangement_ = std::move(arrangement);
    for (const Cell& cell : arrangement_.cells)
        if (!cell.target)
            read(cell.picture);
    for (const auto& [source, given] : arrangement_.given)
        read(given.picture);
    forget_unused_images();
    emit changed();
    emit pins_changed();
}

} // namespace kasuri::app
