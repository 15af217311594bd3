#include "model/against.hpp"

#include "document/filter_file.hpp"

namespace kasuri::app {

void Against::set(const QString& name, OtherRule rule) {
    name_ = name;
    rule_ = std::move(rule);
    emit changed();
}

Status Against::open(const std::filesystem::path& path) {
    Result<std::string> text = document::load_filter(path);
    if (!text)
        return text.error();
    set(QString::fromStdString(path.stem().string()), {std::move(text.value()), path});
    return {};
}

void Against::clear() {
    if (!rule_)
        return;
    name_.clear();
    rule_.reset();
    emit changed();
}

} // namespace kasuri::app
