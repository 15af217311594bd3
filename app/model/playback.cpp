#include "model/playback.hpp"

#include "base/movie_name.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace kasuri::app {
namespace {
constexpr std::size_t lately = 24; ///< frames by which the rate is measured
}

Playback::Playback(SheetModel& sheet, QObject* parent) : QObject(parent), sheet_(sheet) {
    due_.setSingleShot(true);
    due_.setTimerType(Qt::PreciseTimer);
    connect(&due_, &QTimer::timeout, this, &Playback::advance);
    connect(&store_, &FrameStore::arrived, this, &Playback::advance);
    connect(&store_, &FrameStore::failed, this, [this](const FrameFile&, const Error& error) {
        if (!playing())
            return;
        emit said(tr("Left out: %1").arg(QString::fromStdString(error.text())), true);
        advance();
    });
}

std::string Playback::key_of(const io::Sequence& sequence) {
    const std::filesystem::path& path = sequence.frames.front().path;
    if (const std::filesystem::path movie = movie_frame(path).movie; !movie.empty())
        return movie.string();
    const auto name = io::frame_name(path);
    return (path.parent_path() / (name ? name->before + "#" + name->after : path.filename().string())).string();
}

const io::Sequence* Playback::sequence_of(int id) const {
    const Cell* cell = sheet_.find(id);
    if (!cell)
        return nullptr;
    const io::Sequence& sequence = sheet_.sequence_of(*cell);
    return sequence.frames.size() < 2 ? nullptr : &sequence;
}

bool Playback::can_play(int cell) const { return sequence_of(cell) != nullptr; }

Playback::Range Playback::range(int cell) const {
    const io::Sequence* sequence = sequence_of(cell);
    if (!sequence)
        return {};
    Range range{0, sequence->frames.size() - 1};
    const auto found = ranges_.find(key_of(*sequence));
    if (found == ranges_.end())
        return range;
    // By number: files may have come or gone.
    const auto first = std::find_if(sequence->frames.begin(), sequence->frames.end(),
                                    [&](const auto& frame) { return frame.number >= found->second.first; });
    const auto last = std::find_if(sequence->frames.rbegin(), sequence->frames.rend(),
                                   [&](const auto& frame) { return frame.number <= found->second.second; });
    if (first == sequence->frames.end() || last == sequence->frames.rend() || first->number > last->number)
        return range;
    return {static_cast<std::size_t>(first - sequence->frames.begin()),
            static_cast<std::size_t>(sequence->frames.rend() - last - 1)};
}

void Playback::set_range(int cell, std::size_t first, std::size_t last) {
    const io::Sequence* sequence = sequence_of(cell);
    if (!sequence)
        return;
    ranges_[key_of(*sequence)] = {sequence->frames[first].number, sequence->frames[last].number};
    if (playing(cell)) { // goes on with the new ones
        played_ = {first, last};
        const std::size_t now = std::clamp(sequence->at, first, last);
        position_ = began_at_ = static_cast<std::int64_t>(now - first);
        clock_.restart();
        lately_.clear();
        read_ahead(position_);
    }
    emit changed();
}

void Playback::begin_here(int cell) {
    if (const io::Sequence* sequence = sequence_of(cell))
        set_range(cell, sequence->at, std::max(sequence->at, range(cell).last));
}

void Playback::end_here(int cell) {
    if (const io::Sequence* sequence = sequence_of(cell))
        set_range(cell, std::min(sequence->at, range(cell).first), sequence->at);
}

void Playback::play_all(int cell) {
    if (const io::Sequence* sequence = sequence_of(cell))
        set_range(cell, 0, sequence->frames.size() - 1);
}

void Playback::set_loops(bool loops) {
    loops_ = loops;
    emit changed();
    advance();
}

void Playback::set_rate(double rate) {
    rate_ = rate;
    start_clock();
}

void Playback::set_keeps_own_rate(bool keeps) {
    own_rate_ = keeps;
    start_clock();
}

double Playback::own_rate(int id) const {
    const Cell* cell = sheet_.find(id);
    const auto file = cell ? sheet_.file_of(*cell) : nullptr;
    return file && file->movie && file->movie->rate > 0 ? static_cast<double>(file->movie->rate) / file->movie->per : 0;
}

void Playback::start_clock() {
    const double own = own_rate(playing() ? cell_ : 0);
    speed_ = own_rate_ && own > 0 ? own : rate_;
    began_at_ = position_;
    clock_.restart();
    lately_.clear();
    emit changed();
    advance();
}

std::vector<Playback::Track> Playback::tracks_of(const io::Sequence& led) const {
    std::vector<Track> tracks(1);
    for (const auto& frame : led.frames)
        tracks[0].files.push_back(frame.path.string());
    std::set<std::string> known{key_of(led)};
    const auto add = [&](const std::string& path) {
        Cell shown;
        shown.picture = path;
        const io::Sequence& other = sheet_.sequence_of(shown);
        if (other.frames.size() < 2 || !known.insert(key_of(other)).second)
            return;
        Track track;
        for (const auto& frame : led.frames) {
            const auto same = std::find_if(other.frames.begin(), other.frames.end(),
                                           [&](const auto& each) { return each.number == frame.number; });
            track.files.push_back(same == other.frames.end() ? std::string() : same->path.string());
        }
        tracks.push_back(std::move(track));
    };
    for (const Cell& cell : sheet_.cells())
        if (!cell.target)
            add(cell.picture);
    for (const auto& [name, given] : sheet_.source_pictures())
        add(given.picture);
    return tracks;
}

void Playback::play(int cell) {
    const io::Sequence* sequence = sequence_of(cell);
    if (!sequence || playing())
        return;
    cell_ = last_cell_ = cell;
    speed_ = own_rate_ && own_rate(cell) > 0 ? own_rate(cell) : rate_;
    tracks_ = tracks_of(*sequence);
    played_ = range(cell);
    began_ = sequence->at;
    counts_ = {};
    lately_.clear();
    store_.forget_faults();
    const bool inside = began_ >= played_.first && began_ <= played_.last && (loops_ || began_ < played_.last);
    position_ = began_at_ = inside ? static_cast<std::int64_t>(began_ - played_.first) : -1;
    on_screen_ = true;
    clock_.start();
    read_ahead(std::max<std::int64_t>(0, position_));
    emit changed();
    advance();
}

void Playback::end() {
    due_.stop();
    cell_ = 0;
    store_.want({}); // what has been read stays as long as there is room
    emit changed();
}

void Playback::stop() {
    if (!playing())
        return;
    const io::Sequence* sequence = sequence_of(cell_);
    if (sequence && sequence->at != began_) {
        // What was done meanwhile stays done: the sheet as it is, but for the frames.
        std::vector<SheetModel::Turn> back;
        for (const Track& track : tracks_)
            if (!track.files[sequence->at].empty() && !track.files[began_].empty())
                back.push_back({track.files[sequence->at], track.files[began_]});
        end();
        sheet_.take_as_step(tr("frames played"), SheetModel::turned(sheet_.arrangement(), back));
        return;
    }
    end();
}

std::size_t Playback::frame_at(std::int64_t position) const {
    const auto count = static_cast<std::int64_t>(played_.last - played_.first + 1);
    return played_.first + static_cast<std::size_t>(position % count);
}

std::vector<FrameFile> Playback::files_at(std::size_t frame) const {
    std::vector<FrameFile> files;
    // What the numbers mean is said of the frame that is shown, and of all of them with it.
    const Cell* cell = sheet_.find(cell_);
    const std::string space = cell ? sheet_.frame_file(cell->picture).space : std::string();
    for (std::size_t i = 0; i < tracks_.size(); ++i)
        if (!tracks_[i].files[frame].empty())
            files.push_back(i == 0 ? FrameFile{tracks_[i].files[frame], space}
                                   : sheet_.frame_file(tracks_[i].files[frame]));
    return files;
}

bool Playback::is_there(std::size_t frame) {
    const std::vector<FrameFile> files = files_at(frame);
    return std::all_of(files.begin(), files.end(), [this](const FrameFile& file) { return store_.find(file); });
}

bool Playback::is_broken(std::size_t frame) const {
    const std::vector<FrameFile> files = files_at(frame);
    return std::any_of(files.begin(), files.end(), [this](const FrameFile& file) { return store_.is_broken(file); });
}

void Playback::read_ahead(std::int64_t from) {
    std::vector<FrameFile> files;
    constexpr std::size_t most = 1000; // of a long movie; memory holds fewer
    const std::size_t count = std::min(played_.last - played_.first + 1, most);
    for (std::size_t i = 0; i < count; ++i) {
        if (!loops_ && frame_at(from) + i > played_.last)
            break;
        for (FrameFile& file : files_at(frame_at(from + static_cast<std::int64_t>(i))))
            files.push_back(std::move(file));
    }
    store_.want(std::move(files));
}

/// Shows the frame that is due, if the last one has come on the screen.
void Playback::advance() {
    if (!playing() || !on_screen_)
        return;
    const Cell* cell = sheet_.find(cell_);
    const io::Sequence* sequence = sequence_of(cell_);
    if (!sequence || sequence->at >= tracks_[0].files.size() || cell->picture != tracks_[0].files[sequence->at])
        return end();                                            // the cell has gone, or shows something else
    if (position_ >= 0 && sequence->at != frame_at(position_)) { // somebody went to another frame: on from there
        const bool inside = sequence->at >= played_.first && sequence->at <= played_.last;
        position_ = began_at_ = inside ? static_cast<std::int64_t>(sequence->at - played_.first) : -1;
        clock_.restart();
        lately_.clear();
    }
    const auto count = static_cast<std::int64_t>(played_.last - played_.first + 1);
    std::int64_t wanted = position_ + 1;
    if (speed_ > 0) {
        wanted = began_at_ +
            static_cast<std::int64_t>(std::floor(static_cast<double>(clock_.nsecsElapsed()) / 1e9 * speed_));
        if (position_ < 0)
            wanted = std::max<std::int64_t>(wanted, 0);
        if (wanted <= position_) {
            const double next = static_cast<double>(position_ + 1 - began_at_) / speed_ * 1000 -
                static_cast<double>(clock_.nsecsElapsed()) / 1e6;
            due_.start(std::max(0, static_cast<int>(std::ceil(next))));
            return;
        }
    }
    if (!loops_) {
        if (position_ >= count - 1)
            return stop();
        wanted = std::min(wanted, count - 1);
    }
    if (speed_ == 0) { // what cannot be read is stepped over
        std::int64_t tries = 0;
        while (tries < count && is_broken(frame_at(wanted)) && (loops_ || wanted < count - 1))
            ++wanted, ++tries;
        if (is_broken(frame_at(wanted)))
            return stop();
        if (is_there(frame_at(wanted)))
            show(wanted);
        else
            read_ahead(wanted);
        return;
    }
    for (std::int64_t at = wanted; at > position_ && at > wanted - count; --at)
        if (is_there(frame_at(at)))
            return show(at);
    std::size_t broken = 0;
    for (std::size_t i = played_.first; i <= played_.last; ++i)
        broken += is_broken(i);
    if (broken == static_cast<std::size_t>(count) || (!loops_ && wanted == count - 1 && is_broken(frame_at(wanted))))
        return stop();
    read_ahead(wanted);
    due_.start(std::max(1, static_cast<int>(1000 / speed_))); // a later frame may be there, and this one broken
}

void Playback::show(std::int64_t position) {
    const std::size_t from = sequence_of(cell_)->at, to = frame_at(position);
    counts_.left_out += static_cast<std::size_t>(std::max<std::int64_t>(0, position - position_ - 1));
    position_ = position;
    on_screen_ = false;
    std::vector<SheetModel::Turn> turns;
    for (std::size_t i = 0; i < tracks_.size(); ++i) {
        const std::string& next = tracks_[i].files[to];
        if (next.empty())
            continue; // the last one that there was stays
        std::size_t shown = from;
        while (shown > 0 && tracks_[i].files[shown].empty())
            --shown;
        const FrameFile file = i == 0 ? files_at(to).front() : sheet_.frame_file(next);
        turns.push_back({tracks_[i].files[shown], next, store_.find(file)});
    }
    read_ahead(position + 1);
    if (from == to) { // a sequence of one frame: it is on the screen
        on_screen_ = true;
        due_.start(static_cast<int>(speed_ > 0 ? 1000 / speed_ : 20));
        return;
    }
    sheet_.turn_to(turns);
}

void Playback::sheet_shown(const SheetResult& sheet) {
    if (!playing() || on_screen_)
        return;
    const Cell* cell = sheet_.find(cell_);
    const auto shown =
        std::find_if(sheet.cells.begin(), sheet.cells.end(), [this](const CellResult& c) { return c.id == cell_; });
    if (cell && shown != sheet.cells.end() && shown->input != sheet_.picture_of(*cell))
        return; // of a frame before
    on_screen_ = true;
    ++counts_.shown;
    lately_.push_back(clock_.nsecsElapsed());
    if (lately_.size() > lately)
        lately_.erase(lately_.begin());
    if (lately_.size() > 1 && lately_.back() > lately_.front())
        counts_.rate =
            static_cast<double>(lately_.size() - 1) * 1e9 / static_cast<double>(lately_.back() - lately_.front());
    emit changed();
    // After the window has painted what has come.
    if (speed_ > 0)
        advance();
    else
        due_.start(0);
}

} // namespace kasuri::app
