#pragma once
#include "base/span.hpp"
#include "lang/rule.hpp"

#include <array>
#include <cstdint>
#include <deque>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::terms {

using TermId = std::uint32_t;

enum class TermKind : std::uint8_t {
    number,    ///< also of a bool: 0 or 1
    channel,   ///< index: r, g, b or a of what comes into the rule
    given,     ///< index: r, g, b or a of another colour, that of the statements that are written
    name,      ///< text: a parameter, a further picture, pos, aspect ...
    construct, ///< one float for each component
    spread,    ///< one float as every component
    diagonal,  ///< one float on the diagonal of a mat3
    swizzle,   ///< some components of a value
    unary,
    binary,
    choice,
    call,   ///< index: into builtins::all()
    invoke, ///< text: a function of the language that is kept as a call
};

/// A part of an expression.
struct Term {
    TermKind kind{};
    lang::Type type{};
    std::vector<TermId> args{};
    double number = 0;
    std::uint32_t index = 0;
    lang::Operator op = lang::Operator::none;
    std::array<std::uint8_t, 4> swizzle{}; ///< width(type) of them count
    std::string text{};
};

/// What is known of a part beside its value.
struct Origin {
    std::string name{};         ///< that the author gave it; may be empty
    std::optional<Span> span{}; ///< where it was first written, in the rule's own text
};

/// Expressions that share what is equal in them. What is obvious is simplified as it is made: numbers are worked out,
/// sums with 0 and products with 1 and 0 vanish, multiples of one value are added up. A part's own parts come before
/// it. This is algebra of real numbers: what NaN, infinities and rounding would do differently does not count.
class Terms {
public:
    TermId number(double value);
    TermId truth(bool value);
    TermId channel(std::uint32_t index);
    TermId given(std::uint32_t index);
    TermId name(std::string text, lang::Type type);
    /// As many floats as the type has components; one type of vector, model or matrix.
    TermId construct(lang::Type type, std::vector<TermId> components);
    TermId spread(lang::Type type, TermId scalar);
    TermId diagonal(TermId scalar);
    /// One component, as a float; several, as a vector. A component of what works component by component is that of its
    /// operands; a vector of all of them is the whole again.
    TermId component(TermId of, std::size_t which);
    /// Vectors, colours and the like of which this float is known to be a component.
    const std::vector<TermId>& wholes(TermId component) const;
    TermId swizzle(TermId of, lang::Type type, std::array<std::uint8_t, 4> places);
    TermId unary(lang::Operator op, TermId of);
    TermId binary(lang::Operator op, lang::Type type, TermId a, TermId b);
    TermId choice(TermId condition, TermId yes, TermId no);
    TermId call(std::uint32_t builtin, lang::Type type, std::vector<TermId> args);
    TermId invoke(std::string function, lang::Type type, std::vector<TermId> args);
    /// The builtin of this name that takes these types. It must exist.
    TermId call(std::string_view name, lang::Type type, std::vector<TermId> args);

    // Arithmetic by name; the type is that of the wider operand.
    TermId add(TermId a, TermId b);
    TermId sub(TermId a, TermId b);
    TermId mul(TermId a, TermId b);
    TermId div(TermId a, TermId b);
    TermId neg(TermId a) { return unary(lang::Operator::neg, a); }

    const Term& operator[](TermId id) const { return terms_[id]; }
    std::size_t size() const { return terms_.size(); }
    /// How many parts it has when each is written out wherever it stands.
    double written_size(TermId id) const { return sizes_[id]; }
    int width(TermId id) const { return lang::width(terms_[id].type); }
    /// Whether a channel of what comes into the rule has a part in it.
    bool depends(TermId id) const { return depends_[id]; }
    /// Whether it is this number, in every component.
    bool is_number(TermId id, double value) const;
    std::optional<double> number_of(TermId id) const;

    /// The same part with other parts.
    TermId rebuilt(TermId id, std::vector<TermId> args);
    /// With `by` wherever `what` stands.
    TermId replaced(TermId in, TermId what, TermId by);

    Origin& origin(TermId id) { return origins_[id]; }
    const Origin& origin(TermId id) const { return origins_[id]; }

private:
    TermId intern(Term term);
    std::optional<TermId> arithmetic(lang::Operator op, lang::Type type, TermId a, TermId b);
    std::optional<TermId> merged(lang::Operator op, TermId a, TermId b);
    std::pair<TermId, double> multiple(TermId id);
    std::optional<TermId> apart(TermId of, std::size_t which);

    std::deque<Term> terms_; // parts stay where they are as others come
    std::deque<Origin> origins_;
    std::vector<bool> depends_;
    std::vector<double> sizes_;
    std::map<std::string, TermId> known_;
    std::map<TermId, std::vector<TermId>> apart_;  ///< what was taken apart
    std::map<std::vector<TermId>, TermId> whole_;  ///< of components that were taken apart
    std::map<TermId, std::vector<TermId>> wholes_; ///< the same, by one component
};

/// The most parts of a rule that is worked on as terms: beyond, it would take minutes, and go deeper than a stack.
inline constexpr std::size_t most_terms = 4000;

/// A rule as terms: what comes out, r, g, b and a, in its working space. Functions of the language are written out but
/// for those of which `keeps` says that their calls stay; without it those that no channel has a part in (`depends`).
struct Read {
    std::array<TermId, 4> out{};
};
using Keeps = std::function<bool(const lang::Function& function, bool depends)>;
Read read(const lang::Rule& rule, Terms& terms, const Keeps& keeps = {});

/// Names that a rule gives, which statements written for it must not use again: parameters, sources, functions.
std::vector<std::string> names_of(const lang::Rule& rule);

/// Statements that make `rgb` and, where it is not the given alpha, `alpha`: with lets for what is used more than once
/// or has a name, `taken` names that must not be used again. The given channels are written r, g, b, a.
std::string statements(Terms& terms, TermId rgb, TermId alpha, const std::vector<std::string>& taken);
/// A number as short as it can be written and be the same.
std::string number_text(double value);
/// One expression, with nothing named; "..." for one of more than 2000 parts.
std::string expression(const Terms& terms, TermId id);

} // namespace kasuri::terms
