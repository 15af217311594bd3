#include "opening/open.hpp"

#include "base/file_kind.hpp"
#include "document/filter_file.hpp"
#include "handover/cdl.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "proof/proof.hpp"

#include <utility>

namespace kasuri::opening {

bool is_look_or_lut(const std::filesystem::path& file) {
    return is_kind(file, FileKind::look) || is_kind(file, FileKind::lut);
}

Opened of_text(std::string text, std::function<Result<std::string>(const std::string&)> open) {
    Opened made;
    lang::CheckOptions options;
    options.open = std::move(open);
    lang::Checked checked = lang::check(text, proof::vocabulary(), options);
    made.text = std::move(text);
    made.diagnostics = std::move(checked.diagnostics);
    made.ok = checked.ok;
    if (checked.ok)
        made.subject = subject::Subject(std::move(checked.rule));
    return made;
}

Result<std::string> filter_text_of(const std::filesystem::path& file, const Options& options) {
    if (!is_kind(file, FileKind::correction))
        return document::load_filter(file);
    const auto lists = io::read_cdl(file);
    if (!lists)
        return lists.error();
    if (lists.value().size() > 1)
        return Error{said("has {} corrections", lists.value().size()), file.string(),
                     "kasuri-cli cdl makes a filter of each."};
    const io::Cdl& list = lists.value().front();
    return handover::filter_of(list, list.id.empty() ? file.stem().string() : list.id,
                               options.space.empty() ? "acescct" : options.space);
}

Result<document::Look> look_of(const std::filesystem::path& file, const Options& options) {
    if (!is_kind(file, FileKind::lut))
        return document::load_look(file);
    Result<document::LookStep> step = document::step_from(file);
    if (!step)
        return step.error();
    if (!options.space.empty())
        step.value().space = options.space;
    step.value().trilinear = options.trilinear;
    document::Look look;
    look.title = file.stem().string();
    look.steps.push_back(std::move(step.value()));
    return look;
}

Result<Opened> of_file(const std::filesystem::path& file, const Options& options) {
    if (!is_look_or_lut(file)) {
        Result<std::string> text = filter_text_of(file, options);
        if (!text)
            return text.error();
        return of_text(std::move(text.value()), document::used_beside(file));
    }
    Opened made;
    made.is_filter = false;
    Result<document::Look> look = look_of(file, options);
    if (!look)
        return look.error();
    made.look = std::move(look.value());
    const bool is_lut = is_kind(file, FileKind::lut);
    // A look's own files are looked for beside it; a LUT is named from where we are.
    Result<look::Made> runs =
        look::make(made.look, is_lut ? std::filesystem::path() : std::filesystem::path(file).parent_path());
    if (!runs && is_lut) // the file by itself, not the step that was made of it
        if (const auto read = io::read_lut(file); !read)
            return read.error();
    if (!runs)
        return Error{runs.error().text(), file.string(), ""};
    made.ok = true;
    made.subject = std::move(runs.value().subject);
    made.notes = std::move(runs.value().notes);
    return made;
}

} // namespace kasuri::opening
