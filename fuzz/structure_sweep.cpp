// Fuzzing by structure at full speed, with any compiler: `structure_sweep texts|algebra|files COUNT [FIRST]`. Run
// number N always does the same; the number of the one that failed is said. `structure_sweep text N` prints the text of
// run N.
#include "mutate.hpp"
#include "promises.hpp"

#include "base/file.hpp"
#include "document/bench_file.hpp"
#include "document/look_file.hpp"
#include "document/recovery_file.hpp"
#include "io/lut_file.hpp"
#include "io/picture_file.hpp"

#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <unistd.h>

using namespace kasuri;
using namespace kasuri::fuzz;

namespace {

volatile std::sig_atomic_t running = 0; // what the handler may read: runs are numbered below 2^31

void tell(int signal) {
    char words[80];
    const int length =
        std::snprintf(words, sizeof words, "run %d failed (signal %d)\n", static_cast<int>(running), signal);
    if (length > 0 && ::write(STDERR_FILENO, words, static_cast<std::size_t>(length)) < 0)
        std::_Exit(4);
    std::signal(signal, SIG_DFL);
    std::raise(signal);
}

std::string text_of(long run, const std::vector<std::string>& from, Random& random) {
    random.seed(static_cast<unsigned>(run));
    return rule_text(from, random);
}

std::string content_of(const std::filesystem::path& file) {
    const auto read = read_file(file, std::size_t{64} << 20);
    return read ? read.value() : std::string();
}

/// Good files of every kind, small ones.
std::vector<std::vector<std::string>> good_files(const std::vector<std::string>& rules) {
    std::vector<std::vector<std::string>> all(file_kinds);
    all[0] = seeds(".kasurilook");
    document::BenchFile bench;
    bench.takes = {{"one", rules.front(), {{"meet", 0.25}}}, {"two", "out.r = g\n", {}}};
    all[1] = {document::bench_text(bench)};
    all[2] = {document::recovery_text({"/a/b.kasuri", rules.front(), {{"meet", 0.25}}, bench, all[0].front(), 1})};
    all[6] = rules;
    const std::filesystem::path folder =
        std::filesystem::temp_directory_path() / ("kasuri-sweep-" + std::to_string(::getpid()));
    std::filesystem::create_directories(folder);
    io::LutSteps steps;
    steps.size = 3;
    for (int i = 0; i < 27; ++i)
        steps.table.push_back(
            {static_cast<float>(i % 3) / 2, static_cast<float>(i / 3 % 3) / 2, static_cast<float>(i / 9) / 3});
    if (auto clf = io::clf_text(".clf", steps, {"t", "", "", {"one", "two"}}))
        all[4] = {std::move(clf.value())};
    for (const auto& [kind, ending] : {std::pair{9, ".csp"}, std::pair{11, ".3dl"}})
        if (auto baked = io::baked_text(ending, steps))
            all[static_cast<std::size_t>(kind)] = {std::move(baked.value())};
    all[3] = {"TITLE \"a\"\nLUT_3D_SIZE 2\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 "
              "1\n0 1 1\n1 1 1\n",
              "LUT_1D_SIZE 3\n0 0 0\n0.5 0.25 0.5\n1 1 1\n"};
    if (io::write_cdl(folder / "a.ccc", {{1.2, 1, 0.8}, {0.1, 0, 0}, {1, 1.1, 1}, 0.9, "a", "b"}))
        all[5] = {content_of(folder / "a.ccc")};
    all[10] = {"ocio_profile_version: 2\nroles:\n  aces_interchange: a\n  scene_linear: a\ndisplays:\n  d:\n    - "
               "!<View> {name: v, colorspace: b}\n"
               "colorspaces:\n  - !<ColorSpace>\n    name: a\n  - !<ColorSpace>\n    name: b\n    "
               "from_scene_reference: !<MatrixTransform> {matrix: "
               "[2, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]}\n"};
    image::Image image = image::image_of(image::generated(9, 7, [](int x, int y) {
        return std::array<double, 3>{x / 9.0, y / 7.0, 0.5};
    }));
    for (const auto& [kind, name] : {std::pair{7, "a.exr"}, std::pair{8, "a.png"}})
        if (io::save(folder / name, image))
            all[static_cast<std::size_t>(kind)] = {content_of(folder / name)};
    std::filesystem::remove_all(folder);
    for (const auto& each : all)
        insist(!each.empty());
    return all;
}

int usage() {
    std::fputs("structure_sweep texts|files COUNT [FIRST] | text N\n", stderr);
    return 2;
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 3)
        return usage();
    const std::string what = argv[1];
    const long count = std::atol(argv[2]), first = argc > 3 ? std::atol(argv[3]) : 0;
    const std::vector<std::string> rules = seeds(".kasuri");
    Random random;
    if (what == "text")
        return std::fputs(text_of(count, rules, random).c_str(), stdout) < 0 ? 3 : 0;
    if (what != "texts" && what != "algebra" && what != "files")
        return usage();
    for (const int signal : {SIGABRT, SIGSEGV, SIGFPE, SIGBUS, SIGILL})
        std::signal(signal, tell);
    const auto files = what == "files" ? good_files(rules) : std::vector<std::vector<std::string>>();
    for (long run = first; run < first + count; ++run) {
        running = static_cast<int>(run);
        if (what == "texts") {
            const std::string text = text_of(run, rules, random);
            const std::string other = with_words_changed(text, random);
            keep_text_promises(text, other, static_cast<unsigned>(random()));
        } else if (what == "algebra") {
            keep_algebra_promises(text_of(run, rules, random));
        } else {
            random.seed(static_cast<unsigned>(run));
            const auto kind = random() % file_kinds;
            const std::string& good = files[kind][random() % files[kind].size()];
            const bool bytes = kind == 7 || kind == 8 || random() % 8 == 0;
            keep_file_promises(static_cast<int>(kind),
                               bytes ? with_bytes_changed(good, random) : with_values_changed(good, random));
        }
        if ((run - first + 1) % 100000 == 0)
            std::fprintf(stderr, "%ld %s\n", run - first + 1, what.c_str());
    }
    std::printf("%ld %s, from %ld: nothing found\n", count, what.c_str(), first);
    return 0;
}
