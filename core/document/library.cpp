#include "document/library.hpp"

#include "base/file_kind.hpp"
#include "document/filter_file.hpp"
#include "document/look_file.hpp"
#include "document/look_text.hpp"
#include "lang/lexer.hpp"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace kasuri::document {
namespace {

std::string lower(std::string_view text) {
    std::string made(text);
    for (char& c : made)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return made;
}

void stamp(LibraryEntry& entry) {
    std::error_code error;
    entry.size = std::filesystem::file_size(entry.path, error);
    entry.changed = std::filesystem::last_write_time(entry.path, error).time_since_epoch().count();
}

void add_once(std::vector<std::string>& list, std::string word) {
    if (std::find(list.begin(), list.end(), word) == list.end())
        list.push_back(std::move(word));
}

/// What stands in a rule's text, token by token: strings behind their keywords, names before a bracket.
void read_rule(LibraryEntry& entry, std::string_view text) {
    for (const std::string& title : strings_after(text, "preset"))
        add_once(entry.presets, title);
    const std::vector<lang::Token> tokens = lang::lex(text, nullptr);
    for (std::size_t i = 0; i + 1 < tokens.size(); ++i) {
        const lang::Token &token = tokens[i], &next = tokens[i + 1];
        const std::string_view word = text_of(text, token.span);
        if (token.kind == lang::TokenKind::name && next.kind == lang::TokenKind::open)
            add_once(entry.calls, std::string(word));
        else if (word == "working" && entry.working.empty()) {
            const std::size_t end = std::min(text.find_first_of("\n/", token.span.end), text.size());
            std::string_view rest = text.substr(token.span.end, end - token.span.end);
            rest.remove_prefix(std::min(rest.find_first_not_of(" \t\""), rest.size()));
            entry.working = rest.substr(0, rest.find_last_not_of(" \t\"") + 1);
        }
    }
}

template <class Wanted>
std::vector<std::filesystem::path> found_below(const std::filesystem::path& folder, Wanted wanted) {
    std::vector<std::filesystem::path> found;
    std::error_code error;
    std::filesystem::recursive_directory_iterator walk(
        folder, std::filesystem::directory_options::skip_permission_denied, error),
        end;
    for (; !error && walk != end && found.size() < max_in_library; walk.increment(error)) {
        if (walk.depth() >= deepest_folder)
            walk.disable_recursion_pending();
        if (wanted(*walk))
            found.push_back(walk->path());
    }
    std::sort(found.begin(), found.end());
    return found;
}

std::string first_of(const std::vector<std::string>& list) { return list.empty() ? std::string() : list.front(); }

} // namespace

std::vector<std::filesystem::path> library_files(const std::filesystem::path& folder) {
    return found_below(folder, [](const std::filesystem::directory_entry& entry) {
        return (is_kind(entry.path(), FileKind::filter) || is_kind(entry.path(), FileKind::look)) &&
            !entry.path().filename().string().starts_with('.');
    });
}

std::vector<std::filesystem::path> library_folders(const std::filesystem::path& folder) {
    std::vector<std::filesystem::path> folders = found_below(folder, [](const std::filesystem::directory_entry& entry) {
        std::error_code error;
        return entry.is_directory(error) && !entry.is_symlink(error);
    });
    std::error_code error;
    if (std::filesystem::is_directory(folder, error))
        folders.insert(folders.begin(), folder);
    return folders;
}

LibraryEntry library_entry(const std::filesystem::path& path) {
    LibraryEntry entry;
    entry.path = path;
    entry.title = path.stem().string();
    entry.is_look = is_kind(path, FileKind::look);
    stamp(entry);
    if (entry.is_look) {
        const Result<Look> look = load_look(path);
        if (!look) {
            entry.fault = look.error().what;
            return entry;
        }
        if (!look.value().title.empty())
            entry.title = look.value().title;
        entry.note = look.value().note;
        entry.steps = look.value().steps.size();
        for (const LookStep& step : look.value().steps) {
            add_once(entry.calls, step.label.empty() ? title_in(step.text) : step.label); // found by its steps
            read_rule(entry, step.text);
        }
        entry.presets.clear(); // those of its steps
        return entry;
    }
    Result<std::string> text = load_filter(path);
    if (!text) {
        entry.fault = text.error().what;
        return entry;
    }
    entry.text = std::move(text.value());
    if (const std::string title = title_in(entry.text); !title.empty())
        entry.title = title;
    entry.note = first_of(strings_after(entry.text, "note"));
    entry.tags = first_of(strings_after(entry.text, "tags"));
    read_rule(entry, entry.text);
    return entry;
}

bool same_file(const LibraryEntry& entry) {
    LibraryEntry now;
    now.path = entry.path;
    stamp(now);
    return now.size == entry.size && now.changed == entry.changed;
}

bool matches(const LibraryEntry& entry, std::string_view query) {
    std::string all = lower(entry.title + "\n" + entry.note + "\n" + entry.tags + "\n" + entry.working + "\n" +
                            entry.path.filename().string());
    for (const std::vector<std::string>* list : {&entry.presets, &entry.calls})
        for (const std::string& word : *list)
            all += "\n" + lower(word);
    const std::string wanted = lower(query);
    for (std::size_t at = 0; at < wanted.size();) {
        const std::size_t begin = wanted.find_first_not_of(' ', at);
        if (begin == std::string::npos)
            break;
        const std::size_t end = std::min(wanted.find(' ', begin), wanted.size());
        if (all.find(wanted.substr(begin, end - begin)) == std::string::npos)
            return false;
        at = end;
    }
    return true;
}

std::filesystem::path free_name(const std::filesystem::path& path) {
    std::error_code error;
    for (int number = 2;; ++number)
        if (std::filesystem::path made =
                path.parent_path() / fmt::format("{}-{}{}", path.stem().string(), number, path.extension().string());
            !std::filesystem::exists(made, error))
            return made;
}

} // namespace kasuri::document
