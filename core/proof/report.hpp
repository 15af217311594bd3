#pragma once
#include "lang/diagnostic.hpp"
#include "proof/proof.hpp"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::proof {

/// What came of one filter file, or of a look.
struct FilterReport {
    std::string file;
    std::vector<Outcome> outcomes{};
    std::string fault{}; ///< why it could not be checked at all
    double seconds = 0;
    std::vector<std::string> said{}; ///< of its text: "file:line:column: error K201: .." and what to do
    std::string code{};              ///< of its first error

    /// Of the text of `file`.
    void say(std::span<const lang::Diagnostic> diagnostics, std::string_view text);

    /// Of what was promised; what is offered judges nothing.
    int failed() const;
    int promised() const;
    bool good() const { return fault.empty() && failed() == 0; }
};

/// Measures all lines of the subject's rule, or of `statements` about it, into `into.outcomes`. Returns false if
/// cancelled.
bool check_all(const subject::Subject& subject, std::span<const std::vector<double>> settings, FilterReport& into,
               const CancelToken& cancel = {}, const lang::Rule* statements = nullptr);

/// A JUnit XML document: one test suite a filter, one test case a proof. Common practice, no standard: the elements
/// testsuites, testsuite, testcase, failure and error with their attributes name, classname, tests, failures, errors,
/// type, time and message, and system-out. What is wrong or odd in a text is there with code, place and what to do: in
/// `error` where there is one, else in `system-out`.
std::string junit(std::span<const FilterReport> reports);

} // namespace kasuri::proof
