#include "widgets/handover/handover_actions.hpp"

#include "base/memory.hpp"
#include "handover/render.hpp"
#include "model/background.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/on_bench.hpp"
#include "widgets/handover/apply_window.hpp"
#include "widgets/handover/bake_window.hpp"

#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QPointer>
#include <QWidget>

#include <memory>

namespace kasuri::app {

HandoverActions::HandoverActions(Bench& bench, QWidget* window) : QObject(window), bench_(bench), window_(window) {}

void HandoverActions::open_bake() {
    auto* bake = new BakeWindow(bench_.session(), bench_.look(), bench_.sheet(), window_);
    connect(bake, &BakeWindow::said, &bench_, &Bench::said);
    connect(bake, &BakeWindow::said, this, [this](const QString&, bool bad) {
        if (!bad)
            emit wrote();
    });
    bake->show();
}

void HandoverActions::open_apply() {
    (new ApplyWindow(bench_.session(), bench_.look(), bench_.sheet(), window_))->show();
}

void HandoverActions::ask_render() {
    const QString pictures = patterns({FileKind::picture});
    const QString in = QFileDialog::getOpenFileName(window_, tr("Apply to which picture?"), {},
                                                    tr("Pictures (%1);;All files (*)").arg(pictures));
    if (in.isEmpty())
        return;
    const QFileInfo facts(in);
    const QString start =
        facts.path() + "/" + facts.completeBaseName() + "-" + bench_.session().display_name() + "." + facts.suffix();
    const QString out =
        QFileDialog::getSaveFileName(window_, tr("Write the result"), start, tr("Pictures (%1)").arg(pictures));
    if (!out.isEmpty())
        render(in, out);
}

void HandoverActions::render(const QString& in, const QString& out) {
    Result<subject::Subject> subject = subject_on_bench(bench_.session(), bench_.look(), bench_.sheet());
    if (!subject)
        return bench_.refuse(subject.error());
    bench_.say(tr("Rendering %1\u2026").arg(out));
    handover::RenderJob job{bytes_of(in), bytes_of(out)};
    const auto& spaces = bench_.sheet().said_spaces();
    if (const auto said = spaces.find(job.in.string()); said != spaces.end())
        job.in_space = said->second;
    background().start([self = QPointer<HandoverActions>(this), bench = QPointer<Bench>(&bench_),
                        subject = std::move(subject.value()), job, out] {
        auto report = std::make_shared<Result<io::SaveReport>>(
            within_memory(job.in.string(), [&] { return handover::render(subject, job); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, bench, report, out] {
                if (!bench)
                    return;
                if (self && report->ok())
                    emit self->wrote();
                if (!report->ok())
                    bench->refuse(report->error());
                else if (report->value().clipped > 0)
                    bench->say(
                        tr("Wrote %1; %2 values outside 0 .. 1 were clipped").arg(out).arg(report->value().clipped));
                else if (!report->value().notes.empty())
                    bench->say(tr("Wrote %1; %2").arg(out, QString::fromStdString(report->value().notes.front())));
                else
                    bench->say(tr("Wrote %1").arg(out));
            },
            Qt::QueuedConnection);
    });
}

} // namespace kasuri::app
