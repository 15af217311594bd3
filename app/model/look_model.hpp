#pragma once
#include "base/file_kind.hpp"
#include "model/around.hpp"
#include "model/session.hpp"

#include <QFileSystemWatcher>
#include <QObject>
#include <QString>
#include <QStringList>
#include <QTimer>

#include <functional>
#include <optional>
#include <vector>

namespace kasuri::app {

/// What undo goes back to.
using LookArrangement = Around;

/// The look on the bench: steps, of which one is active, that is, in the session. A filter by itself is a look of one
/// plain step and stays a filter file; with a second step, an opacity, a mask ... it is a look and is saved as one.
class LookModel : public QObject {
    Q_OBJECT
public:
    explicit LookModel(Session& session, QObject* parent = nullptr);

    const std::vector<document::LookStep>& steps() const { return state_.look.steps; }
    const document::LookStep& step() const { return state_.look.steps[state_.active]; }
    int current() const { return static_cast<int>(state_.active); }
    int count() const { return static_cast<int>(steps().size()); }
    bool up_to_here() const { return state_.up_to_here; }
    const document::Look& look() const { return state_.look; }
    /// Whether it is more than a filter.
    bool is_look() const;
    /// What it is saved as.
    FileKind kind() const;
    /// Where it was opened from or saved to, whichever it is; empty: not yet.
    const std::filesystem::path& file() const;
    /// Of the look; what a filter by itself is called.
    QString title() const;
    /// None for a filter by itself.
    QStringList step_names() const;
    /// Whether takes, pins and the like of the active rule are kept in its step, not beside the filter's file.
    bool keeps_bench() const { return is_look(); }
    /// What the evaluation needs to know; null for a filter by itself.
    AroundPtr around() const;
    /// What a step is called: its label, the title in its rule, its file's name, "untitled".
    QString name(int index) const;
    /// What has become of a step's file; looked at again a moment after it changes. Until it is known: none.
    document::FilterState state(int index) const;
    /// In the background; `changed` is emitted if one is another than before.
    void look_at_files();

    // Each is one step of undo; opacities and mask sizes that are dragged go together.
    void select(int index);
    void add(document::LookStep step, int at);
    void remove(int index);
    void duplicate(int index);
    void move(int from, int to);
    void set_on(int index, bool on);
    void set_opacity(int index, double opacity);
    void set_blend(int index, const std::string& blend);
    void set_mask(int index, const std::string& mask);
    void set_mask_inverted(int index, bool inverted);
    void set_mask_grow(int index, double pixels);
    void set_mask_soften(int index, double pixels);
    /// Of a LUT: what its numbers mean.
    void set_space(int index, const std::string& space);
    /// And how what lies between its points is found.
    void set_trilinear(int index, bool trilinear);
    void set_label(int index, const QString& label);
    void set_title(const QString& title);
    /// What it promises as a whole. `typed`: goes together with what was typed before.
    void set_proofs(std::string lines, bool typed);
    void set_up_to_here(bool up_to_here);
    /// A look that is one step becomes its steps; steps from `first` to `last` become one.
    /// In its place stand the steps of the look that it is. What laid the look over what came in goes with it, unless
    /// it can be given on to the only step within; a look that is off leaves steps that are off.
    void take_apart(int index);
    /// What would be given up by that, in words; none if all comes out as before.
    QStringList lost_by_taking_apart(int index) const;
    void gather(int first, int last);
    /// Other steps in the place of all; `name` is what undo calls it.
    void replace(document::Look look, const QString& name);
    /// The step's rule becomes what its file says now.
    Status bring_up_to_date(int index);
    /// The step's rule goes into its file, or into another one, whose step it then is.
    Status write_filter(int index, const std::filesystem::path& file);

    /// Of the look; empty for a filter by itself.
    const std::filesystem::path& path() const { return path_; }
    QString display_name() const;
    /// Of the look, or of the filter by itself.
    bool modified() const;
    Status open(const std::filesystem::path& path);
    /// As what it is.
    Status save(const std::filesystem::path& path);
    /// The files that the last save has taken a copy of into the look.
    const QStringList& taken_in() const { return taken_in_; }
    void bring_back(const std::filesystem::path& path, LookArrangement state);

    /// Takes and the like of the active rule, kept in its step; not a step of undo, for they have their own.
    void keep_bench(const std::string& text);

    const LookArrangement& arrangement() const { return state_; }
    void arrange(LookArrangement state);

    /// The text on the bench for a step that is a look: what is in it.
    static std::string listing(const document::LookStep& step);

signals:
    void changed(); ///< steps, or which is active
    void named();   ///< what the active step is called may be another
    void rearranged(const QString& name, const QString& key, const kasuri::app::LookArrangement& before);
    void file_changed();
    void refused(const QString& why); ///< a change that could not be opened again

private:
    void change(const QString& name, const QString& key, const std::function<void(LookArrangement&)>& how);
    void show_active();
    void from_session();
    void another_document();

    Session& session_;
    LookArrangement state_;
    QStringList taken_in_;
    std::filesystem::path path_;
    std::optional<document::Look> saved_;
    std::vector<document::FilterState> states_;
    std::uint64_t files_asked_ = 0; ///< the latest answer counts
    QFileSystemWatcher watcher_;    ///< of the steps' files, which are not followed but compared
    QTimer pause_;
    bool putting_ = false;
};

} // namespace kasuri::app
