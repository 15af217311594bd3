#include "document/filter_file.hpp"

#include "base/file.hpp"
#include "base/text.hpp"
#include "lang/lexer.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::document {

std::size_t utf8_fault(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t length = letter_length(text, i);
        if (length == 0 || text[i] == '\0')
            return i;
        i += length;
    }
    return std::string_view::npos;
}

Result<std::string> load_filter(const std::filesystem::path& path) {
    Result<std::string> content = read_file(path, lang::longest_text);
    return content ? filter_text(std::move(content.value()), path.string()) : content;
}

Result<std::string> filter_text(std::string text, const std::string& where) {
    if (text.starts_with("\xEF\xBB\xBF"))
        text.erase(0, 3);
    if (const std::size_t at = utf8_fault(text); at != std::string::npos)
        return Error{said("is not a text: byte {} has no meaning in UTF-8", at), where,
                     "Filters are plain text files ending in .kasuri."};
    std::string plain;
    plain.reserve(text.size());
    for (std::size_t i = 0; i < text.size(); ++i)
        if (!(text[i] == '\r' && i + 1 < text.size() && text[i + 1] == '\n'))
            plain += text[i];
    return plain;
}

std::function<Result<std::string>(const std::string&)> used_beside(const std::filesystem::path& path) {
    return [folder = path.parent_path()](const std::string& name) -> Result<std::string> {
        const std::filesystem::path wanted(name);
        const bool up = std::find(wanted.begin(), wanted.end(), "..") != wanted.end();
        std::error_code error;
        const std::filesystem::path own = std::filesystem::weakly_canonical(folder.empty() ? "." : folder, error),
                                    file = std::filesystem::weakly_canonical(folder / wanted, error);
        // Links are followed, and may not lead out.
        const bool inside = std::mismatch(own.begin(), own.end(), file.begin(), file.end()).first == own.end();
        if (wanted.empty() || wanted.is_absolute() || up || error || !inside)
            return Error{"names a file outside this filter's folder", name, ""};
        return load_filter(folder / wanted);
    };
}

Status save_filter(const std::filesystem::path& path, std::string_view text) { return write_file(path, text); }

std::string new_filter_text() {
    return "filter \"Untitled\"\n"
           "note   \"\"\n"
           "\n"
           "working rec709-linear\n"
           "\n"
           "proof \"identity at defaults\" : identity\n"
           "proof \"greys stay grey\"      : neutral < 1e-4\n"
           "proof \"no NaN or infinity\"   : finite\n"
           "\n";
}

} // namespace kasuri::document
