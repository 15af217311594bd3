#pragma once
#include "engine/evaluate.hpp"
#include "engine/lower.hpp"
#include "engine/reference.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"

#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <limits>
#include <random>
#include <span>
#include <string>
#include <vector>

namespace kasuri::test {

inline constexpr float infinity = std::numeric_limits<float>::infinity();
inline const float not_a_number = std::numeric_limits<float>::quiet_NaN();

/// The checked rule; the test fails with its errors if there are any.
inline lang::Rule good_rule(const std::string& text) {
    lang::Checked checked = lang::check(text, proof::vocabulary());
    std::string faults;
    for (const lang::Diagnostic& d : checked.diagnostics)
        if (d.severity == lang::Severity::error)
            faults += lang::rendered(d, text, "rule") + "\n";
    INFO(text);
    INFO(faults);
    REQUIRE(checked.ok);
    return std::move(checked.rule);
}

inline std::vector<double> defaults(const lang::Rule& rule) {
    std::vector<double> values;
    for (const lang::Parameter& p : rule.parameters)
        values.push_back(p.value);
    return values;
}

using Colour = std::array<float, 4>;

/// What the engine makes of colours, in the rule's own space.
inline std::vector<Colour> run(const lang::Rule& rule, const std::vector<Colour>& in, std::vector<double> values = {},
                               bool rewrite = true, bool fuse = true) {
    if (values.empty())
        values = defaults(rule);
    engine::CompileOptions options;
    options.rewrite = rewrite;
    options.fuse = fuse;
    const engine::ProgramPtr program = engine::compile(rule, options);
    std::array<std::vector<float>, 4> planes, results;
    for (std::size_t c = 0; c < 4; ++c) {
        for (const Colour& colour : in)
            planes[c].push_back(colour[c]);
        results[c].resize(in.size());
    }
    float* const outputs[4] = {results[0].data(), results[1].data(), results[2].data(), results[3].data()};
    const engine::Source source{
        static_cast<int>(in.size()), 1, {planes[0].data(), planes[1].data(), planes[2].data(), planes[3].data()}};
    REQUIRE(engine::run(*program, source, values, std::span<float* const>(outputs)));
    std::vector<Colour> out;
    for (std::size_t i = 0; i < in.size(); ++i)
        out.push_back({results[0][i], results[1][i], results[2][i], results[3][i]});
    return out;
}

inline Colour run_one(const std::string& text, Colour in) { return run(good_rule(text), {in}).front(); }

inline Colour reference_one(const lang::Rule& rule, const Colour& in, std::vector<double> values = {}) {
    if (values.empty())
        values = defaults(rule);
    engine::ReferencePixel pixel;
    for (std::size_t i = 0; i < 4; ++i)
        pixel.rgba[i] = static_cast<double>(in[i]);
    const auto out = engine::reference(rule, values, pixel);
    return {static_cast<float>(out[0]), static_cast<float>(out[1]), static_cast<float>(out[2]),
            static_cast<float>(out[3])};
}

/// Processes that this one has started and not yet seen the end of.
inline std::vector<int> children() {
    std::vector<int> all;
    for (const auto& task : std::filesystem::directory_iterator("/proc/self/task")) {
        std::ifstream list(task.path() / "children");
        for (int child = 0; list >> child;)
            all.push_back(child);
    }
    return all;
}

/// A folder that is gone at the end of the test.
struct TemporaryFolder {
    std::filesystem::path path;
    TemporaryFolder() {
        static int count = 0;
        path = std::filesystem::temp_directory_path() /
            ("kasuri-test-" + std::to_string(static_cast<long>(std::random_device{}())) + "-" +
             std::to_string(count++));
        std::filesystem::create_directories(path);
    }
    ~TemporaryFolder() {
        std::error_code ignored;
        std::filesystem::permissions(path, std::filesystem::perms::owner_all, ignored);
        std::filesystem::remove_all(path, ignored);
    }
    std::filesystem::path operator/(const std::string& name) const { return path / name; }
};

inline std::string content_of(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

inline void write(const std::filesystem::path& path, const std::string& content) {
    std::ofstream(path, std::ios::binary) << content;
}

/// Fields of a CSV file under data/reference; its first line names the source and is passed over.
inline std::vector<std::vector<std::string>> reference_lines(const std::string& name) {
    std::ifstream in(std::string(KASURI_SOURCE_DIR) + "/data/reference/" + name);
    REQUIRE(in);
    std::string line;
    std::getline(in, line);
    std::vector<std::vector<std::string>> rows;
    while (std::getline(in, line)) {
        rows.emplace_back();
        std::size_t at = 0;
        while (at <= line.size()) {
            const std::size_t comma = std::min(line.find(',', at), line.size());
            rows.back().push_back(line.substr(at, comma - at));
            at = comma + 1;
        }
    }
    return rows;
}

/// The same where every field is a number.
inline std::vector<std::vector<double>> reference_table(const std::string& name) {
    std::vector<std::vector<double>> rows;
    for (const auto& fields : reference_lines(name)) {
        rows.emplace_back();
        for (const std::string& field : fields)
            rows.back().push_back(std::stod(field));
    }
    return rows;
}

} // namespace kasuri::test
