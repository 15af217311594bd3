// The corpus under cases/: rules by outcome. Lines that begin with //! say the code of a fault and the text under
// its span, in the order of the text; lines that begin with //? say a colour and what becomes of it.
#include "base/text.hpp"
#include "support/support.hpp"

#include <algorithm>

using namespace kasuri;
using namespace kasuri::lang;
using namespace kasuri::test;

namespace {

struct Case {
    std::string name, text;
    std::vector<std::pair<std::string, std::string>> faults; ///< code, text under the span
    std::vector<std::pair<std::vector<double>, std::vector<double>>> values;
};

std::vector<double> numbers(std::string_view text) {
    std::vector<double> all;
    for (const std::string_view part : split(text, ','))
        all.push_back(*parse_number(part));
    return all;
}

std::vector<Case> cases(const std::string& outcome) {
    std::vector<Case> all;
    for (const auto& entry :
         std::filesystem::directory_iterator(std::string(KASURI_SOURCE_DIR) + "/tests/lang/cases/" + outcome)) {
        Case made;
        made.name = outcome + "/" + entry.path().stem().string();
        made.text = content_of(entry.path());
        for (const std::string_view line : split(made.text, '\n')) {
            if (line.starts_with("//! ")) {
                const std::string_view rest = line.substr(4);
                const std::size_t quote = rest.find('"');
                made.faults.emplace_back(trimmed(rest.substr(0, quote)),
                                         rest.substr(quote + 1, rest.size() - quote - 2));
            } else if (line.starts_with("//? ")) {
                const std::size_t arrow = line.find("->");
                made.values.emplace_back(numbers(line.substr(4, arrow - 4)), numbers(line.substr(arrow + 2)));
            }
        }
        all.push_back(std::move(made));
    }
    std::sort(all.begin(), all.end(), [](const Case& a, const Case& b) { return a.name < b.name; });
    return all;
}

Checked checked(const Case& c) {
    CheckOptions options;
    options.open = [](const std::string& name) -> Result<std::string> { return Error{"does not exist", name, ""}; };
    return check(c.text, proof::vocabulary(), options);
}

void compare_values(const Case& c, const Rule& rule) {
    for (const auto& [in, out] : c.values) {
        Colour colour = {0, 0, 0, 1};
        for (std::size_t i = 0; i < in.size(); ++i)
            colour[i] = static_cast<float>(in[i]);
        const Colour fast = run(rule, {colour})[0], exact = reference_one(rule, colour);
        for (std::size_t i = 0; i < out.size(); ++i) {
            INFO(c.name << ", channel " << i << ": " << fast[i] << ", reference " << exact[i]);
            if (!std::isfinite(out[i])) {
                CHECK(((std::isnan(out[i]) && std::isnan(fast[i]) && std::isnan(exact[i])) ||
                       (static_cast<double>(fast[i]) == out[i] && static_cast<double>(exact[i]) == out[i])));
                continue;
            }
            CHECK(static_cast<double>(fast[i]) == Approx(out[i]).epsilon(2e-6).margin(2e-6));
            CHECK(static_cast<double>(exact[i]) == Approx(out[i]).epsilon(2e-6).margin(2e-6));
        }
    }
}

} // namespace

TEST_CASE("corpus: good rules compile without a word and give the values they state", "[lang][corpus]") {
    const auto all = cases("ok");
    CHECK(all.size() >= 30);
    for (const Case& c : all) {
        const Checked result = checked(c);
        std::string said;
        for (const Diagnostic& d : result.diagnostics)
            if (d.severity != Severity::hint)
                said += rendered(d, c.text, c.name) + "\n";
        INFO(c.name << "\n" << said);
        REQUIRE(said.empty());
        REQUIRE_FALSE(c.values.empty());
        compare_values(c, result.rule);
    }
}

TEST_CASE("corpus: every fault has its exact code and its exact place, and nothing else is said", "[lang][corpus]") {
    for (const std::string outcome : {"error", "warning"})
        for (const Case& c : cases(outcome)) {
            const Checked result = checked(c);
            INFO(c.name);
            CHECK(result.ok == (outcome == "warning"));
            REQUIRE_FALSE(c.faults.empty());
            std::string said, expected;
            for (const Diagnostic& d : result.diagnostics)
                said += std::string(row(d.code).id) + " \"" + std::string(text_of(c.text, d.span)) + "\"\n";
            for (const auto& [code, text] : c.faults)
                expected += code + " \"" + text + "\"\n";
            CHECK(said == expected);
            if (result.ok)
                compare_values(c, result.rule);
        }
}

TEST_CASE("corpus: a fix that is offered leaves a text without that fault", "[lang][corpus]") {
    int applied_fixes = 0;
    for (const Case& c : cases("error"))
        for (const Diagnostic& d : checked(c).diagnostics)
            for (const Fix& fix : d.fixes) {
                Case mended = c;
                mended.text = applied(fix, c.text);
                INFO(c.name << ": " << fix.label << "\n" << mended.text);
                const Checked after = checked(mended);
                CHECK(std::none_of(after.diagnostics.begin(), after.diagnostics.end(), [&](const Diagnostic& other) {
                    return other.code == d.code && other.arguments == d.arguments;
                }));
                ++applied_fixes;
            }
    CHECK(applied_fixes >= 10);
}
