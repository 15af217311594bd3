#include "promises.hpp"

#include "base/file.hpp"
#include "document/bench_file.hpp"
#include "document/library.hpp"
#include "document/look_file.hpp"
#include "document/recovery_file.hpp"
#include "io/config.hpp"
#include "io/lut_file.hpp"
#include "io/picture_file.hpp"
#include "look/make.hpp"

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <unistd.h>

namespace kasuri::fuzz {
namespace {

/// What only reads files is given one. An error says what is wrong; that a library failed at it in a helper is no fault
/// of ours, and said.
template <class Read>
void as_file(const char* ending, const std::string& content, Read read) {
    const std::filesystem::path file =
        std::filesystem::temp_directory_path() / ("kasuri-file-fuzz-" + std::to_string(::getpid()) + ending);
    if (write_file(file, content, Lasts::end_of_program))
        if (const auto made = read(file); !made) {
            insist(!made.error().what.empty());
            if (made.error().what.find("could not cope") != std::string::npos)
                std::fprintf(stderr, "%s\n", made.error().text().c_str());
        }
    std::error_code none;
    std::filesystem::remove(file, none);
}

void look(const std::string& text) {
    const auto read = document::look_of(text, "fuzz");
    if (!read)
        return insist(!read.error().text().empty());
    const std::string again = document::look_text(read.value());
    const auto second = document::look_of(again, "fuzz");
    insist(second.ok() && document::look_text(second.value()) == again);
    (void)look::make_so_far(read.value(), {});
}

} // namespace

void keep_file_promises(int kind, const std::string& content) {
    const auto lut = [](const auto& file) { return io::read_lut(file); };
    const auto picture = [](const auto& file) { return io::load(file); };
    switch (kind) {
    case 0: return look(content);
    case 1:
        if (const auto bench = document::bench_of(content, "fuzz"))
            insist(document::bench_of(document::bench_text(bench.value()), "fuzz").ok());
        return;
    case 2:
        if (const auto kept = document::recovery_of(content, "fuzz"))
            insist(document::recovery_of(document::recovery_text(kept.value()), "fuzz").ok());
        return;
    case 3: return as_file(".cube", content, lut);
    case 4: return as_file(".clf", content, lut);
    case 5: return as_file(".ccc", content, [](const auto& file) { return io::read_cdl(file); });
    case 6:
        return as_file(".kasuri", content, [](const auto& file) {
            (void)document::matches(document::library_entry(file), "dye blur");
            return Status();
        });
    case 7: return as_file(".exr", content, picture);
    case 8: return as_file(".png", content, picture);
    case 9: return as_file(".csp", content, lut);
    case 10: return as_file(".ocio", content, [](const auto& file) { return io::load_config(file); });
    case 11: return as_file(".3dl", content, lut);
    default: return;
    }
}

} // namespace kasuri::fuzz
