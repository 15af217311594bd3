#include "model/against.hpp"

#include "base/file_kind.hpp"
#include "document/filter_file.hpp"
#include "model/file_names.hpp"

namespace kasuri::app {

void Against::set(const QString& name, OtherRule rule) {
    name_ = name;
    rule_ = std::move(rule);
    emit changed();
}

void Against::set_look(const QString& name, document::Look look) {
    OtherRule other;
    other.text = look.steps.front().text;
    other.values = look.steps.front().values;
    other.around = std::make_shared<const Around>(Around{std::move(look), 0, false});
    set(name, std::move(other));
}

Status Against::open(const std::filesystem::path& path, const std::string& lut_space) {
    if (is_kind(path, FileKind::look))
        return open_look(path);
    if (is_kind(path, FileKind::lut))
        return open_lut(path, lut_space);
    Result<std::string> text = document::load_filter(path);
    if (!text)
        return text.error();
    set(text_of(path.stem()), {std::move(text.value()), path});
    return {};
}

Status Against::open_look(const std::filesystem::path& path) {
    Result<document::Look> look = document::load_look(path);
    if (!look)
        return look.error();
    if (look.value().steps.empty())
        return Error{"has no steps", path.string(), ""};
    document::make_absolute(look.value(), path.parent_path());
    set_look(text_of(path.stem()), std::move(look.value()));
    return {};
}

Status Against::open_lut(const std::filesystem::path& path, const std::string& space) {
    Result<document::LookStep> step = document::step_from(path);
    if (!step)
        return step.error();
    if (!space.empty())
        step.value().space = space;
    document::Look look;
    look.steps.push_back(std::move(step.value()));
    set_look(text_of(path.filename()), std::move(look));
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
