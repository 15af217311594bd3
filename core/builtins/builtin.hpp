#pragma once
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "ir/graph.hpp"
#include "lang/signature.hpp"

#include <functional>
#include <initializer_list>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::builtins {

/// How arguments and result relate.
enum class Form {
    componentwise, ///< gen ... -> gen, each component by itself
    reducing,      ///< gen ... -> float
    widening,      ///< gen ... -> gen, all components together
    typed,         ///< the types of `takes` -> `gives`
    of_space,      ///< the same, and the meaning depends on the working space
    neighbourhood, ///< gen and numbers per picture -> gen, looking at other pixels
};

/// A worked case: flat argument values and the first number of the result.
struct Case {
    std::vector<double> arguments; ///< every argument has the width of its type, gen has one component
    double result;
};

/// How many components a gen argument has, and how many arguments there are.
struct Shape {
    int width = 1;
    int count = 0;
};

/// One row: everything there is to know about a function of the language.
/// Componentwise rows give the two scalar functions, the others the two whole ones; reference and lowering are
/// written independently (the ladder of trust).
struct Builtin {
    std::string name;
    std::vector<std::string_view> parameters;
    Form form = Form::componentwise;
    std::string doc;
    std::string_view source;       ///< where the definition comes from
    std::string_view family = {};  ///< heading in docs/builtins.md; filled in by the table
    double tolerance = 5e-6;       ///< fast path against reference, relative to max(1, |result|), for |arguments| <= 4
    bool jumps = false;            ///< float and double may fall on different sides of a jump
    std::vector<Case> cases;       ///< checked in tests against reference and fast path
    std::vector<lang::Slot> takes; ///< of typed and of_space
    lang::Slot gives = lang::gen;  ///< of typed and of_space
    bool variadic = false;         ///< the last argument may come again
    ir::Neighbour neighbour{};     ///< of neighbourhood
    bool unsharp = false;          ///< of neighbourhood: x + amount (x - blurred x), amount being the last argument

    using ScalarReference = std::function<double(const double* x)>;
    using ScalarLowering = std::function<ir::NodeId(ir::Graph& g, const ir::NodeId* x)>;
    using WholeReference = std::function<void(Shape shape, const double* const* x, double* result)>;
    using WholeLowering =
        std::function<void(ir::Graph& g, Shape shape, const ir::NodeId* const* x, ir::NodeId* result)>;
    using SpaceReference = std::function<void(const colour::Space& space, const double* const* x, double* result)>;
    using SpaceLowering =
        std::function<void(ir::Graph& g, const colour::Space& space, const ir::NodeId* const* x, ir::NodeId* result)>;
    ScalarReference reference{};
    ScalarLowering lowering{};
    WholeReference whole_reference{};
    WholeLowering whole_lowering{};
    SpaceReference space_reference{};
    SpaceLowering space_lowering{};
    const colour::Model* model = nullptr; ///< of conversions to and from it
    const colour::Space* space = nullptr; ///< of conversions to and from it
};

/// All functions, in the order of vocabulary().functions.
std::span<const Builtin> all();

/// What the type checker needs to know: functions, models, spaces, prelude. Proofs and targets are left empty.
const lang::Vocabulary& vocabulary();

/// The text of the functions that are written in the language itself.
std::string_view prelude_text();

/// Applies a row to values; `shape.width` components for gen. Not for neighbourhoods, which need a whole picture.
void evaluate(const Builtin& row, const colour::Space& space, Shape shape, const double* const* arguments,
              double* result);
void lower(const Builtin& row, const colour::Space& space, ir::Graph& graph, Shape shape,
           const ir::NodeId* const* arguments, ir::NodeId* result);

/// docs/builtins.md, and docs/colour.md: what comes from the tables of core/colour.
std::string documentation();
std::string colour_documentation();

/// A family: one file and one line in table.cpp.
struct Family {
    std::string_view title;
    std::vector<Builtin> (*rows)();
};

} // namespace kasuri::builtins
