#include "widgets/files/recovery.hpp"

#include "model/bench.hpp"
#include "model/file_names.hpp"

#include <QDateTime>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QWidget>

namespace kasuri::app {

Recovery::Recovery(Bench& bench, QWidget* window) : QObject(window), bench_(bench), window_(window) {}

void Recovery::keep_in(const std::filesystem::path& folder) {
    for (const LeftBehind& left : RecoveryKeeper::left_behind(folder)) {
        const std::filesystem::path path = left.recovery.path;
        const QString name = path.empty() ? tr("untitled") : text_of(path.stem());
        const QString when = QFileInfo(text_of(left.file)).lastModified().toString("yyyy-MM-dd HH:mm:ss");
        QMessageBox box(
            QMessageBox::NoIcon, tr("Unsaved work"),
            tr("Kasuri ended while \u201c%1\u201d had changes that were not saved. They were kept, as of %2.")
                .arg(name, when),
            QMessageBox::NoButton, window_);
        QAbstractButton* back = box.addButton(tr("Bring them back"), QMessageBox::AcceptRole);
        QAbstractButton* away = box.addButton(tr("Throw them away"), QMessageBox::DestructiveRole);
        box.addButton(tr("Ask again next time"), QMessageBox::RejectRole);
        box.exec();
        if (box.clickedButton() == away)
            RecoveryKeeper::forget(left);
        if (box.clickedButton() != back)
            continue;
        bring_back(left);
        break; // one bench, one document: others are offered at the next start
    }
    keeper_ = new RecoveryKeeper(bench_.session(), bench_.look(), bench_.keeper(), folder, this);
    connect(keeper_, &RecoveryKeeper::failed, &bench_, [this](const Error& error) { bench_.refuse(error); });
    keeper_->write_now();
}

void Recovery::bring_back(const LeftBehind& left) {
    const std::filesystem::path path = left.recovery.path;
    if (!left.recovery.look.empty()) {
        Result<document::Look> look = document::look_of(left.recovery.look, left.file.string());
        if (!look)
            return bench_.refuse(look.error());
        if (look.value().steps.empty())
            return bench_.refuse(tr("There is nothing in %1").arg(text_of(left.file)));
        bench_.look().bring_back(path,
                                 {std::move(look.value()), static_cast<std::size_t>(left.recovery.active), false});
    } else {
        bench_.session().bring_back(path, left.recovery.text, left.recovery.values);
        bench_.keeper().take(left.recovery.bench, path.empty() ? left.file : path);
    }
    RecoveryKeeper::forget(left);
    bench_.say(tr("The work is back, and not saved yet."));
}

} // namespace kasuri::app
