#include "look/make.hpp"

#include "base/digest.hpp"
#include "base/file.hpp"
#include "base/text.hpp"
#include "builtins/builtin.hpp"
#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "io/lut_file.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <mutex>

namespace kasuri::look {
namespace {

std::string first_fault(const std::vector<lang::Diagnostic>& diagnostics, std::string_view text) {
    for (const lang::Diagnostic& d : diagnostics)
        if (d.severity == lang::Severity::error) {
            const LineColumn place = line_column(text, d.span.begin);
            return said("line {}, column {}: {}", place.line, place.column,
                        fmt::format("{} {}", lang::row(d.code).id, lang::message(d)));
        }
    return {};
}

constexpr const char* mask_help = "A mask is an expression such as smoothstep(0.2, 0.6, luminance(rgb)).";

/// The code of a LUT, made once for its content as long as somebody uses it.
Result<std::shared_ptr<const ir::External>> lut_of(const document::LookStep& step) {
    static std::mutex mutex;
    static std::map<std::string, std::weak_ptr<const ir::External>> known;
    Digest content;
    content.add(step.lut_text.text());
    const std::string key = content.text() + step.lut + (step.trilinear ? "/trilinear" : "");
    const std::lock_guard lock(mutex);
    if (const auto found = known.find(key); found != known.end())
        if (auto table = found->second.lock())
            return table;
    std::erase_if(known, [](const auto& entry) { return entry.second.expired(); });
    auto read = io::read_lut(step.lut_text.text(), step.lut, step.filter,
                             step.trilinear ? io::Interpolation::trilinear : io::Interpolation::tetrahedral);
    if (read)
        known[key] = read.value();
    return read;
}

/// Makes the steps of a look, and of looks within it.
struct Maker {
    const std::filesystem::path& folder;
    bool lenient = false;
    CancelToken cancel{}; ///< then what there is does not matter
    std::shared_ptr<subject::Chain> chain = std::make_shared<subject::Chain>();
    Made made{};

    void compare(const document::LookStep& step, const std::string& where) {
        switch (document::state_of(step, folder)) {
        case document::FilterState::changed:
            made.notes.push_back(said("{}: {} says something else now; the look has its own copy", where, step.filter));
            break;
        case document::FilterState::gone:
            made.notes.push_back(said("{}: {} cannot be read; the look has its own copy", where, step.filter));
            break;
        default: break;
        }
    }

    /// The steps among which one stands, and where in the chain what each of them has made is found.
    struct Among {
        const std::vector<document::LookStep>& steps;
        std::size_t at = 0;         ///< the one that is being made
        std::vector<int> results{}; ///< of those before it
    };

    /// Which steps the sources of a rule read. The error says why one cannot.
    Result<std::vector<int>> look_back(const lang::Rule& rule, const Among& among, const std::string& where) {
        std::vector<int> reads;
        for (const lang::SourceInput& source : rule.sources) {
            reads.push_back(engine::ChainStep::before_all);
            if (source.reads != lang::SourceInput::Reads::step)
                continue;
            const auto is_called = [&](std::size_t i) { return among.steps[i].label == source.step; };
            std::size_t found = among.steps.size();
            for (std::size_t i = 0; i < among.steps.size(); ++i)
                if (is_called(i) && (found == among.steps.size() || i < among.at)) // the nearest one before it
                    found = i;
            if (found == among.steps.size())
                if (const std::optional<double> number = parse_number(source.step);
                    number && *number >= 1 && *number <= static_cast<double>(among.steps.size()))
                    found = static_cast<std::size_t>(*number) - 1;
            const std::string who = said("its source {}", source.name);
            if (found == among.steps.size())
                return Error{said("{} reads the step \"{}\", and there is none of that label", who, source.step), where,
                             said("Labels are: {}.", labels(among.steps))};
            if (found >= among.at)
                return Error{said("{} reads the step \"{}\", which {}", who, source.step,
                                  found == among.at ? said("is this step itself") : said("comes later")),
                             where, "A step has made nothing yet before it is its turn: read an earlier one."};
            reads.back() = among.results[found];
        }
        return reads;
    }

    static std::string labels(const std::vector<document::LookStep>& steps) {
        std::vector<std::string> all;
        for (const document::LookStep& step : steps)
            if (!step.label.empty())
                all.push_back(step.label);
        return all.empty() ? "none" : fmt::format("{}", fmt::join(all, ", "));
    }

    Status add(const document::LookStep& step, const std::string& where, const Among& among,
               std::vector<engine::ChainStep>& to) {
        if (!lenient)
            compare(step, where);
        if (!engine::is_blend(step.blend))
            return Error{said("there is no blend mode {}", step.blend), where,
                         "The modes are the language's blend functions, without blend_ before them."};
        engine::ChainStep chained;
        if (step.is_look) {
            if (const Status within = add_all(step.within, where + ", ", chained.within); !within)
                return within;
            if (chained.within.empty())
                return {}; // nothing of nothing
        } else if (!step.lut.empty()) {
            if (!colour::find_space(step.space))
                return Error{said("there is no space {}", step.space), where,
                             "The space of a LUT's numbers is one that a rule can work in."};
            const Result<std::shared_ptr<const ir::External>> lut = lut_of(step);
            if (!lut)
                return Error{said("its LUT {}", translated(lut.error().what)), where, lut.error().remedy};
            chained.external = chain->tables.emplace_back(lut.value()).get();
            chained.space = chain->words.emplace_back(step.space);
        } else {
            lang::CheckOptions options;
            options.open = document::used_by(step, folder);
            options.proofs = false; // their vocabulary is not known here, and nothing is proved
            lang::Checked checked = lang::check(step.text, builtins::vocabulary(), options);
            if (!checked.ok)
                return Error{said("its rule: {}", first_fault(checked.diagnostics, step.text)), where, ""};
            const lang::Rule& rule = chain->rules.emplace_back(std::move(checked.rule));
            chained.rule = &rule;
            Result<std::vector<int>> reads = look_back(rule, among, where);
            if (!reads)
                return reads.error();
            chained.rule_reads = std::move(reads.value());
        }
        if (!step.mask.empty()) {
            Result<lang::Rule> masking = mask_rule(step, engine::space_of(chained), where);
            if (!masking)
                return masking.error();
            chained.mask = &chain->rules.emplace_back(std::move(masking.value()));
            Result<std::vector<int>> reads = look_back(*chained.mask, among, where);
            if (!reads)
                return Error{said("its mask: {}", translated(reads.error().what)), reads.error().where,
                             reads.error().remedy};
            chained.mask_reads = std::move(reads.value());
        }
        chained.blend = chain->words.emplace_back(step.blend);
        chained.mask_inverted = step.mask_inverted;
        chained.opaque = step.opacity == 1;
        to.push_back(std::move(chained));
        return {};
    }

    Status add_all(const std::vector<document::LookStep>& steps, const std::string& before,
                   std::vector<engine::ChainStep>& to) {
        Among among{steps};
        for (std::size_t i = 0; i < steps.size() && !cancel.cancelled(); ++i) {
            among.at = i;
            const std::string& name = steps[i].label.empty() ? steps[i].filter : steps[i].label;
            const std::size_t count = to.size();
            const bool mine = &to == &chain->steps;
            if (steps[i].on) {
                const std::string where = said("{}step {}{}", before, i + 1, name.empty() ? "" : " (" + name + ")");
                const Status added = add(steps[i], where, among, to);
                if (!added && !(lenient && mine))
                    return added;
                if (!added)
                    made.faults.emplace_back(i, added.error());
            }
            // One that is off, or left out, has made what came into it.
            among.results.push_back(static_cast<int>(to.size()) - 1);
            if (mine && to.size() > count)
                made.numbers.push_back(i);
        }
        return {};
    }
};

} // namespace

Result<lang::Rule> mask_rule(const document::LookStep& step, std::string_view working, const std::string& where,
                             bool as_it_counts) {
    const std::size_t last = step.mask.find_last_not_of(" \t\n");
    const std::string whole = last == std::string::npos ? std::string() : step.mask.substr(0, last + 1);
    const std::size_t line = whole.rfind('\n');
    std::string text = working.empty() ? std::string() : fmt::format("working {}\n", working);
    if (line != std::string::npos)
        text += whole.substr(0, line + 1);
    const std::string expression = line == std::string::npos ? whole : whole.substr(line + 1);
    std::string print = expression;
    if (step.mask_grow != 0)
        print = fmt::format("{}({}, {})", step.mask_grow > 0 ? "dilate" : "erode", print, std::fabs(step.mask_grow));
    if (step.mask_soften > 0)
        print = fmt::format("blur({}, {})", print, step.mask_soften);
    if (as_it_counts && step.mask_inverted)
        print = fmt::format("1.0 - ({})", print);
    lang::CheckOptions with;
    with.proofs = false;
    with.print = expression;
    lang::Checked checked = lang::check(text, builtins::vocabulary(), with); // as it was written: its faults are meant
    if (!checked.ok) {
        const bool before = lang::has_error(checked.diagnostics);
        return Error{
            said("its mask: {}",
                 first_fault(before ? checked.diagnostics : checked.print_diagnostics, before ? text : expression)),
            where, mask_help};
    }
    if (checked.rule.exprs[*checked.rule.print].type != lang::float_type)
        return Error{"its mask must be a single number", where, mask_help};
    if (print != expression) {
        with.print = print;
        checked = lang::check(text, builtins::vocabulary(), with);
        if (!checked.ok)
            return Error{said("its mask: {}", first_fault(checked.print_diagnostics, print)), where, mask_help};
    }
    return std::move(checked.rule);
}

namespace {

/// Whether a step is in the chain: those that are off, and looks of nothing, are not.
bool counts(const document::LookStep& step) {
    return step.on && (!step.is_look || std::any_of(step.within.begin(), step.within.end(), counts));
}

void add_parameters(const engine::ChainStep& chained, const document::LookStep& step, std::vector<double>& to) {
    if (chained.rule)
        for (const lang::Parameter& p : chained.rule->parameters) {
            const auto chosen = step.values.find(p.name);
            to.push_back(chosen == step.values.end() ? p.value : lang::allowed_value(p, chosen->second));
        }
    std::size_t next = 0;
    for (const document::LookStep& each : step.within)
        if (counts(each) && next < chained.within.size())
            add_parameters(chained.within[next++], each, to);
    if (!chained.opaque)
        to.push_back(step.opacity);
}

bool same_structure(const std::vector<document::LookStep>& a, const std::vector<document::LookStep>& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const document::LookStep& x, const document::LookStep& y) {
                          return x.on == y.on && x.is_look == y.is_look && (x.opacity == 1) == (y.opacity == 1) &&
                              x.blend == y.blend && x.mask_inverted == y.mask_inverted && x.mask_grow == y.mask_grow &&
                              x.mask_soften == y.mask_soften && x.space == y.space && x.trilinear == y.trilinear &&
                              x.lut == y.lut && x.filter == y.filter && x.mask == y.mask && x.uses == y.uses &&
                              x.text == y.text && x.lut_text == y.lut_text && same_structure(x.within, y.within);
                      });
}

} // namespace

bool same_structure(const document::Look& a, const document::Look& b) { return same_structure(a.steps, b.steps); }

std::vector<double> values_of(const Made& made, const document::Look& look) {
    std::vector<double> values;
    const auto steps = made.subject.steps();
    for (std::size_t i = 0; i < steps.size(); ++i)
        add_parameters(steps[i], look.steps[made.numbers[i]], values);
    return values;
}

namespace {

Made finished(Maker maker, const document::Look& look) {
    for (const std::size_t number : maker.made.numbers)
        maker.chain->numbers.push_back(std::to_string(number + 1));
    maker.chain->finish();
    maker.made.subject =
        subject::Subject(std::move(maker.chain), look.title.empty() ? "A look of Kasuri" : look.title, look.note);
    maker.made.subject = maker.made.subject.at(values_of(maker.made, look));
    return std::move(maker.made);
}

} // namespace

std::optional<Made> make_so_far(const document::Look& look, const std::filesystem::path& folder,
                                const CancelToken& cancel) {
    Maker maker{folder, true, cancel};
    (void)maker.add_all(look.steps, "", maker.chain->steps);
    if (cancel.cancelled())
        return std::nullopt;
    return finished(std::move(maker), look);
}

Result<Made> make(const document::Look& look, const std::filesystem::path& folder) {
    Maker maker{folder};
    if (const Status all = maker.add_all(look.steps, "", maker.chain->steps); !all)
        return all.error();
    return finished(std::move(maker), look);
}

} // namespace kasuri::look
