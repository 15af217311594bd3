#include "model/against.hpp"

#include "base/file_kind.hpp"
#include "document/filter_file.hpp"

namespace kasuri::app {

void Against::set(const QString& name, OtherRule rule) {
    name_ = name;
    rule_ = std::move(rule);
    emit changed();
}

Status Against::open(const std::filesystem::path& path) {
    if (is_kind(path, FileKind::look))
        return open_look(path);
    Result<std::string> text = document::load_filter(path);
    if (!text)
        return text.error();
    set(QString::fromStdString(path.stem().string()), {std::move(text.value()), path});
    return {};
}

Status Against::open_look(const std::filesystem::path& path) {
    Result<document::Look> look = document::load_look(path);
    if (!look)
        return look.error();
    if (look.value().steps.empty())
        return Error{"has no steps", path.string(), ""};
    document::make_absolute(look.value(), path.parent_path());
    OtherRule other;
    other.text = look.value().steps.front().text;
    other.values = look.value().steps.front().values;
    other.around = std::make_shared<const Around>(Around{std::move(look.value()), 0, false});
    set(QString::fromStdString(path.stem().string()), std::move(other));
    return {};
}

void Against::set_what_comes_in() {
    OtherRule other;
    other.is_before = true;
    set(tr("what comes in"), std::move(other));
}

void Against::clear() {
    if (!rule_)
        return;
    name_.clear();
    rule_.reset();
    emit changed();
}

} // namespace kasuri::app
