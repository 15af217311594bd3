#include "model/config_use.hpp"

#include "base/memory.hpp"
#include "model/file_names.hpp"

#include <QCoreApplication>
#include <QFileInfo>
#include <QPointer>
#include <QRegularExpression>
#include <QSettings>

#include <memory>
#include <utility>

namespace kasuri::app {

ConfigUse::ConfigUse(QObject* parent) : QObject(parent) { one_by_one_.setMaxThreadCount(1); }

ConfigUse::~ConfigUse() {
    one_by_one_.clear();
    one_by_one_.waitForDone();
}

void ConfigUse::use(const QString& file) {
    file_ = file;
    read();
}

void ConfigUse::restore() {
    const QString kept = QSettings().value("config").toString(), named = text_of(io::config_of_environment());
    if (const QString& file = QFileInfo::exists(kept) ? kept : named; !file.isEmpty())
        use(file);
}

void ConfigUse::read() {
    one_by_one_.clear(); // what has not begun is no longer wanted
    one_by_one_.start([self = QPointer<ConfigUse>(this), file = file_, values = values_, wish = ++wish_] {
        auto loaded = std::make_shared<Result<io::LoadedConfig>>(
            within_memory(bytes_of(file), [&] { return io::load_config(bytes_of(file), values); }));
        QMetaObject::invokeMethod(
            qApp,
            [self, loaded, file, wish] {
                if (!self)
                    return;
                if (!loaded->ok()) {
                    emit self->said(QString::fromStdString(loaded->error().text()), true);
                    return;
                }
                if (wish == self->wish_) {
                    QSettings().setValue("config", file);
                    const auto& [spaces, views, functions, notes] = loaded->value();
                    emit self->said(tr("%1: %2 spaces and %5 functions can be used now, and %3 views to see through%4")
                                        .arg(QFileInfo(file).fileName())
                                        .arg(spaces.size())
                                        .arg(views.size())
                                        .arg(notes.empty() ? QString() : "; " + QString::fromStdString(notes.front()))
                                        .arg(functions.size()),
                                    false);
                }
                emit self->spaces_changed();
            },
            Qt::QueuedConnection);
    });
}

QString ConfigUse::values() const {
    QStringList all;
    for (const auto& [name, value] : values_)
        all << QString::fromStdString(name + "=" + value);
    return all.join(", ");
}

bool ConfigUse::set_values(const QString& text) {
    io::ConfigContext made;
    static const QRegularExpression between(",\\s*(?=\\w+=|\\s*$)"); // a value may have commas of its own
    for (const QString& each : text.split(between, Qt::SkipEmptyParts)) {
        const auto entry = io::read_context(each.trimmed().toStdString());
        if (!entry && !each.trimmed().isEmpty())
            return false;
        if (entry)
            made[entry->first] = entry->second;
    }
    if (made == values_)
        return true;
    const io::ConfigContext before = values_;
    arrange(std::move(made));
    emit rearranged(tr("values of the colour config"), "config values", before);
    return true;
}

void ConfigUse::arrange(io::ConfigContext values) {
    if (values == values_)
        return;
    values_ = std::move(values);
    if (!file_.isEmpty())
        read();
    emit changed();
}

} // namespace kasuri::app
