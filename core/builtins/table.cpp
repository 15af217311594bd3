#include "builtins/builtin.hpp"
#include "builtins/model_types.hpp"
#include "builtins/prelude.hpp"
#include "builtins/row.hpp"
#include "colour/conversion.hpp"
#include "lang/check.hpp"

#include <algorithm>
#include <atomic>
#include <cstdio>
#include <cstdlib>
#include <memory>
#include <mutex>

namespace kasuri::builtins {

std::vector<Builtin> arithmetic(), shaping(), curves(), geometry(), light(), masks(), codes(), blend(), compose(),
    neighbours(), conversions(), encodings(), space_functions(), adaptation(), measures(), vision(), video();

namespace {

/// The most arguments of a componentwise function.
constexpr std::size_t max_scalars = 8;

constexpr Family families[] = {
    {"Arithmetic", arithmetic},
    {"Steps and mixtures", shaping},
    {"Curves", curves},
    {"Vectors and matrices", geometry},
    {"Light and grey", light},
    {"Zones, bands and shapes", masks},
    {"Code values", codes},
    {"Blend modes", blend},
    {"Compositing", compose},
    {"Neighbourhoods", neighbours},
    {"Colour models", conversions},
    {"Transfer functions", encodings},
    {"Signals and displays", video},
    {"Spaces", space_functions},
    {"White balance", adaptation},
    {"Colour differences", measures},
    {"Other eyes", vision},
};

std::vector<Builtin> gathered() {
    std::vector<Builtin> rows;
    for (const Family& family : families)
        for (Builtin& row : family.rows()) {
            row.family = family.title;
            rows.push_back(std::move(row));
        }
    return rows;
}

/// What a colour config brought along, behind all others: rules that were checked before know rows by their places. One
/// that is gone has no name.
Builtin row_of(const colour::KnownConversion& known) {
    Rows rows;
    const ir::External* const code = known.conversion->code.get();
    Builtin& row = rows.typed(
        known.listed ? std::string_view(known.conversion->name) : std::string_view(), {"numbers"},
        {lang::exactly(lang::vec3_type)}, lang::exactly(lang::vec3_type), known.conversion->doc,
        known.conversion->source, {},
        [code](Shape, const double* const* x, double* r) {
            const auto made = ir::applied(*code, x[0]);
            std::copy(made.begin(), made.end(), r);
        },
        [code](ir::Graph& g, Shape, const ir::NodeId* const* x, ir::NodeId* r) {
            const auto made = g.external(*code, {x[0][0], x[0][1], x[0][2]});
            std::copy(made.begin(), made.end(), r);
        });
    row.family = "Of the colour config";
    return std::move(row);
}

/// Everything that vocabulary() points into; never changed, and kept when others follow it.
struct Tables {
    std::uint64_t generation = colour::conversions_generation(); // before they are gathered
    std::vector<Builtin> rows = gathered();
    std::vector<lang::Signature> signatures;
    std::vector<std::string_view> spaces, linear;
    std::vector<lang::FunctionPtr> prelude;
    lang::Vocabulary vocabulary;

    Tables() {
        for (const colour::KnownConversion& known : colour::known_conversions())
            rows.push_back(row_of(known));
        for (const Builtin& row : rows)
            signatures.push_back(signature(row));
        for (const colour::Space& space : colour::spaces()) {
            spaces.push_back(space.name);
            if (space.transfer == "linear")
                linear.push_back(space.name);
        }
        vocabulary.functions = signatures;
        vocabulary.models = model_shapes();
        vocabulary.spaces = spaces;
        vocabulary.linear_spaces = linear;
        vocabulary.knows_space = [](std::string_view name) {
            const colour::Space* space = colour::find_space(name);
            return space != nullptr && !space->is_view;
        };
        vocabulary.further_spaces = colour::added_spaces;
        lang::CheckedFunctions written = lang::check_functions(prelude_source, "prelude", vocabulary);
        for (const lang::Diagnostic& d : written.diagnostics) { // a mistake of ours: no rule could be trusted
            std::fprintf(stderr, "%s\n", lang::rendered(d, prelude_source, "prelude.kasuri").c_str());
            std::abort();
        }
        prelude = std::move(written.functions);
        vocabulary.prelude = prelude;
    }

    lang::Signature signature(const Builtin& row) const {
        lang::Signature made;
        made.name = row.name;
        made.parameter_names = row.parameters;
        made.doc = row.doc;
        made.variadic = row.variadic;
        made.neighbourhood = row.form == Form::neighbourhood;
        made.parameters = row.takes;
        made.result = row.gives;
        switch (row.form) {
        case Form::componentwise:
        case Form::widening: made.parameters.assign(row.parameters.size(), lang::gen); break;
        case Form::reducing:
            made.parameters.assign(row.parameters.size(), lang::gen);
            made.result = lang::exactly(lang::float_type);
            break;
        case Form::typed:
        case Form::of_space:
        case Form::neighbourhood: break;
        }
        return made;
    }
};

const Tables& tables() {
    static std::mutex mutex;
    static std::vector<std::unique_ptr<const Tables>> all; // rules may point into each of them
    static std::atomic<const Tables*> latest{nullptr};
    if (const Tables* const known = latest; known && known->generation == colour::conversions_generation())
        return *known;
    const std::lock_guard lock(mutex);
    if (const Tables* const known = latest; known && known->generation == colour::conversions_generation())
        return *known;
    all.push_back(std::make_unique<const Tables>());
    latest = all.back().get();
    return *all.back();
}

} // namespace

std::span<const Builtin> all() { return tables().rows; }

const lang::Vocabulary& vocabulary() { return tables().vocabulary; }

std::string_view prelude_text() { return prelude_source; }

void evaluate(const Builtin& row, const colour::Space& space, Shape shape, const double* const* arguments,
              double* result) {
    switch (row.form) {
    case Form::componentwise:
        for (int i = 0; i < shape.width; ++i) {
            double x[max_scalars] = {};
            for (std::size_t k = 0; k < row.parameters.size(); ++k)
                x[k] = arguments[k][i];
            result[i] = row.reference(x);
        }
        return;
    case Form::of_space: row.space_reference(space, arguments, result); return;
    case Form::reducing:
    case Form::widening:
    case Form::typed: row.whole_reference(shape, arguments, result); return;
    case Form::neighbourhood: return; // needs the whole picture
    }
}

void lower(const Builtin& row, const colour::Space& space, ir::Graph& graph, Shape shape,
           const ir::NodeId* const* arguments, ir::NodeId* result) {
    switch (row.form) {
    case Form::componentwise:
        for (int i = 0; i < shape.width; ++i) {
            ir::NodeId x[max_scalars] = {};
            for (std::size_t k = 0; k < row.parameters.size(); ++k)
                x[k] = arguments[k][i];
            result[i] = row.lowering(graph, x);
        }
        return;
    case Form::of_space: row.space_lowering(graph, space, arguments, result); return;
    case Form::reducing:
    case Form::widening:
    case Form::typed: row.whole_lowering(graph, shape, arguments, result); return;
    case Form::neighbourhood:
        for (int i = 0; i < shape.width; ++i) {
            const ir::NodeId seen = graph.neighbourhood(row.neighbour, arguments[0][i], arguments[1][0]);
            result[i] = row.unsharp
                ? graph.add(arguments[0][i], graph.mul(arguments[2][0], graph.sub(arguments[0][i], seen)))
                : seen;
        }
        return;
    }
}

} // namespace kasuri::builtins
