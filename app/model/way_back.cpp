#include "model/way_back.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "model/background.hpp"
#include "pairing/lut_back.hpp"

#include <QCoreApplication>
#include <QPointer>
#include <QStringList>

namespace kasuri::app {
namespace {

QString colour(const std::array<double, 3>& c) {
    return QString::fromStdString("(" + number_text(c[0], 3) + ", " + number_text(c[1], 3) + ", " +
                                  number_text(c[2], 3) + ")");
}
/// Points an axis of a table: near enough for a look, and made in a second.
constexpr int table_points = 33;

QString number(double x, int digits) { return QString::fromStdString(number_text(x, digits)); }

/// What came of one step, a line each.
QStringList told(const inverse::StepBack& step) {
    QStringList lines;
    if (!step.fault.empty())
        return {QString::fromStdString(step.fault)};
    for (const std::string& line : step.table)
        lines << QString::fromStdString(line);
    const inverse::Back& back = step.back;
    const auto add = [&](const QString& kind, const std::vector<inverse::Obstacle>& all) {
        for (const inverse::Obstacle& o : all)
            lines << kind.arg(QString::fromStdString(inverse::told(o, step.text)));
    };
    add(WayBack::tr("Lost: %1"), back.losses);
    if (!back.found)
        add(WayBack::tr("In the way: %1"), back.obstacles);
    add(WayBack::tr("Looked for: %1"), back.ranges);
    if (back.meeting)
        lines << WayBack::tr("Two colours become one: %1 and %2 both give %3")
                     .arg(colour(back.meeting->a), colour(back.meeting->b), colour(back.meeting->made));
    if (!back.found) // what follows is of a rule
        return lines;
    if (back.at_values)
        lines << WayBack::tr("Only these values have a way back, so it has no parameters.");
    for (const inverse::Narrowed& n : back.narrowed)
        lines << WayBack::tr("%1: only %2 to %3 has a way back.")
                     .arg(QString::fromStdString(n.name), number(n.low, 4), number(n.high, 4));
    for (const std::string& option : back.without)
        lines << WayBack::tr("%1 has no way back here.").arg(QString::fromStdString(option));
    if (back.noise > 2)
        lines << WayBack::tr("Noise comes back up to %1 times as loud.").arg(number(back.noise, 2));
    return lines;
}

} // namespace

WayBack::WayBack(QObject* parent) : QObject(parent) {}

WayBack::~WayBack() { cancel_.cancel(); }

const inverse::LookBack* WayBack::made() const { return made_ && made_->ok() ? &made_->value() : nullptr; }

void WayBack::cancel() {
    if (!running_)
        return;
    cancel_.cancel();
    ++ticket_;
    running_ = false;
    words_ = tr("Called off.");
    emit finished();
}

void WayBack::find(document::Look look, std::filesystem::path folder, bool tables, bool whole) {
    cancel_.cancel();
    cancel_ = CancelToken();
    const int ticket = ++ticket_;
    made_.reset();
    running_ = true;
    words_ = tr("Solving\u2026");
    background().start([self = QPointer<WayBack>(this), ticket, look = std::move(look), folder = std::move(folder),
                        tables, whole, cancel = cancel_] {
        const auto made = std::make_shared<const Result<inverse::LookBack>>(within_memory("", [&] {
            inverse::LookOptions options = pairing::with_tables(folder, table_points, tables);
            options.whole = whole;
            return inverse::invert(look, folder, options, cancel);
        }));
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [self, ticket, made] {
                if (self)
                    self->done(ticket, made);
            },
            Qt::QueuedConnection);
    });
}

void WayBack::done(int ticket, const Made& made) {
    if (ticket != ticket_)
        return;
    running_ = false;
    made_ = made;
    QStringList lines;
    if (!*made) {
        lines << QString::fromStdString(made->error().text());
    } else {
        const inverse::LookBack& back = made->value();
        QStringList stuck; // what stands in the way is told before what works
        for (const inverse::StepBack& step : back.steps)
            if (!step.found())
                stuck << QString::fromStdString(step.label);
        lines << (!back.found && back.steps.size() > 1 ? tr("There is no way back from: %1.").arg(stuck.join(", "))
                      : !back.found                    ? tr("There is no way back from here.")
                      : back.steps.empty()             ? tr("Nothing to take off: no step is on.")
                      : back.largest == 0
                      ? tr("Colours from 0 to 1 come back exactly, on 4096 of them.")
                      : tr("Colours from 0 to 1 come back within %1, on 4096 of them.").arg(number(back.largest, 2)));
        for (const bool works : {false, true})
            for (const inverse::StepBack& step : back.steps) {
                if (step.found() != works)
                    continue;
                const QStringList own = told(step);
                if (!own.isEmpty() && back.steps.size() > 1)
                    lines << QString::fromStdString(step.label) + ":";
                lines << own;
            }
    }
    words_ = lines.join('\n');
    emit finished();
}

QString WayBack::text() const {
    const inverse::LookBack* back = made();
    if (!back)
        return {};
    QStringList all;
    for (const inverse::StepBack& step : back->steps)
        if (step.back.found)
            all << (back->steps.size() > 1 ? "// " + QString::fromStdString(step.label) + "\n" : QString()) +
                    QString::fromStdString(step.back.text);
    return all.join('\n');
}

} // namespace kasuri::app
