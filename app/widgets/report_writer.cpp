#include "widgets/bench.hpp"

#include "base/file.hpp"
#include "report/report.hpp"

#include <QCoreApplication>
#include <QDateTime>
#include <QFileDialog>
#include <QPointer>
#include <QThreadPool>

#include <set>

namespace kasuri::app {

void Bench::ask_report() {
    QString file = QFileDialog::getSaveFileName(window_, tr("Write a report"), look_.display_name() + ".html",
                                                tr("Pages (*.html)"));
    if (!file.isEmpty() && !file.endsWith(".html", Qt::CaseInsensitive))
        file += ".html";
    if (!file.isEmpty())
        write_report(file);
}

void Bench::write_report(const QString& file) {
    report::Order order;
    order.look = look_.look(); // a filter by itself is a look of one step
    order.is_look = look_.is_look();
    if (order.is_look)
        order.folder = look_.path().parent_path();
    if (Result<subject::Bindings> sources = sheet_.pictures_to_render(); sources) {
        order.sources = std::move(sources.value());
    } else {
        emit said(QString::fromStdString(sources.error().text()), true);
        return;
    }
    std::set<std::string> pictures;
    for (const Cell& cell : sheet_.cells())
        if (!cell.target && pictures.insert(cell.picture).second)
            order.pictures.emplace_back(cell.picture);
    order.made_at = QDateTime::currentDateTime().toString("yyyy-MM-dd HH:mm").toStdString();
    emit said(tr("Writing %1\u2026").arg(file), false);
    QThreadPool::globalInstance()->start([self = QPointer<Bench>(this), order = std::move(order), file] {
        auto done = std::make_shared<Status>();
        if (const Result<std::string> page = report::html(order); !page)
            *done = page.error();
        else
            *done = write_file(file.toStdString(), page.value());
        QMetaObject::invokeMethod(
            qApp,
            [self, done, file] {
                if (self)
                    emit self->said(*done ? tr("Wrote %1").arg(file) : QString::fromStdString(done->error().text()),
                                    !*done);
            },
            Qt::QueuedConnection);
    });
}

} // namespace kasuri::app
