#include "simplify/simplify.hpp"

#include "base/text.hpp"
#include "insight/algebra.hpp"
#include "inverse/solve.hpp"
#include "lang/check.hpp"
#include "lang/format.hpp"
#include "lang/lexer.hpp"
#include "proof/proof.hpp"
#include "terms/rewrite.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::simplify {
namespace {

constexpr std::size_t most_statements = 60;
constexpr int most_words = 4000;
/// What is written anew loses the author's names and lines: only where it is that much shorter.
constexpr double worth_it = 0.75;

int words_in(std::string_view text) {
    int count = 0;
    for (const lang::Token& token : lang::lex(text, nullptr))
        count += token.kind == lang::TokenKind::newline || token.kind == lang::TokenKind::comment ||
                token.kind == lang::TokenKind::end
            ? 0
            : 1;
    return count;
}

std::string one_line(std::string_view text) {
    std::string line(trimmed(text));
    std::replace(line.begin(), line.end(), '\n', ' ');
    return line.size() > 60 ? line.substr(0, 57) + "..." : line;
}

class Simplifying {
public:
    Simplifying(std::string_view text, const Options& options, const CancelToken& cancel)
        : options_(options), cancel_(cancel) {
        made_.text = text;
        made_.before = made_.after = words_in(text);
    }

    Result<Shorter> run() {
        const std::string given = made_.text;
        for (const lang::Token& token : lang::lex(given, nullptr)) // each statement on a line of its own
            if (token.kind == lang::TokenKind::semicolon)
                made_.text[token.span.begin] = '\n';
        lang::Checked checked = check(made_.text);
        if (!checked.ok) {
            for (const lang::Diagnostic& d : checked.diagnostics)
                if (d.severity == lang::Severity::error)
                    return Error{lang::message(d), "", "Mend it first."};
            return Error{"the rule has a fault", "", "Mend it first."};
        }
        if (terms::working_statements(made_.text).size() > most_statements)
            return Error{said("more than {} statements do work; that would take minutes", most_statements), "", ""};
        if (made_.before > most_words)
            return Error{said("more than {} words, numbers and signs; that would take minutes", most_words), "", ""};
        original_.emplace(std::move(checked.rule));
        while (!cancel_.cancelled() && (nothing() || idle_line() || run_of_lines() || rewritten()))
            ;
        if (cancel_.cancelled())
            return Error{"was called off", "", ""};
        if (made_.done.empty())
            made_.text = given;
        else if (made_.text != given && given.find(';') != std::string::npos)
            made_.text = lang::formatted(made_.text).value_or(made_.text);
        return made_;
    }

private:
    lang::Checked check(const std::string& text) const {
        lang::CheckOptions with;
        with.open = options_.open;
        return lang::check(text, proof::vocabulary(), with);
    }

    /// Takes the text if it is shorter, free of faults, and proved to be the same as the first one.
    bool take(std::string text, const std::string& what) {
        const int after = words_in(text);
        if (after >= made_.after || cancel_.cancelled())
            return false;
        lang::Checked checked = check(text);
        if (!checked.ok || !insight::shown_equal(*original_, subject::Subject(std::move(checked.rule))))
            return false;
        made_.text = std::move(text);
        made_.after = after;
        made_.done.push_back(what);
        return true;
    }

    std::string without(const std::vector<Span>& spans, std::size_t first, std::size_t last,
                        const std::string& by) const {
        std::string text = made_.text;
        for (std::size_t i = last + 1; i-- > first;)
            text = terms::with_statement(text, spans[i], i == first ? by : "");
        return text;
    }

    bool nothing() {
        const std::vector<Span> spans = terms::working_statements(made_.text);
        return !spans.empty() && take(without(spans, 0, spans.size() - 1, ""), said("all of it does nothing"));
    }

    bool idle_line() {
        const std::vector<Span> spans = terms::working_statements(made_.text);
        for (std::size_t i = spans.size(); i-- > 0;)
            if (take(without(spans, i, i, ""),
                     said("without it nothing changes: {}", one_line(text_of(made_.text, spans[i])))))
                return true;
        return false;
    }

    /// The longest first.
    bool run_of_lines() {
        const std::vector<Span> spans = terms::working_statements(made_.text);
        for (std::size_t length = spans.size(); length >= 1; --length)
            for (std::size_t first = 0; first + length <= spans.size() && !cancel_.cancelled(); ++first)
                for (const std::string& by : as_sums(spans, first, first + length - 1)) {
                    int words = 0;
                    for (std::size_t i = first; i < first + length; ++i)
                        words += words_in(text_of(made_.text, spans[i]));
                    if (words_in(by) > worth_it * words)
                        continue;
                    const std::string from = one_line(text_of(made_.text, spans[first]));
                    const std::string to = by.empty() ? said("nothing") : one_line(by);
                    if (take(without(spans, first, first + length - 1, by),
                             length == 1 ? said("{} is {}", from, to)
                                         : said("{} lines from {} are {}", length, from, to)))
                        return true;
                }
        return false;
    }

    /// What these lines make of `out` as one statement, if they are sums of multiples: several ways to write it.
    std::vector<std::string> as_sums(const std::vector<Span>& spans, std::size_t first, std::size_t last) const {
        // The lines by themselves, with the lets before them.
        std::string alone = made_.text;
        for (std::size_t i = spans.size(); i-- > 0;) {
            const bool let = text_of(made_.text, spans[i]).starts_with("let");
            if (i > last || (i < first && !let))
                alone = terms::with_statement(alone, spans[i], "");
        }
        lang::CheckOptions with;
        with.open = options_.open;
        with.proofs = false;
        const lang::Checked checked = lang::check(alone, proof::vocabulary(), with);
        if (!checked.ok)
            return {};
        terms::Terms t;
        const terms::Read read = terms::read(checked.rule, t);
        if (t.size() > terms::most_terms || read.out[3] != t.channel(3))
            return {};
        const colour::Space& space = *colour::find_space(engine::working_space(checked.rule));
        std::array<std::array<std::string, 4>, 3> entries; // and the constant
        std::array<std::array<std::optional<double>, 4>, 3> numbers;
        if (const auto sums = inverse::sums_of(t, read.out, space)) {
            for (std::size_t r = 0; r < 3; ++r)
                for (std::size_t c = 0; c < 4; ++c) {
                    const auto found = c < 3 ? (*sums)[r].factors.find(t.channel(static_cast<std::uint32_t>(c)))
                                             : (*sums)[r].factors.end();
                    const terms::TermId entry = c == 3      ? (*sums)[r].constant
                        : found == (*sums)[r].factors.end() ? t.number(0)
                                                            : found->second;
                    entries[r][c] = terms::expression(t, entry);
                    numbers[r][c] = t.number_of(entry);
                    const terms::Term& made = t[entry];
                    const bool sum = made.kind == terms::TermKind::binary &&
                        (made.op == lang::Operator::add || made.op == lang::Operator::sub);
                    if (c < 3 && (sum || made.kind == terms::TermKind::choice))
                        entries[r][c] = "(" + entries[r][c] + ")"; // it stands before a *
                }
        } else if (const auto affine = insight::shown_matrix(subject::Subject(checked.rule));
                   affine && checked.rule.parameters.empty()) {
            for (std::size_t r = 0; r < 3; ++r)
                for (std::size_t c = 0; c < 4; ++c) {
                    const double x = c < 3 ? affine->matrix[r][c] : affine->offset[r];
                    numbers[r][c] = std::fabs(x - std::round(x * 1e9) / 1e9) < 2e-15 ? std::round(x * 1e9) / 1e9 : x;
                    entries[r][c] = terms::number_text(*numbers[r][c]);
                }
        } else {
            return {};
        }
        return written(entries, numbers, first == 0);
    }

    static std::vector<std::string> written(const std::array<std::array<std::string, 4>, 3>& entries,
                                            const std::array<std::array<std::optional<double>, 4>, 3>& numbers,
                                            bool of_input) {
        constexpr std::string_view names = "rgb";
        const std::string colour = of_input ? "rgb" : "out.rgb";
        std::vector<std::string> ways;
        bool constants = false, identity = true, swap = true; // a swap: one channel into each, and multiples of them
        std::string places;
        std::array<std::string, 3> gains;
        for (std::size_t r = 0; r < 3; ++r) {
            constants = constants || numbers[r][3] != 0.0;
            int parts = 0;
            for (std::size_t c = 0; c < 3; ++c) {
                identity = identity && numbers[r][c] == (r == c ? 1.0 : 0.0);
                if (numbers[r][c] == 0.0)
                    continue;
                ++parts;
                places += names[c];
                gains[r] = entries[r][c];
            }
            swap = swap && parts == 1;
        }
        const std::string offset = fmt::format("vec3({}, {}, {})", entries[0][3], entries[1][3], entries[2][3]);
        const std::string plus = constants ? " + " + offset : "";
        if (identity && !constants)
            return {""};
        if (identity)
            return {fmt::format("out.rgb = {}{}", colour, plus)};
        if (swap) {
            const std::string swapped = places == "rgb" ? colour : (of_input ? "rgb." : "out.") + places;
            const bool same = gains[0] == gains[1] && gains[1] == gains[2];
            ways.push_back(same && gains[0] == "1" ? fmt::format("out.rgb = {}{}", swapped, plus)
                               : same              ? fmt::format("out.rgb = {} * {}{}", gains[0], swapped, plus)
                                      : fmt::format("out.rgb = vec3({}, {}, {}) * {}{}", gains[0], gains[1], gains[2],
                                                    swapped, plus));
        }
        if (of_input) { // channel by channel: what is read is what came in
            std::string lines;
            for (std::size_t r = 0; r < 3; ++r) {
                std::string sum;
                bool own = numbers[r][3] == 0.0;
                for (std::size_t c = 0; c < 3; ++c) {
                    own = own && numbers[r][c] == (r == c ? 1.0 : 0.0);
                    if (numbers[r][c] == 0.0)
                        continue;
                    sum += (sum.empty() ? "" : " + ") +
                        (numbers[r][c] == 1.0 ? std::string(1, names[c])
                                              : fmt::format("{} * {}", entries[r][c], names[c]));
                }
                if (numbers[r][3] != 0.0)
                    sum += (sum.empty() ? "" : " + ") + entries[r][3];
                if (!own)
                    lines += fmt::format("{}out.{} = {}", lines.empty() ? "" : "\n", names[r], sum.empty() ? "0" : sum);
            }
            ways.push_back(lines);
        }
        std::string matrix;
        for (std::size_t r = 0; r < 3; ++r)
            for (std::size_t c = 0; c < 3; ++c) {
                const std::string& entry = entries[r][c];
                const bool bracketed = entry.starts_with('('); // it stands between commas here
                matrix += (matrix.empty() ? "" : ", ") + (bracketed ? entry.substr(1, entry.size() - 2) : entry);
            }
        ways.push_back(fmt::format("out.rgb = mat3({}) * {}{}", matrix, colour, plus));
        // The shortest way first.
        std::stable_sort(ways.begin(), ways.end(),
                         [](const std::string& a, const std::string& b) { return words_in(a) < words_in(b); });
        return ways;
    }

    /// All of it as formulas, and written anew.
    bool rewritten() {
        lang::Checked checked = check(made_.text);
        const std::vector<Span> spans = terms::working_statements(made_.text);
        if (!checked.ok || spans.empty())
            return false;
        terms::Terms t;
        const terms::Read read = terms::read(
            checked.rule, t, [](const lang::Function& f, bool depends) { return !depends || f.file.empty(); });
        if (t.size() > terms::most_terms)
            return false;
        // What comes in is what is written about.
        std::array<terms::TermId, 4> out = read.out;
        for (std::uint32_t c = 0; c < 4; ++c)
            for (terms::TermId& channel : out)
                channel = t.replaced(channel, t.channel(c), t.given(c));
        const terms::TermId colour = t.construct(lang::vec3_type, {out[0], out[1], out[2]});
        if (t.written_size(colour) > 20'000)
            return false;
        std::string statements = terms::statements(t, colour, out[3], terms::names_of(checked.rule));
        if (!statements.empty() && statements.back() == '\n')
            statements.pop_back();
        const std::string text = without(spans, 0, spans.size() - 1, statements);
        if (words_in(text) > worth_it * made_.after)
            return false;
        return take(lang::formatted(text).value_or(text), said("the statements are put into each other"));
    }

    const Options& options_;
    CancelToken cancel_;
    std::optional<subject::Subject> original_;
    Shorter made_;
};

} // namespace

Result<Shorter> simplified(std::string_view text, const Options& options, const CancelToken& cancel) {
    return Simplifying(text, options, cancel).run();
}

} // namespace kasuri::simplify
