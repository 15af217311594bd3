#pragma once
#include "colour/model.hpp"
#include "ir/graph.hpp"
#include "lang/signature.hpp"

#include <initializer_list>
#include <span>
#include <string_view>
#include <vector>

namespace kasuri::builtins {

/// How arguments and result relate.
enum class Form {
    componentwise, ///< gen ... -> gen, each component by itself
    reducing,      ///< gen ... -> float
    widening,      ///< gen ... -> gen, all components together
    vec3s,         ///< vec3 ... -> vec3
    truth,         ///< float -> bool
    to_model,      ///< vec3 -> a colour model
    from_model,    ///< a colour model -> vec3
};

/// A worked case: flat argument values and flat result.
struct Case {
    std::vector<double> arguments; ///< floats only: every argument has one component
    double result;
};

/// One row: everything there is to know about a function of the language.
/// Componentwise rows and `truth` give the two scalar functions, the others the two whole ones;
/// reference and lowering are written independently (the ladder of trust).
struct Builtin {
    std::string_view name;
    std::vector<std::string_view> parameters;
    Form form = Form::componentwise;
    std::string_view doc;
    std::string_view source;     ///< where the definition comes from
    double tolerance = 5e-6;     ///< fast path against reference, relative to max(1, |result|), for |arguments| <= 4
    std::vector<Case> cases;     ///< checked in tests against reference and fast path

    double (*reference)(const double* x) = nullptr;
    ir::NodeId (*lowering)(ir::Graph& g, const ir::NodeId* x) = nullptr;
    void (*whole_reference)(int width, const double* const* x, double* result) = nullptr;
    void (*whole_lowering)(ir::Graph& g, int width, const ir::NodeId* const* x, ir::NodeId* result) = nullptr;
    const colour::Model* model = nullptr;
};

/// All functions, in the order of vocabulary().functions.
std::span<const Builtin> all();

/// What the type checker needs to know: functions, models, spaces. Proof names are left empty.
const lang::Vocabulary& vocabulary();

/// Applies a row to values of `width` components (3 where the form fixes it).
void evaluate(const Builtin& row, int width, const double* const* arguments, double* result);
void lower(const Builtin& row, ir::Graph& graph, int width, const ir::NodeId* const* arguments, ir::NodeId* result);

// The families; each is one file.
std::vector<Builtin> arithmetic();
std::vector<Builtin> shaping();
std::vector<Builtin> geometry();
std::vector<Builtin> conversions();

} // namespace kasuri::builtins
