#include "proof/report.hpp"

#include "base/text.hpp"
#include "engine/lower.hpp"

#include <algorithm>
#include <chrono>
#include <fmt/format.h>

namespace kasuri::proof {
namespace {

/// XML 1.0, 2.2 and 2.4: control characters cannot be written at all, five others are written as entities.
std::string escaped(std::string_view text) {
    std::string made;
    for (const char c : well_formed(text)) {
        const auto code = static_cast<unsigned char>(c);
        switch (c) {
        case '&': made += "&amp;"; break;
        case '<': made += "&lt;"; break;
        case '>': made += "&gt;"; break;
        case '"': made += "&quot;"; break;
        case '\'': made += "&apos;"; break;
        case '\t':
        case '\n':
        case '\r': made += fmt::format("&#{};", static_cast<int>(code)); break;
        default: made += code < 0x20 ? '?' : c;
        }
    }
    return made;
}

} // namespace

void FilterReport::say(std::span<const lang::Diagnostic> diagnostics, std::string_view text) {
    for (const lang::Diagnostic& diagnostic : diagnostics) {
        said.push_back(lang::rendered(diagnostic, text, file));
        if (code.empty() && diagnostic.severity == lang::Severity::error)
            code = lang::row(diagnostic.code).id;
    }
}

int FilterReport::failed() const {
    return static_cast<int>(std::count_if(outcomes.begin(), outcomes.end(),
                                          [](const Outcome& outcome) { return !outcome.passed && !outcome.offered; }));
}

int FilterReport::promised() const {
    return static_cast<int>(
        std::count_if(outcomes.begin(), outcomes.end(), [](const Outcome& outcome) { return !outcome.offered; }));
}

bool check_all(const subject::Subject& subject, std::span<const std::vector<double>> settings, FilterReport& into,
               const CancelToken& cancel, const lang::Rule* statements) {
    const auto from = std::chrono::steady_clock::now();
    const std::vector<lang::ProofLine> lines = statements ? statements->proofs : lines_of(*subject.rule());
    for (const lang::ProofLine& line : lines) {
        std::optional<Outcome> outcome = check(subject, line, settings, cancel, statements);
        if (!outcome)
            return false;
        into.outcomes.push_back(std::move(*outcome));
    }
    into.seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - from).count();
    return true;
}

std::string junit(std::span<const FilterReport> reports) {
    int tests = 0, failures = 0, errors = 0;
    double seconds = 0;
    std::string suites;
    for (const FilterReport& filter : reports) {
        const int error = filter.fault.empty() ? 0 : 1;
        tests += filter.promised() + error;
        failures += filter.failed();
        errors += error;
        seconds += filter.seconds;
        suites += fmt::format("  <testsuite name=\"{}\" tests=\"{}\" failures=\"{}\" errors=\"{}\" time=\"{:.3f}\">\n",
                              escaped(filter.file), filter.promised() + error, filter.failed(), error, filter.seconds);
        const std::string said = escaped(fmt::format("{}", fmt::join(filter.said, "\n")));
        if (error)
            suites += fmt::format("    <testcase name=\"compiles\" classname=\"{}\"><error type=\"{}\" "
                                  "message=\"{}\">{}</error></testcase>\n",
                                  escaped(filter.file), filter.code, escaped(filter.fault), said);
        for (const Outcome& outcome : filter.outcomes) {
            if (outcome.offered)
                continue;
            suites +=
                fmt::format("    <testcase name=\"{}\" classname=\"{}\"", escaped(outcome.title), escaped(filter.file));
            suites += outcome.passed ? "/>\n"
                                     : fmt::format("><failure message=\"{}\"/></testcase>\n", escaped(report(outcome)));
        }
        if (!error && !said.empty())
            suites += fmt::format("    <system-out>{}</system-out>\n", said);
        suites += "  </testsuite>\n";
    }
    return fmt::format("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<testsuites name=\"kasuri-cli check\" tests=\"{}\" "
                       "failures=\"{}\" errors=\"{}\" time=\"{:.3f}\">\n{}</testsuites>\n",
                       tests, failures, errors, seconds, suites);
}

} // namespace kasuri::proof
