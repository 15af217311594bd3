// Any bytes as a look, a bench or recovery file, a LUT, a colour decision list, a library entry or a picture: an error
// or something that can be written again, never a crash. The first byte says which.
#include "base/file.hpp"
#include "document/bench_file.hpp"
#include "document/library.hpp"
#include "document/look_file.hpp"
#include "document/recovery_file.hpp"
#include "io/lut_file.hpp"
#include "io/picture_file.hpp"
#include "look/make.hpp"

#include <cstdint>
#include <cstdlib>
#include <filesystem>
#include <string>

using namespace kasuri;

namespace {

void insist(bool holds) {
    if (!holds)
        std::abort();
}

/// What only reads files is given one.
template <class Read>
void as_file(const char* ending, const std::string& content, Read read) {
    const std::filesystem::path file =
        std::filesystem::temp_directory_path() / (std::string("kasuri-file-fuzz") + ending);
    if (write_file(file, content))
        read(file);
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size == 0)
        return 0;
    const std::string text(reinterpret_cast<const char*>(data) + 1, size - 1);
    switch (data[0] % 10) {
    case 0:
    case 1:
        if (const auto look = document::look_of(text, "fuzz")) {
            const std::string again = document::look_text(look.value());
            const auto second = document::look_of(again, "fuzz");
            insist(second.ok() && document::look_text(second.value()) == again);
            (void)look::make_so_far(look.value(), {});
        } else {
            insist(!look.error().text().empty());
        }
        break;
    case 2:
        if (const auto bench = document::bench_of(text, "fuzz"))
            insist(document::bench_of(document::bench_text(bench.value()), "fuzz").ok());
        break;
    case 3: (void)document::recovery_of(text, "fuzz"); break;
    case 4: as_file(".cube", text, [](const auto& file) { (void)io::read_lut(file); }); break;
    case 5: as_file(".clf", text, [](const auto& file) { (void)io::read_lut(file); }); break;
    case 6: as_file(".ccc", text, [](const auto& file) { (void)io::read_cdl(file); }); break;
    case 7:
        as_file(".kasuri", text,
                [](const auto& file) { (void)document::matches(document::library_entry(file), "dye blur"); });
        break;
    case 8: as_file(".exr", text, [](const auto& file) { (void)io::load(file); }); break;
    default: as_file(".png", text, [](const auto& file) { (void)io::load(file); }); break;
    }
    return 0;
}
