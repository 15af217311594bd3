#include "model/look_model.hpp"

#include "base/file.hpp"
#include "document/filter_file.hpp"
#include "document/look_text.hpp"
#include "model/background.hpp"
#include "model/file_names.hpp"

#include <QCoreApplication>
#include <QFile>
#include <QPointer>

#include <algorithm>
#include <utility>

namespace kasuri::app {
namespace {

std::size_t at(int index) { return static_cast<std::size_t>(index); }

constexpr int pause_ms = 150;

/// Whether other files are to be compared with, or with other texts.
bool files_differ(const std::vector<document::LookStep>& a, const std::vector<document::LookStep>& b) {
    return !std::equal(a.begin(), a.end(), b.begin(), b.end(),
                       [](const document::LookStep& x, const document::LookStep& y) {
                           return x.filter == y.filter && x.text == y.text && x.lut_text == y.lut_text &&
                               x.within == y.within && x.is_look == y.is_look;
                       });
}

} // namespace

LookModel::LookModel(Session& session, QObject* parent) : QObject(parent), session_(session) {
    pause_.setSingleShot(true);
    pause_.setInterval(pause_ms);
    connect(&pause_, &QTimer::timeout, this, &LookModel::look_at_files);
    connect(&watcher_, &QFileSystemWatcher::fileChanged, &pause_, qOverload<>(&QTimer::start));
    another_document();
    connect(&session_, &Session::text_replaced, this, &LookModel::another_document);
    connect(&session_, &Session::text_changed, this, &LookModel::from_session);
    connect(&session_, &Session::values_changed, this, &LookModel::from_session);
    connect(&session_, &Session::rule_changed, this, &LookModel::named); // its title may be another
    connect(&session_, &Session::file_changed, this, [this] {
        if (!putting_ && !document::is_no_rule(step()))
            state_.look.steps[state_.active].filter =
                session_.path().empty() ? std::string() : std::filesystem::absolute(session_.path()).string();
        emit file_changed();
    });
}

bool LookModel::is_look() const { return !path_.empty() || !document::is_one_filter(state_.look); }

FileKind LookModel::kind() const { return is_look() ? FileKind::look : FileKind::filter; }

const std::filesystem::path& LookModel::file() const { return is_look() ? path_ : session_.path(); }

QString LookModel::title() const { return is_look() ? QString::fromStdString(state_.look.title) : name(0); }

QStringList LookModel::step_names() const {
    QStringList names;
    for (int i = 0; is_look() && i < count(); ++i)
        names << name(i);
    return names;
}

AroundPtr LookModel::around() const {
    if (!is_look())
        return nullptr;
    auto made = std::make_shared<Around>(state_);
    made->folder = path_.parent_path();
    return made;
}

QString LookModel::name(int index) const {
    const document::LookStep& step = steps()[at(index)];
    if (!step.label.empty())
        return QString::fromStdString(step.label);
    if (index == current() && session_.rule() && !session_.rule()->title.empty() && !document::is_no_rule(step))
        return QString::fromStdString(session_.rule()->title);
    if (const std::string title = document::title_in(step.text); !title.empty())
        return QString::fromStdString(title);
    return step.filter.empty() ? tr("untitled") : text_of(std::filesystem::path(step.filter).stem());
}

document::FilterState LookModel::state(int index) const {
    return at(index) < states_.size() ? states_[at(index)] : document::FilterState::none;
}

void LookModel::look_at_files() {
    QStringList wanted, watched = watcher_.files();
    for (const document::LookStep& step : steps())
        if (const QString file = text_of(step.filter);
            is_look() && document::may_open_file(step, {}) && !wanted.contains(file) && QFile::exists(file))
            wanted << file;
    for (const QString& file : watched)
        if (!wanted.contains(file))
            watcher_.removePath(file);
    for (const QString& file : wanted)
        if (!watched.contains(file)) // also one that another file has taken the place of
            watcher_.addPath(file);
    const std::uint64_t asked = ++files_asked_;
    if (!is_look()) {
        states_.assign(steps().size(), document::FilterState::same); // the session minds its file
        return;
    }
    // A file may be on a disk that is slow to answer.
    background().start([self = QPointer<LookModel>(this), asked, steps = steps()] {
        std::vector<document::FilterState> states;
        for (const document::LookStep& step : steps)
            states.push_back(document::state_of(step, {}));
        QMetaObject::invokeMethod(
            qApp,
            [self, asked, states = std::move(states)] {
                if (self && asked == self->files_asked_ && states != std::exchange(self->states_, states))
                    emit self->changed();
            },
            Qt::QueuedConnection);
    });
}

void LookModel::from_session() {
    if (putting_ || document::is_no_rule(step()))
        return;
    if (is_look() && step().text != session_.text())
        pause_.start(); // it may differ from its file now
    document::LookStep& mine = state_.look.steps[state_.active];
    mine.text = session_.text();
    mine.values = session_.chosen_values();
    emit file_changed(); // perhaps modified now
}

void LookModel::another_document() {
    if (putting_)
        return;
    path_.clear();
    saved_.reset();
    states_.clear();
    state_ = {};
    document::LookStep only;
    only.text = session_.text();
    only.values = session_.chosen_values();
    if (!session_.path().empty())
        only.filter = std::filesystem::absolute(session_.path()).string();
    state_.look.steps = {only};
    emit changed();
}

std::string LookModel::listing(const document::LookStep& step) {
    if (!step.lut.empty())
        return "// A LUT: " + std::filesystem::path(step.filter).filename().string() +
            "\n// What lies outside its domain is brought inside. What its numbers mean, and how\n// it is read "
            "between its "
            "points, is chosen below.\n";
    std::string text = "// A look in one step. What is in it (the menu of the step takes it apart):\n";
    int number = 0;
    for (const document::LookStep& each : step.within) {
        const std::string title = document::title_in(each.text);
        text += "// " + std::to_string(++number) + "  " +
            (!each.label.empty()  ? each.label
                 : !title.empty() ? title
                                  : each.filter) +
            (each.on ? "" : "  (off)") + "\n";
    }
    return text;
}

void LookModel::show_active() {
    putting_ = true;
    const document::LookStep& mine = step();
    if (document::is_no_rule(mine)) {
        session_.open_step(listing(mine), {}, {}, listing(mine), true);
    } else {
        const bool opens = document::may_open_file(mine, {});
        const Result<std::string> file = opens ? document::load_filter(mine.filter) : Result<std::string>(mine.text);
        session_.open_step(mine.text, mine.values, opens ? mine.filter : std::string(), file ? file.value() : mine.text,
                           false);
    }
    putting_ = false;
}

void LookModel::arrange(LookArrangement state) {
    const document::LookStep was = step();
    const bool other = state.active != state_.active, files = files_differ(state.look.steps, steps());
    state_ = std::move(state);
    const document::LookStep& now = step();
    if (other || (!document::is_no_rule(now) && now.text != session_.text()) ||
        now.values != session_.chosen_values() || document::is_no_rule(now) != document::is_no_rule(was) ||
        now.within != was.within || now.filter != was.filter || now.uses != was.uses || now.bench != was.bench)
        show_active();
    if (files) // not while an opacity is dragged
        look_at_files();
    emit changed();
    emit file_changed();
}

void LookModel::change(const QString& name, const QString& key, const std::function<void(LookArrangement&)>& how) {
    LookArrangement after = state_;
    how(after);
    if (after == state_)
        return;
    if (const Status fits = document::fits_limits(after.look); !fits) {
        emit refused(tr("The look %1.").arg(QString::fromStdString(translated(fits.error().what))));
        return;
    }
    const LookArrangement before = state_;
    arrange(std::move(after));
    emit rearranged(name, key, before);
}

void LookModel::select(int index) {
    if (index >= 0 && index < count())
        change(tr("step %1 active").arg(index + 1), QStringLiteral("active step"),
               [&](LookArrangement& s) { s.active = at(index); });
}

void LookModel::add(document::LookStep step, int where) {
    change(tr("another step"), {}, [&](LookArrangement& s) {
        const std::size_t place = std::min(at(std::max(0, where)), s.look.steps.size());
        s.look.steps.insert(s.look.steps.begin() + static_cast<std::ptrdiff_t>(place), std::move(step));
        s.active = place;
    });
}

void LookModel::remove(int index) {
    change(tr("a step away"), {}, [&](LookArrangement& s) {
        s.look.steps.erase(s.look.steps.begin() + index);
        if (s.look.steps.empty()) {
            document::LookStep fresh;
            fresh.text = document::new_filter_text();
            s.look.steps.push_back(fresh);
        }
        if (s.active > at(index) || s.active >= s.look.steps.size())
            --s.active;
        s.active = std::min(s.active, s.look.steps.size() - 1);
    });
}

void LookModel::duplicate(int index) { add(steps()[at(index)], index + 1); }

void LookModel::move(int from, int to) {
    if (from == to || to < 0 || to >= count())
        return;
    change(tr("another order of steps"), {}, [&](LookArrangement& s) {
        std::vector<document::LookStep>& steps = s.look.steps;
        const bool mine = s.active == at(from);
        document::LookStep held = steps[s.active];
        document::LookStep moved = std::move(steps[at(from)]);
        steps.erase(steps.begin() + from);
        steps.insert(steps.begin() + to, std::move(moved));
        if (mine)
            s.active = at(to);
        else if (at(from) < s.active && at(to) >= s.active)
            --s.active;
        else if (at(from) > s.active && at(to) <= s.active)
            ++s.active;
    });
}

void LookModel::set_on(int index, bool on) {
    change(on ? tr("step %1 on").arg(index + 1) : tr("step %1 off").arg(index + 1), {},
           [&](LookArrangement& s) { s.look.steps[at(index)].on = on; });
}

void LookModel::set_opacity(int index, double opacity) {
    change(tr("opacity"), QStringLiteral("opacity %1").arg(index),
           [&](LookArrangement& s) { s.look.steps[at(index)].opacity = std::clamp(opacity, 0.0, 1.0); });
}

void LookModel::set_blend(int index, const std::string& blend) {
    change(tr("blend mode"), {}, [&](LookArrangement& s) { s.look.steps[at(index)].blend = blend; });
}

void LookModel::set_mask(int index, const std::string& mask) {
    change(tr("mask"), QStringLiteral("mask %1").arg(index),
           [&](LookArrangement& s) { s.look.steps[at(index)].mask = mask; });
}

void LookModel::set_mask_inverted(int index, bool inverted) {
    change(tr("mask inverted"), {}, [&](LookArrangement& s) { s.look.steps[at(index)].mask_inverted = inverted; });
}

void LookModel::set_mask_grow(int index, double pixels) {
    change(tr("size of the mask"), QStringLiteral("grow %1").arg(index), [&](LookArrangement& s) {
        s.look.steps[at(index)].mask_grow = std::clamp(pixels, -document::max_mask_pixels, document::max_mask_pixels);
    });
}

void LookModel::set_mask_soften(int index, double pixels) {
    change(tr("softness of the mask"), QStringLiteral("soften %1").arg(index), [&](LookArrangement& s) {
        s.look.steps[at(index)].mask_soften = std::clamp(pixels, 0.0, document::max_mask_pixels);
    });
}

void LookModel::set_space(int index, const std::string& space) {
    change(tr("space of the LUT"), {}, [&](LookArrangement& s) { s.look.steps[at(index)].space = space; });
}

void LookModel::set_trilinear(int index, bool trilinear) {
    change(tr("how the LUT is read"), {}, [&](LookArrangement& s) { s.look.steps[at(index)].trilinear = trilinear; });
}

void LookModel::set_label(int index, const QString& label) {
    change(tr("label"), {}, [&](LookArrangement& s) { s.look.steps[at(index)].label = label.toStdString(); });
}

void LookModel::set_title(const QString& title) {
    change(tr("title of the look"), {}, [&](LookArrangement& s) { s.look.title = title.toStdString(); });
}

void LookModel::set_proofs(std::string lines, bool typed) {
    while (!lines.empty() && (lines.back() == '\n' || lines.back() == ' '))
        lines.pop_back();
    if (!lines.empty())
        lines += '\n';
    if (lines != state_.look.proofs)
        change(tr("proofs of the look"), typed ? QStringLiteral("proofs of the look") : QString(),
               [&](LookArrangement& s) { s.look.proofs = std::move(lines); });
}

void LookModel::set_up_to_here(bool up_to_here) {
    change(up_to_here ? tr("shown up to the active step") : tr("shown as a whole"), {},
           [&](LookArrangement& s) { s.up_to_here = up_to_here; });
}

namespace {

/// Whether the only step within can be laid over as the look was.
bool can_give_on(const document::LookStep& group) {
    if (group.within.size() != 1)
        return false;
    const document::LookStep& only = group.within.front();
    return only.on && only.opacity == 1 && only.blend == "normal" && only.mask.empty();
}

} // namespace

QStringList LookModel::lost_by_taking_apart(int index) const {
    const document::LookStep& group = steps()[at(index)];
    QStringList lost;
    if (!can_give_on(group) && group.on) { // of one that is off the steps are off, too
        if (group.opacity != 1)
            lost << tr("its opacity of %1 %").arg(100 * group.opacity);
        if (group.blend != "normal")
            lost << tr("its blend mode %1").arg(QString::fromStdString(group.blend));
        if (!group.mask.empty())
            lost << tr("its mask");
    }
    if (!group.proofs.empty())
        lost << tr("its proofs");
    return lost;
}

void LookModel::take_apart(int index) {
    change(tr("a look taken apart"), {}, [&](LookArrangement& s) {
        const document::LookStep group = s.look.steps[at(index)];
        std::vector<document::LookStep> within = group.within;
        if (within.empty())
            return;
        if (!group.on)
            for (document::LookStep& step : within)
                step.on = false;
        if (can_give_on(group)) {
            document::LookStep& only = within.front();
            only.opacity = group.opacity;
            only.blend = group.blend;
            only.mask = group.mask;
            only.mask_inverted = group.mask_inverted;
            only.mask_grow = group.mask_grow;
            only.mask_soften = group.mask_soften;
        }
        s.look.steps.erase(s.look.steps.begin() + index);
        s.look.steps.insert(s.look.steps.begin() + index, within.begin(), within.end());
        s.active = at(index);
    });
}

void LookModel::gather(int first, int last) {
    if (first < 0 || last >= count() || first > last)
        return;
    change(tr("steps as one"), {}, [&](LookArrangement& s) {
        document::LookStep one;
        one.is_look = true;
        one.label = tr("steps %1 to %2").arg(first + 1).arg(last + 1).toStdString();
        one.within.assign(s.look.steps.begin() + first, s.look.steps.begin() + last + 1);
        s.look.steps.erase(s.look.steps.begin() + first, s.look.steps.begin() + last + 1);
        s.look.steps.insert(s.look.steps.begin() + first, std::move(one));
        s.active = at(first);
    });
}

void LookModel::replace(document::Look look, const QString& name) {
    if (look.steps.empty())
        return;
    change(name, {}, [&](LookArrangement& s) {
        s.look = std::move(look);
        s.active = std::min(s.active, s.look.steps.size() - 1);
    });
}

Status LookModel::bring_up_to_date(int index) {
    Result<document::LookStep> fresh = document::brought_up_to_date(steps()[at(index)], {});
    if (!fresh)
        return fresh.error();
    change(tr("what the file says now"), {},
           [&](LookArrangement& s) { s.look.steps[at(index)] = std::move(fresh.value()); });
    return {};
}

Status LookModel::write_filter(int index, const std::filesystem::path& file) {
    if (const Status saved = document::save_filter(file, steps()[at(index)].text); !saved)
        return saved;
    change(tr("a step's file"), {}, [&](LookArrangement& s) {
        s.look.steps[at(index)].filter = std::filesystem::absolute(file).string();
        s.look.steps[at(index)].origin = {};
    });
    look_at_files();
    return {};
}

QString LookModel::display_name() const {
    if (!is_look())
        return session_.display_name();
    return path_.empty() ? tr("untitled look") : text_of(path_.stem());
}

bool LookModel::modified() const { return is_look() ? !saved_ || state_.look != *saved_ : session_.modified(); }

Status LookModel::open(const std::filesystem::path& path) {
    Result<document::Look> look = document::load_look(path);
    if (!look)
        return look.error();
    if (look.value().steps.empty()) {
        document::LookStep fresh;
        fresh.text = document::new_filter_text();
        look.value().steps.push_back(fresh);
    }
    document::make_absolute(look.value(), path.parent_path());
    bring_back(path, {look.value(), 0, false});
    saved_ = std::move(look.value());
    emit file_changed();
    return {};
}

void LookModel::bring_back(const std::filesystem::path& path, LookArrangement state) {
    path_ = path;
    saved_.reset();
    state_ = std::move(state);
    state_.active = std::min(state_.active, state_.look.steps.size() - 1);
    session_.undo_stack().clear();
    show_active();
    look_at_files();
    emit changed();
    emit file_changed();
}

Status LookModel::save(const std::filesystem::path& path) {
    taken_in_.clear();
    if (!is_look())
        return session_.save(path);
    document::Look kept = state_.look;
    std::vector<std::string> taken;
    for (document::LookStep& step : kept.steps)
        for (const std::string& name : document::keep_used_files(step))
            taken.push_back(name);
    document::Look written = kept;
    document::make_relative(written, path.parent_path());
    if (const Status saved = document::save_look(path, written); !saved)
        return saved;
    path_ = path;
    state_.look = kept;
    saved_ = std::move(kept);
    for (const std::string& name : taken)
        taken_in_ << QString::fromStdString(name);
    taken_in_.removeDuplicates();
    emit changed();
    emit file_changed();
    return {};
}

void LookModel::keep_bench(const std::string& text) {
    if (!document::is_no_rule(step()))
        state_.look.steps[state_.active].bench = text;
    emit file_changed();
}

} // namespace kasuri::app
