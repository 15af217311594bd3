// The sheet and time: frames of numbered sequences, and pins over them.
#include "base/movie_name.hpp"
#include "model/sheet.hpp"

#include <algorithm>
#include <utility>

namespace kasuri::app {

const io::Sequence& SheetModel::sequence_of(const Cell& cell) const {
    static const io::Sequence none;
    if (cell.target)
        return none;
    const auto found = sequences_.find(cell.picture);
    if (found == sequences_.end())
        if (const std::filesystem::path movie = movie_frame(cell.picture).movie; !movie.empty()) {
            // How many frames it has is known with the first one that was read.
            const auto image = images_.find(cell.picture);
            if (image == images_.end() || !image->second || !image->second->movie)
                return none;
            const image::MoviePlace& place = *image->second->movie;
            return sequences_.emplace(cell.picture, io::sequence_of_movie(movie, place.frames, place.frame))
                .first->second;
        }
    return found != sequences_.end() ? found->second
                                     : sequences_.emplace(cell.picture, io::sequence_of(cell.picture)).first->second;
}

void SheetModel::set_frame(int id, std::size_t frame) {
    const Step step(*this, tr("another frame"), QString("frame %1").arg(id));
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
    for (Pin& pin : arrangement_.pins)
        if (pin.source == was &&
            std::none_of(arrangement_.cells.begin(), arrangement_.cells.end(),
                         [&](const Cell& other) { return other.source() == was; }))
            pin.source = cell.source();
    read(cell.picture);
    forget_unused_images();
    emit changed();
}

void SheetModel::turn_to(const std::vector<Turn>& turns) {
    for (const Turn& turn : turns) {
        if (turn.from == turn.to)
            continue;
        const auto said = said_spaces_.find(turn.from);
        if (said != said_spaces_.end())
            said_spaces_[turn.to] = std::string(said->second); // frames of one sequence mean the same
        if (turn.image)
            images_[turn.to] = turn.image;
        if (!sequences_.contains(turn.to)) // that of the frame before, at another place: no folder is read
            if (auto known = sequences_.extract(turn.from); !known.empty()) {
                io::Sequence& next = known.mapped(); // the list itself goes along: one, however long it is
                const auto at = std::find_if(next.frames.begin(), next.frames.end(),
                                             [&](const auto& frame) { return frame.path.native() == turn.to; });
                next.at = static_cast<std::size_t>(at - next.frames.begin());
                if (at != next.frames.end()) {
                    known.key() = turn.to;
                    sequences_.insert(std::move(known));
                }
            }
    }
    arrangement_ = turned(std::move(arrangement_), turns);
    for (const Turn& turn : turns)
        read(turn.to); // what did not come along
    forget_unused_images();
    emit changed();
}

Arrangement SheetModel::turned(Arrangement arrangement, const std::vector<Turn>& turns) {
    const auto turn = [&](std::string& path) {
        for (const Turn& each : turns)
            if (each.from == path) {
                path = each.to;
                return;
            }
    };
    for (Cell& cell : arrangement.cells)
        if (!cell.target)
            turn(cell.picture);
    for (auto& [name, given] : arrangement.given)
        turn(given.picture);
    for (Pin& pin : arrangement.pins) {
        const std::size_t layer = pin.source.rfind('#');
        if (layer == std::string::npos)
            continue; // of a target
        std::string path = pin.source.substr(0, layer);
        turn(path);
        pin.source = path + pin.source.substr(layer);
    }
    return arrangement;
}

void SheetModel::take_as_step(const QString& name, const Arrangement& before) {
    if (before != arrangement_)
        emit rearranged(name, {}, before);
}

FrameFile SheetModel::frame_file(const std::string& path) const {
    const auto said = said_spaces_.find(path);
    return {path, said == said_spaces_.end() ? std::string() : said->second};
}

int SheetModel::add_over_time(int pin) {
    const Step step(*this, tr("a pin over time"));
    for (const Strip& strip : arrangement_.strips)
        if (strip.pin == pin)
            return strip.id; // it is there
    if (std::none_of(arrangement_.pins.begin(), arrangement_.pins.end(),
                     [pin](const Pin& each) { return each.number == pin; }))
        return 0;
    arrangement_.strips.push_back({.id = next_id_++, .pin = pin});
    const int id = arrangement_.strips.back().id;
    emit changed();
    return id;
}

void SheetModel::forget_strips_without_pin() {
    const auto gone = [this](const Strip& strip) {
        return strip.pin != 0 && std::none_of(arrangement_.pins.begin(), arrangement_.pins.end(), [&](const Pin& pin) {
                   return pin.number == strip.pin;
               });
    };
    if (std::erase_if(arrangement_.strips, gone) > 0)
        emit changed();
}

} // namespace kasuri::app
