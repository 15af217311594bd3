#include "model/bench.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "carry/carry.hpp"
#include "io/print.hpp"
#include "lang/format.hpp"
#include "model/background.hpp"
#include "model/file_names.hpp"
#include "model/undo_commands.hpp"
#include "simplify/simplify.hpp"

#include <QCoreApplication>
#include <QFileInfo>
#include <QPointer>
#include <QSettings>

#include <memory>

namespace kasuri::app {

Bench::Bench(QObject* parent)
    : QObject(parent), session_(this), look_(session_), sheet_(this), playback_(sheet_, this),
      over_time_(sheet_, playback_.store(), this), takes_(session_), watch_(session_), tuning_(session_),
      keeper_(session_, look_, sheet_, takes_, tuning_, config_) {
    for (const char* name : {"response", "hue_map", "parade"})
        readings_.add(*readings::find(name));
    record<Arrangement>(sheet_);
    record<std::vector<Take>>(takes_);
    record<document::KeptTuning>(tuning_);
    record<io::ConfigContext>(config_);
    record<LookArrangement>(look_);
    relay();
}

template <class State, class Model>
void Bench::record(Model& model) {
    connect(&model, &Model::rearranged, this,
            [this, &model](const QString& name, const QString& key, const State& before) {
                session_.undo_stack().push(new ArrangementCommand<Model, State>(model, name, key, before));
            });
}

void Bench::relay() {
    const auto failed = [this](const Error& error) { refuse(error); };
    connect(&sheet_, &SheetModel::failed, this, failed);
    connect(&keeper_, &BenchKeeper::failed, this, failed);
    connect(&sheet_, &SheetModel::noted, this, &Bench::say);
    connect(&playback_, &Playback::said, this, &Bench::said);
    connect(&config_, &ConfigUse::said, this, &Bench::said);
    connect(&config_, &ConfigUse::spaces_changed, this, &Bench::spaces_changed);
    connect(&look_, &LookModel::refused, this, [this](const QString& why) { refuse(why); });
    connect(&look_, &LookModel::changed, this, [this] { watch_.set_following(look_.kind() == FileKind::filter); });
    connect(&watch_, &FileWatch::noticed, &look_, &LookModel::look_at_files);
    connect(&watch_, &FileWatch::said, this, &Bench::said);
}

void Bench::format() {
    const std::optional<std::string> canonical = lang::formatted(session_.text());
    if (!canonical)
        refuse(tr("The rule cannot be read yet (F8 shows where); it was left as it is."));
    else
        session_.apply_edit({0, session_.text(), *canonical}, tr("canonical form"));
}

void Bench::simplify() {
    if (session_.fixed())
        return refuse(tr("A LUT has no rule to be shorter."));
    const std::string text = session_.text();
    say(tr("Looking for what is proved the same and shorter\u2026"));
    simplify::Options with;
    with.open = document::used_by(look_.step(), {});
    background().start([self = QPointer<Bench>(this), text, with] {
        const auto made = std::make_shared<const Result<simplify::Shorter>>(
            within_memory("", [&] { return simplify::simplified(text, with); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, made, text] {
                if (!self || self->session_.text() != text)
                    return; // it has been worked on: what was found is of another rule
                if (!*made)
                    return self->refuse(made->error());
                const simplify::Shorter& shorter = made->value();
                if (shorter.done.empty())
                    return self->say(tr("Nothing was found that is proved the same and shorter."));
                self->session_.apply_edit({0, text, shorter.text}, tr("proved the same, and shorter"));
                QStringList all;
                for (const std::string& what : shorter.done)
                    all << QString::fromStdString(what);
                self->say(tr("%1 words became %2, proved the same: %3")
                              .arg(shorter.before)
                              .arg(shorter.after)
                              .arg(all.join("; ")));
            },
            Qt::QueuedConnection);
    });
}

document::Look Bench::look_as_worked_on() const {
    document::Look look = look_.look();
    if (!session_.fixed()) {
        document::LookStep& step = look.steps[static_cast<std::size_t>(look_.current())];
        step.text = session_.text();
        step.values = session_.chosen_values();
    }
    return look;
}

void Bench::carry_look(const std::string& to) {
    const document::Look look = look_as_worked_on();
    const std::filesystem::path folder = look_.file().parent_path();
    say(tr("Carrying all steps to %1\u2026").arg(QString::fromStdString(to)));
    background().start([self = QPointer<Bench>(this), look, folder, to] {
        const auto made = std::make_shared<const Result<carry::CarriedLook>>(
            within_memory("", [&] { return carry::carried(look, folder, to); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, made, look, to] {
                if (!self || self->look_as_worked_on() != look)
                    return; // it has been worked on
                if (!*made)
                    return self->refuse(made->error());
                const carry::CarriedLook& carried = made->value();
                self->look_.replace(carried.look, tr("carried to %1").arg(QString::fromStdString(to)));
                self->say(tr("All steps carried to %1: a channel is off by %2 at most, on %3 colours.")
                              .arg(QString::fromStdString(to), QString::fromStdString(number_text(carried.largest, 2)))
                              .arg(carried.colours));
            },
            Qt::QueuedConnection);
    });
}

void Bench::carry(const std::string& to) {
    const document::LookStep& step = look_.step();
    if (look_.kind() == FileKind::look)
        return carry_look(to);
    if (session_.fixed())
        return refuse(tr("A LUT has no rule to be carried; what its numbers mean is chosen beside it."));
    const std::string text = session_.text();
    const ValueMap values = session_.chosen_values();
    carry::Options with;
    with.open = document::used_by(step, {});
    background().start([self = QPointer<Bench>(this), text, values, to, with] {
        const auto made = std::make_shared<const Result<carry::Carried>>(
            within_memory("", [&] { return carry::carried(text, to, with); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, made, text, values, to] {
                if (!self || self->session_.text() != text)
                    return; // it has been worked on
                if (!*made)
                    return self->refuse(made->error());
                const carry::Carried& carried = made->value();
                self->session_.recall(carried.text, values, tr("carried to %1").arg(QString::fromStdString(to)));
                self->say(tr("Carried to %1: a channel is off by %2 at most, on %3 colours.")
                              .arg(QString::fromStdString(to), QString::fromStdString(number_text(carried.largest, 2)))
                              .arg(carried.colours));
            },
            Qt::QueuedConnection);
    });
}

void Bench::add_chart() { sheet_.add_target(*targets::find("dye_chart"), "colour"); }

void Bench::use_print(const QString& file) {
    background().start([self = QPointer<Bench>(this), file] {
        auto added = std::make_shared<Result<std::vector<std::string>>>(
            within_memory(bytes_of(file), [&] { return io::add_prints(bytes_of(file)); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, added, file] {
                if (!self)
                    return;
                if (!added->ok())
                    return self->refuse(added->error());
                QStringList kept = QSettings().value("prints").toStringList();
                kept.removeAll(file);
                kept.prepend(file);
                constexpr qsizetype most = 10;
                QSettings().setValue("prints", QStringList(kept.mid(0, most)));
                self->say(tr("%1: the display can show it printed now (%2).")
                              .arg(QFileInfo(file).fileName(), QString::fromStdString(added->value().front())));
                emit self->spaces_changed();
            },
            Qt::QueuedConnection);
    });
}

void Bench::restore_prints() {
    const QStringList kept = QSettings().value("prints").toStringList();
    for (auto file = kept.rbegin(); file != kept.rend(); ++file)
        if (QFileInfo::exists(*file))
            use_print(*file);
}

} // namespace kasuri::app
