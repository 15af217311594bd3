// How the sheet is arranged: order, strips, settings, pins.
#include "model/sheet.hpp"

#include <algorithm>

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
    const auto found = std::find_if(cells_.begin(), cells_.end(), [id](const Cell& c) { return c.id == id; });
    if (found == cells_.end())
        return 0;
    Cell copy = *found;
    copy.id = next_id_++;
    const int made = copy.id;
    cells_.insert(found + 1, std::move(copy));
    emit changed();
    return made;
}

void SheetModel::move(int id, int before) {
    move_before(cells_, id, before);
    emit changed();
}

void SheetModel::set_settings(int id, std::vector<double> settings) {
    if (!find(id))
        return;
    at(id).settings = std::move(settings);
    emit changed();
}

void SheetModel::set_line(int id, const readings::Line& line) {
    if (!find(id) || at(id).line == line)
        return;
    at(id).line = line;
    emit changed();
}

const io::Sequence& SheetModel::sequence_of(const Cell& cell) const {
    static const io::Sequence none;
    if (cell.target)
        return none;
    const auto found = sequences_.find(cell.picture);
    return found != sequences_.end() ? found->second : sequences_.emplace(cell.picture, io::sequence_of(cell.picture)).first->second;
}

void SheetModel::set_frame(int id, std::size_t frame) {
    if (!find(id))
        return;
    Cell& cell = at(id);
    const io::Sequence sequence = sequence_of(cell);
    if (frame >= sequence.frames.size() || frame == sequence.at)
        return;
    // Pins of the cell's picture go along.
    const std::string was = cell.source();
    const auto said = said_spaces_.find(cell.picture);
    const std::string space = said == said_spaces_.end() ? std::string() : said->second;
    cell.picture = sequence.frames[frame].path.string();
    io::Sequence next = sequence;
    next.at = frame;
    sequences_[cell.picture] = std::move(next);
    if (!space.empty())
        said_spaces_[cell.picture] = space; // frames of one sequence mean the same
    for (Pin& pin : pins_)
        if (pin.source == was && std::none_of(cells_.begin(), cells_.end(), [&](const Cell& other) { return other.source() == was; }))
            pin.source = cell.source();
    read(cell.picture);
    forget_unused_images();
    emit changed();
}

void SheetModel::forget_unused_images() {
    const auto used = [this](const std::string& path) { return std::any_of(cells_.begin(), cells_.end(), [&](const Cell& cell) { return !cell.target && cell.picture == path; }); };
    std::erase_if(images_, [&](const auto& entry) { return entry.second && !used(entry.first); });
    std::erase_if(pictures_, [&](const auto& entry) { return !used(entry.first.substr(0, entry.first.rfind('#'))); });
}

const Strip* SheetModel::find_strip(int id) const {
    const auto found = std::find_if(strips_.begin(), strips_.end(), [id](const Strip& s) { return s.id == id; });
    return found == strips_.end() ? nullptr : &*found;
}

Strip& SheetModel::strip_at(int id) {
    return *std::find_if(strips_.begin(), strips_.end(), [id](const Strip& s) { return s.id == id; });
}

int SheetModel::add_strip(const targets::Target& target, std::vector<double> settings) {
    strips_.push_back({next_id_++, &target, std::move(settings)});
    const int id = strips_.back().id;
    emit changed();
    return id;
}

int SheetModel::add_cut(int cell) {
    for (const Strip& strip : strips_)
        if (!strip.target && strip.cell == cell)
            return strip.id; // it is there
    strips_.push_back({next_id_++, nullptr, {}, cell});
    const int id = strips_.back().id;
    emit changed();
    return id;
}

void SheetModel::remove_strip(int id) {
    std::erase_if(strips_, [id](const Strip& s) { return s.id == id; });
    emit changed();
}

void SheetModel::move_strip(int id, int before) {
    move_before(strips_, id, before);
    emit changed();
}

void SheetModel::set_strip(int id, const targets::Target& target) {
    if (!find_strip(id))
        return;
    Strip& strip = strip_at(id);
    strip.target = &target;
    strip.settings.clear();
    strip.cell = 0;
    emit changed();
}

void SheetModel::set_strip_settings(int id, std::vector<double> settings) {
    if (!find_strip(id))
        return;
    strip_at(id).settings = std::move(settings);
    emit changed();
}

int SheetModel::add_pin(const std::string& source, QPoint pixel) {
    int number = 1;
    while (std::any_of(pins_.begin(), pins_.end(), [number](const Pin& p) { return p.number == number; }))
        ++number;
    pins_.push_back({number, source, pixel});
    std::sort(pins_.begin(), pins_.end(), [](const Pin& a, const Pin& b) { return a.number < b.number; });
    emit pins_changed();
    return number;
}

void SheetModel::move_pin(int number, QPoint pixel) {
    for (Pin& pin : pins_)
        if (pin.number == number && pin.pixel != pixel) {
            pin.pixel = pixel;
            emit pins_changed();
        }
}

void SheetModel::remove_pin(int number) {
    if (std::erase_if(pins_, [number](const Pin& p) { return p.number == number; }) > 0)
        emit pins_changed();
}

void SheetModel::remove_pins() {
    pins_.clear();
    emit pins_changed();
}

} // namespace kasuri::app
