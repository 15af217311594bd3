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
    source,    ///< index: into Rule::sources; that picture at this pixel
    parameter, ///< index: into Rule::parameters
    local,     ///< index: into Body::locals; its value at this point of the body
    output,    ///< out as it is at this point
    construct, ///< components of the arguments side by side (a mat3 by rows)
    spread,    ///< one float as every component
    diagonal,  ///< one float on the diagonal of a mat3
    swizzle,   ///< chosen components of the argument
    unary,
    binary,
    choice,
    call,   ///< index: into Vocabulary::functions
    invoke, ///< index: into Body::callees
};

/// A node of the typed tree. Every type is known; argument types fit.
struct Typed {
    TypedKind kind{};
    Type type;
    Rate rate = Rate::constant;
    std::uint32_t depends = 0; ///< in a function: bits of the parameters that it is computed from
    Span span;
    Operands args;
    double number = 0;
    std::uint32_t index = 0;
    Operator op = Operator::none;
    std::array<std::uint8_t, 4> swizzle{}; ///< width(type) of them count
};

/// The inputs that a rule can name.
enum class InputName : std::uint32_t { r, g, b, a, rgb, rgba, pos, pixel, aspect, extent };
struct InputRow {
    InputName which;
    std::string_view name;
    Type type;
    Rate rate;
    std::string_view doc;
};
std::span<const InputRow> input_table();

enum class ParameterKind {
    number, ///< any number of its range
    whole,  ///< whole numbers
    toggle, ///< 0 off, 1 on; a bool in the rule
    choice, ///< the number of an option, from 0
    colour, ///< one of the three numbers of a colour: they follow each other and are named NAME.r, NAME.g, NAME.b
};

/// One number that the user sets.
struct Parameter {
    std::string name;
    ParameterKind kind = ParameterKind::number;
    double value = 0; ///< the default
    double low = 0;
    double high = 1;
    double step = 0.01;
    std::vector<std::string> options; ///< of a choice
    std::string description;
    Span span; ///< of the whole statement
    Span name_span;
    Span default_span; ///< of what stands for this number in the text
};

/// The value as the language writes it: 0.25, true, the name of an option.
std::string value_text(const Parameter& parameter, double value);
/// What value_text writes, read again; also on and off for a toggle.
std::optional<double> parse_value(const Parameter& parameter, std::string_view text);
/// The nearest value that the parameter can have: in its range, whole where it must be.
double allowed_value(const Parameter& parameter, double value);

struct Local {
    std::string name;
    Type type;
    Span name_span;
};

/// What a step writes: out, or a local; whole, or some components.
struct Step {
    bool to_output = false;
    std::uint32_t local = 0;
    bool whole = true;
    int count = 0; ///< components written when not whole
    std::array<std::uint8_t, 4> components{};
    TypedId value = 0;
    Span span;
    bool hold_hue = false;             ///< out is turned until the colour `value` has its hue again
    const ModelShape* model = nullptr; ///< in this model; null: about the axis r = g = b
};

/// Steps in the order of work, with what they name.
struct Body {
    std::vector<Local> locals;
    std::vector<Typed> exprs;
    std::vector<Step> steps;
    std::vector<FunctionPtr> callees;
    std::size_t weight = 0; ///< scalar operations when every call is written out
    std::size_t held = 0;   ///< of those, what colours whose hue is held go through
    std::size_t stages = 0; ///< neighbourhood functions when every call is written out
};

/// A function of the rule, of another file or of the prelude. Its parameters are its first locals.
struct Function : Body {
    std::string name;
    std::string file;             ///< empty: the rule's own text
    std::string doc;              ///< the comment above it
    std::string text;             ///< as it is written
    std::vector<Slot> parameters; ///< never gen
    TypedId result = 0;
    Type type;
    Span name_span;
};

/// "soften(x float, amount float) float"
std::string shown(const Function& function);
/// "amount float"
std::string shown_parameter(const Function& function, std::size_t index);

/// A further picture, or a column of numbers, that the rule reads by name.
struct SourceInput {
    std::string name;
    Type type; ///< float, vec3 or vec4
    std::string description;
    Span span;
    bool column = false; ///< given from outside, not by the text
    /// What it reads: a picture of its own; the picture as it came in, before the first step; what an earlier step
    /// made.
    enum class Reads { own, picture, step } reads = Reads::own;
    std::string step{}; ///< label of that step
    int channel = -1;   ///< of a float that reads a colour: 0 to 3
};

/// Whether it is a picture that somebody has to bring.
inline bool is_external(const SourceInput& source) { return source.reads == SourceInput::Reads::own; }

struct Preset {
    std::string name;
    std::vector<double> values; ///< one per parameter; those it does not name have their default
    Span span;
};

struct Rule;

/// A promise: a ready-made proof function with a limit, or a condition on every pixel of a target.
struct ProofLine {
    std::string title;
    std::string function;        ///< empty: a condition
    std::optional<double> limit; ///< of a function
    Span span;
    std::string target{};                         ///< empty: where it is not said
    std::vector<std::array<double, 3>> colours{}; ///< instead of a target
    std::optional<TypedId> condition{};
    std::optional<TypedId> figure{}; ///< of a condition that compares: its left side
    std::optional<TypedId> bound{};  ///< and its right side
    Operator relation = Operator::none;
    std::string text{};                  ///< the condition as it is written
    std::shared_ptr<const Rule> other{}; ///< the filter that a function compares with
    std::string file{};                  ///< its name
    bool offered = false;                ///< nobody wrote it: what could be promised
};

/// A rule that has been checked: immutable, and without errors if `check` reported none.
struct Rule : Body {
    std::string title;
    std::string note;
    std::string tags;    ///< words to find it by, parted by commas
    std::string working; ///< empty: the default space
    std::vector<Parameter> parameters;
    std::vector<Preset> presets;
    std::vector<ProofLine> proofs;
    std::vector<SourceInput> sources;
    std::vector<FunctionPtr> functions; ///< own ones and those of used files
    std::optional<TypedId> print;       ///< what was asked to be shown instead of, or beside, out
};

} // namespace kasuri::lang
