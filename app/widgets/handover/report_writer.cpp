#include "base/memory.hpp"
#include "model/background.hpp"
#include "model/file_names.hpp"
#include "widgets/handover/handover_actions.hpp"

#include "base/file.hpp"
#include "model/bench.hpp"
#include "report/report.hpp"

#include <QCoreApplication>
#include <QDateTime>
#include <QFileDialog>
#include <QPointer>

#include <set>

namespace kasuri::app {

void HandoverActions::ask_report() {
    QString file = QFileDialog::getSaveFileName(window_, tr("Write a report"), bench_.look().display_name() + ".html",
                                                tr("Pages (*.html)"));
    if (!file.isEmpty() && !file.endsWith(".html", Qt::CaseInsensitive))
        file += ".html";
    if (!file.isEmpty())
        write_report(file);
}

void HandoverActions::write_report(const QString& file) {
    report::Order order;
    order.look = bench_.look().look(); // a filter by itself is a look of one step
    order.folder = bench_.look().file().parent_path();
    if (Result<subject::Bindings> sources = bench_.sheet().pictures_to_render(); sources) {
        order.sources = std::move(sources.value());
    } else {
        return bench_.refuse(sources.error());
    }
    std::set<std::string> pictures;
    for (const Cell& cell : bench_.sheet().cells())
        if (!cell.target && pictures.insert(cell.picture).second)
            order.pictures.emplace_back(cell.picture);
    order.made_at = QDateTime::currentDateTime().toString("yyyy-MM-dd HH:mm").toStdString();
    bench_.say(tr("Writing %1\u2026").arg(file));
    background().start([bench = QPointer<Bench>(&bench_), order = std::move(order), file] {
        auto done = std::make_shared<Status>(within_memory(bytes_of(file), [&]() -> Status {
            const Result<std::string> page = report::html(order);
            return page ? write_file(bytes_of(file), page.value()) : page.error();
        }));
        QMetaObject::invokeMethod(
            qApp,
            [bench, done, file] {
                if (!bench)
                    return;
                if (*done)
                    bench->say(tr("Wrote %1").arg(file));
                else
                    bench->refuse(done->error());
            },
            Qt::QueuedConnection);
    });
}

} // namespace kasuri::app
