#pragma once
#include "base/span.hpp"
#include "lang/signature.hpp"
#include "lang/syntax.hpp"

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace kasuri::lang {

using TypedId = std::uint32_t;

enum class TypedKind {
    constant,  ///< number
    input,     ///< index: an Input of input_table()
    parameter, ///< index: into Rule::parameters
    local,     ///< index: into Rule::locals; its value at this point of the rule
    output,    ///< out as it is at this point
    construct, ///< components of the arguments side by side (a mat3 by rows)
    spread,    ///< one float as every component
    diagonal,  ///< one float on the diagonal of a mat3
    swizzle,   ///< chosen components of the argument
    unary, binary, choice,
    call,      ///< index: into Vocabulary::functions
};

/// A node of the typed tree. Every type is known; argument types fit.
struct Typed {
    TypedKind kind{};
    Type type;
    Span span;
    std::vector<TypedId> args;
    double number = 0;
    std::uint32_t index = 0;
    Operator op = Operator::none;
    std::array<std::uint8_t, 4> swizzle{}; ///< width(type) of them count
};

/// The inputs that a rule can name.
enum class InputName : std::uint32_t { r, g, b, a, rgb, rgba, pos, pixel, aspect };
struct InputRow {
    InputName which;
    std::string_view name;
    Type type;
    std::string_view doc;
};
std::span<const InputRow> input_table();

struct Parameter {
    std::string name;
    double value = 0; ///< the default
    double low = 0;
    double high = 1;
    double step = 0.01;
    std::string description;
    Span span;         ///< of the whole statement
    Span name_span;
    Span default_span;
};

struct Local {
    std::string name;
    Type type;
    Span name_span;
};

struct Preset {
    std::string name;
    std::vector<double> values; ///< one per parameter; those it does not name have their default
    Span span;
};

struct ProofLine {
    std::string title;
    std::string function;
    std::optional<double> limit;
    Span span;
};

/// What a step writes: out, or a local; whole, or some components.
struct Step {
    bool to_output = false;
    std::uint32_t local = 0;
    bool whole = true;
    int count = 0;                           ///< components written when not whole
    std::array<std::uint8_t, 4> components{};
    TypedId value = 0;
    Span span;
};

/// A rule that has been checked: immutable, and without errors if `check` reported none.
struct Rule {
    std::string title;
    std::string note;
    std::string working; ///< empty: the default space
    std::vector<Parameter> parameters;
    std::vector<Preset> presets;
    std::vector<ProofLine> proofs;
    std::vector<Local> locals;
    std::vector<Typed> exprs;
    std::vector<Step> steps;
    std::optional<TypedId> print; ///< what the command line was asked to print instead of out
};

} // namespace kasuri::lang
