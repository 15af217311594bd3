#pragma once
#include "model/frame_store.hpp"
#include "model/preview_result.hpp"
#include "model/sheet.hpp"

#include <QElapsedTimer>
#include <QObject>
#include <QString>
#include <QTimer>

#include <cstdint>
#include <map>
#include <set>
#include <string>
#include <vector>

namespace kasuri::app {

/// Plays the numbered sequence that a cell shows a frame of, through the rule. All that shows the same file goes along,
/// and of other sequences on the sheet, pictures for sources too, the frames of the same numbers. At a rate in frames a
/// second the clock leads: what is not there in time is left out, and counted. Without a rate each frame is shown.
class Playback : public QObject {
    Q_OBJECT
public:
    explicit Playback(SheetModel& sheet, QObject* parent = nullptr);

    bool can_play(int cell) const;
    void play(int cell);
    /// One step of undo, back to the frame where it began.
    void stop();
    void toggle(int cell) { playing() ? stop() : play(cell); }
    bool playing() const { return cell_ != 0; }
    bool playing(int cell) const { return cell_ != 0 && cell_ == cell; }

    /// Which frames are played, by their places in the sequence, both included.
    struct Range {
        std::size_t first = 0, last = 0;
        friend bool operator==(const Range&, const Range&) = default;
    };
    Range range(int cell) const;
    /// The first, or the last, of a cell's frames that is played is the one it shows now.
    void begin_here(int cell);
    void end_here(int cell);
    void play_all(int cell);

    bool loops() const { return loops_; }
    void set_loops(bool loops);
    double rate() const { return rate_; } ///< frames a second; 0: each frame, as fast as it goes
    void set_rate(double rate);
    /// Movies are played at the rate that they say themselves, until another one is chosen.
    bool keeps_own_rate() const { return own_rate_; }
    void set_keeps_own_rate(bool keeps);
    /// That of the movie in a cell; 0: it shows none, or the movie does not say.
    double own_rate(int cell) const;

    struct Counts {
        std::size_t shown = 0, left_out = 0;
        double rate = 0; ///< frames a second that were shown, of late
        friend bool operator==(const Counts&, const Counts&) = default;
    };
    /// Since it was started the last time.
    const Counts& counts() const { return counts_; }
    int last_cell() const { return last_cell_; } ///< that the counts are about
    FrameStore& store() { return store_; }
    const FrameStore& store() const { return store_; }

    /// What has come on the screen: the next frame may follow.
    void sheet_shown(const SheetResult& sheet);

signals:
    void changed(); ///< whether it plays, what, and how well
    void said(const QString& message, bool bad);

private:
    /// One sequence that is played: the file of each frame; empty: it has none of that number.
    struct Track {
        std::vector<std::string> files;
    };
    static std::string key_of(const io::Sequence& sequence);
    const io::Sequence* sequence_of(int cell) const;
    void set_range(int cell, std::size_t first, std::size_t last);
    std::size_t frame_at(std::int64_t position) const;
    std::vector<Track> tracks_of(const io::Sequence& led) const;
    std::vector<FrameFile> files_at(std::size_t frame) const;
    bool is_there(std::size_t frame);
    bool is_broken(std::size_t frame) const;
    void read_ahead(std::int64_t from);
    void advance();
    void show(std::int64_t position);
    void end();
    void start_clock();

    SheetModel& sheet_;
    FrameStore store_;
    int cell_ = 0, last_cell_ = 0;
    double rate_ = 24, speed_ = 24; ///< chosen; of what is played
    bool own_rate_ = true;
    bool loops_ = true;
    std::map<std::string, std::pair<int, int>> ranges_; ///< numbers of frames, by sequence
    std::vector<Track> tracks_;                         ///< that of the cell first
    Range played_;
    std::int64_t position_ = 0; ///< of the frame that is shown: counts on through every loop
    std::int64_t began_at_ = 0; ///< and where the clock stood at 0
    std::size_t began_ = 0;     ///< frame that undo goes back to
    bool on_screen_ = true;     ///< that frame has come on the screen
    QElapsedTimer clock_;
    QTimer due_;
    Counts counts_;
    std::vector<qint64> lately_; ///< when frames came on the screen
};

} // namespace kasuri::app
