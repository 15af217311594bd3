#pragma once
#include "base/result.hpp"
#include "document/bench_file.hpp"
#include "image/image.hpp"
#include "io/sequence.hpp"
#include "model/display.hpp"
#include "model/frame_store.hpp"
#include "model/picture_ptr.hpp"
#include "readings/reading.hpp"
#include "subject/subject.hpp"
#include "targets/target.hpp"

#include <QObject>
#include <QPoint>
#include <QString>
#include <QStringList>

#include <filesystem>
#include <map>
#include <string>
#include <vector>

namespace kasuri::app {

/// What one cell shows: a generated target, or a layer of a picture, through a lens.
struct Cell {
    int id = 0;
    const targets::Target* target = nullptr;
    std::string picture; ///< path, when there is no target
    std::string layer;
    std::string lens = "colour";
    std::vector<double> settings{};                   ///< of the target
    readings::Line line{};                            ///< along which it is cut
    std::shared_ptr<const document::KeptTake> take{}; ///< what it goes through; null: the rule on the bench

    std::string source() const { return target ? "target:" + std::string(target->name) : picture + "#" + layer; }
    friend bool operator==(const Cell&, const Cell&) = default;
};

/// Whether two cells show the same picture through the same rule: then it counts once.
inline bool shows_same(const Cell& a, const Cell& b) {
    const bool same_rule = a.take && b.take ? *a.take == *b.take : a.take == b.take;
    return a.source() == b.source() && a.settings == b.settings && same_rule;
}

/// A strip over the cells: a generated one, the cut of a cell, or a pin over the frames of its sequence.
struct Strip {
    int id = 0;
    const targets::Target* target = nullptr;
    std::vector<double> settings{};
    int cell = 0; ///< whose cut it shows, when there is no target
    int pin = 0;  ///< which it shows over time, when there is neither

    bool is_cut() const { return !target && cell != 0; }
    friend bool operator==(const Strip&, const Strip&) = default;
};

/// A kept place: a pixel of what a cell shows, wherever else that is shown.
struct Pin {
    int number = 0;
    std::string source; ///< of Cell::source
    QPoint pixel;
    friend bool operator==(const Pin&, const Pin&) = default;
};

/// A picture for one of the rule's sources, instead of each picture's own layer of that name.
struct Given {
    std::string picture; ///< path, or target:NAME
    std::string layer;
    friend bool operator==(const Given&, const Given&) = default;
};

/// How the sheet is arranged: what undo goes back to.
struct Arrangement {
    std::vector<Cell> cells;
    std::vector<Strip> strips;
    std::vector<Pin> pins;
    std::map<std::string, Given> given; ///< by the source's name
    friend bool operator==(const Arrangement&, const Arrangement&) = default;
};

/// The cells of the sheet and the pictures they show. Pictures are read in the background.
class SheetModel : public QObject {
    Q_OBJECT
public:
    explicit SheetModel(QObject* parent = nullptr);

    const std::vector<Cell>& cells() const { return arrangement_.cells; }
    const Cell* find(int id) const;
    QString title(const Cell& cell) const;
    /// What a cell shows through each of the takes, beside it; without takes such cells go.
    void show_takes(int cell, const std::vector<document::KeptTake>& takes);
    bool shows_takes() const;
    /// All cells that show the rule on the bench show a take instead, for as long as somebody looks at it: no step of
    /// undo, and nothing is kept. Null: no longer.
    void try_take(std::shared_ptr<const document::KeptTake> take);
    const std::shared_ptr<const document::KeptTake>& tried_take() const { return tried_; }
    /// What a cell goes through: its own take, the one that is tried, or none.
    const std::shared_ptr<const document::KeptTake>& take_of(const Cell& cell) const {
        return cell.take ? cell.take : tried_;
    }
    QStringList layers_of(const Cell& cell) const;
    PicturePtr picture_of(const Cell& cell) const;                       ///< null while it is being read
    std::shared_ptr<const image::Image> file_of(const Cell& cell) const; ///< all layers of it

    int add_target(const targets::Target& target, const std::string& lens, std::vector<double> settings = {});
    int add_picture(const std::filesystem::path& path, const std::string& lens, const std::string& layer = {});
    void remove(int id);
    /// The same once more, behind it; its id.
    int duplicate(int id);
    /// Takes the place of the cell `before`; 0: goes to the end.
    void move(int id, int before);
    void set_target(int id, const targets::Target& target);
    void set_settings(int id, std::vector<double> settings);
    void set_line(int id, const readings::Line& line);

    const std::vector<Strip>& strips() const { return arrangement_.strips; }
    const Strip* find_strip(int id) const;
    int add_strip(const targets::Target& target, std::vector<double> settings = {});
    /// The values along the cell's line, as a strip.
    int add_cut(int cell);
    /// The pin's colour in every frame of its sequence, as a strip; 0: there is no such pin.
    int add_over_time(int pin);
    void remove_strip(int id);
    void move_strip(int id, int before);
    void set_strip(int id, const targets::Target& target);
    void set_strip_settings(int id, std::vector<double> settings);

    const std::vector<Pin>& pins() const { return arrangement_.pins; }
    /// The number it got: the lowest that is free.
    int add_pin(const std::string& source, QPoint pixel);
    void move_pin(int number, QPoint pixel);
    void remove_pin(int number);
    void remove_pins();
    void set_pins(std::vector<Pin> pins); ///< of another document
    /// The pin at which the rule is looked into: the chosen one, else the first; null if there is none.
    const Pin* active_pin() const;
    void set_active_pin(int number);

    /// Pictures for the rule's sources.
    const std::map<std::string, Given>& source_pictures() const { return arrangement_.given; }
    void give(const std::string& source, const std::filesystem::path& picture, const std::string& layer = {});
    void clear_source_picture(const std::string& source);
    subject::Bindings given_pictures() const; ///< those that have been read
    /// The same for rendering, with names that another run of the program knows too. The error if one is still being
    /// read.
    Result<subject::Bindings> pictures_to_render() const;

    const Arrangement& arrangement() const { return arrangement_; }
    /// Goes back to one, by undo.
    void arrange(Arrangement arrangement);

    /// Expressions of the rule that are offered as lenses: the names of its values.
    const QStringList& peeks() const { return peeks_; }
    void set_peeks(const QStringList& names) { peeks_ = names; }
    /// Names of the steps of the look, for the menus of cells; none for a filter by itself.
    const QStringList& steps() const { return steps_; }
    void set_steps(const QStringList& names) { steps_ = names; }
    void set_lens(int id, const std::string& lens);
    void set_layer(int id, const std::string& layer);
    /// Shows another picture in the cell.
    void set_picture(int id, const std::filesystem::path& path);
    /// The numbered pictures that the cell's picture is one of; fewer than two frames: it stands alone.
    const io::Sequence& sequence_of(const Cell& cell) const;
    /// Shows another frame of the sequence, by its place in it; layer, lens and line stay.
    void set_frame(int id, std::size_t frame);
    /// A picture file that another takes the place of, wherever it is shown, given to a source or pinned.
    struct Turn {
        std::string from, to;
        ImagePtr image{}; ///< of `to`; null: it is read
    };
    /// Shows other frames, as often as wished: no step of undo, until `take_as_step` makes one of it.
    void turn_to(const std::vector<Turn>& turns);
    static Arrangement turned(Arrangement arrangement, const std::vector<Turn>& turns);
    void take_as_step(const QString& name, const Arrangement& before);
    /// A file as it is read here.
    FrameFile frame_file(const std::string& path) const;
    /// What the numbers of a picture file mean; empty: what the file says. The file is read again. Remembered by
    /// whoever asks `said_spaces`, and told again with `remember_spaces`.
    void set_space(int id, const std::string& space);
    std::string said_space(const Cell& cell) const;
    const std::map<std::string, std::string>& said_spaces() const { return said_spaces_; }
    void remember_spaces(std::map<std::string, std::string> spaces) { said_spaces_ = std::move(spaces); }
    /// The screen that everything is shown on.
    const Screen& screen() const { return screen_; }
    void set_screen(const Screen& screen);
    bool loading() const { return pending_ > 0; }

signals:
    void changed(); ///< cells, strips or pictures
    /// The user has rearranged it. `key`: steps of one kind upon one thing go together.
    void rearranged(const QString& name, const QString& key, const kasuri::app::Arrangement& before);
    void pins_changed();
    void take_tried();                       ///< another, or none any more
    void spaces_said();                      ///< what `said_spaces` is has changed
    void failed(const kasuri::Error& error); ///< a picture could not be read; its cells are gone
    void noted(const QString& note);         ///< what should be known of a picture that was read

private:
    /// Tells of a rearrangement when it goes out of scope, if there was one.
    class Step {
    public:
        Step(SheetModel& model, QString name, QString key = {})
            : model_(model), before_(model.arrangement_), name_(std::move(name)), key_(std::move(key)) {}
        ~Step() {
            if (model_.arrangement_ != before_)
                emit model_.rearranged(name_, key_, before_);
        }

    private:
        SheetModel& model_;
        Arrangement before_;
        QString name_, key_;
    };
    void read(const std::string& path);
    bool uses(const std::string& path) const;
    PicturePtr picture_in(const std::string& path, const std::string& layer) const;
    void forget_unused_images();
    void forget_strips_without_pin();
    Cell& at(int id);
    Strip& strip_at(int id);

    int next_id_ = 1;
    int pending_ = 0;
    Screen screen_;
    std::map<std::string, std::string> said_spaces_; ///< by path
    Arrangement arrangement_;
    QStringList peeks_;
    QStringList steps_;
    int active_pin_ = 0;
    std::shared_ptr<const document::KeptTake> tried_;
    std::map<std::string, std::shared_ptr<const image::Image>> images_;
    mutable std::map<std::string, io::Sequence> sequences_; ///< by path
    mutable std::map<std::string, PicturePtr> pictures_;
};

} // namespace kasuri::app
