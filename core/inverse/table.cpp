#include "inverse/table.hpp"

#include "base/said.hpp"
#include "builtins/builtin.hpp"

#include <algorithm>

namespace kasuri::inverse {
namespace {

using Args = std::vector<TermId>;

lang::Type type_of(const Terms& t, TermId id) { return t[id].type; }

/// The function itself with the result in the place of its argument `At`.
TermId call(Terms& t, std::string_view name, TermId result, Args rest = {}) {
    Args args{result};
    args.insert(args.end(), rest.begin(), rest.end());
    return t.call(name, type_of(t, result), std::move(args));
}

template <const char* Name>
TermId other(Terms& t, TermId result, const Args&) {
    return call(t, Name, result);
}
/// Of a function whose further arguments are the same on the way back.
template <const char* Name>
TermId other_with(Terms& t, TermId result, const Args& args) {
    return call(t, Name, result, Args(args.begin() + 1, args.end()));
}
TermId of_function(Terms& t, const char* name, TermId result, Args rest) {
    Args args{result};
    args.insert(args.end(), rest.begin(), rest.end());
    return t.invoke(name, type_of(t, result), std::move(args));
}
TermId itself(Terms&, TermId result, const Args&) { return result; }
TermId one(Terms& t) { return t.number(1); }

constexpr char sqrt_[] = "sqrt", exp_[] = "exp", log_[] = "log", exp2_[] = "exp2", log2_[] = "log2", asinh_[] = "asinh",
               sinh_[] = "sinh", acosh_[] = "acosh", cosh_[] = "cosh", atanh_[] = "atanh", tanh_[] = "tanh",
               atan_[] = "atan", tan_[] = "tan", asin_[] = "asin", sin_[] = "sin", acos_[] = "acos", cos_[] = "cos",
               radians_[] = "radians", degrees_[] = "degrees", polar_[] = "polar", cartesian_[] = "cartesian",
               log_encode[] = "log_encode", log_decode[] = "log_decode", bt1886_display[] = "bt1886_display",
               bt1886_signal[] = "bt1886_signal", hlg_display[] = "hlg_display", hlg_signal[] = "hlg_signal",
               curve_back[] = "curve_back", shoulder_back[] = "shoulder_back", transpose_[] = "transpose",
               inverse_[] = "inverse", narrow_encode[] = "narrow_encode", narrow_decode[] = "narrow_decode",
               narrow_difference_encode[] = "narrow_difference_encode",
               narrow_difference_decode[] = "narrow_difference_decode", bit_not_[] = "bit_not", bit_xor_[] = "bit_xor",
               bradford[] = "adapt_bradford", cat02[] = "adapt_cat02", von_kries[] = "adapt_von_kries",
               scaling[] = "adapt_scaling";

/// A turn from one white to the other is taken back by that from the other to the one.
template <const char* Name>
TermId adapted_back(Terms& t, TermId result, const Args& args) {
    return call(t, Name, result, {args[2], args[1]});
}

constexpr std::string_view below = "what is below 0 there", outside = "what is outside of the limits there",
                           codes = "what lies between code values", beyond = "what is outside of its borders";

const Inverse rows[] = {
    {"sqrt", 0, [](Terms& t, TermId y, const Args&) { return t.mul(y, y); }},
    {"inversesqrt", 0, [](Terms& t, TermId y, const Args&) { return t.div(one(t), t.mul(y, y)); }},
    {"cbrt", 0, [](Terms& t, TermId y, const Args&) { return t.mul(y, t.mul(y, y)); }},
    {"pow", 0, [](Terms& t, TermId y, const Args& x) { return call(t, "pow", y, {t.div(one(t), x[1])}); }, below},
    {"pow", 1, [](Terms& t, TermId y, const Args& x) { return t.div(call(t, "log2", y), call(t, "log2", x[0])); }},
    {"spow", 0, [](Terms& t, TermId y, const Args& x) { return call(t, "spow", y, {t.div(one(t), x[1])}); }},
    {"exp", 0, other<log_>},
    {"log", 0, other<exp_>},
    {"exp2", 0, other<log2_>},
    {"log2", 0, other<exp2_>},
    {"sinh", 0, other<asinh_>},
    {"asinh", 0, other<sinh_>},
    {"acosh", 0, other<cosh_>},
    {"cosh", 0, other<acosh_>, below},
    {"tanh", 0, other<atanh_>},
    {"atanh", 0, other<tanh_>},
    {"tan", 0, other<atan_>, "what is beyond a quarter turn"},
    {"atan", 0, other<tan_>},
    {"sin", 0, other<asin_>, "what is beyond a quarter turn"},
    {"asin", 0, other<sin_>},
    {"cos", 0, other<acos_>, "what is outside of half a turn"},
    {"acos", 0, other<cos_>},
    {"radians", 0, other<degrees_>},
    {"degrees", 0, other<radians_>},
    {"polar", 0, other<cartesian_>},
    {"cartesian", 0, other<polar_>},
    {"transpose", 0, other<transpose_>},
    {"inverse", 0, other<inverse_>},
    {"abs", 0, itself, below},
    {"clamp", 0, itself, outside},
    {"min", 0, itself, outside},
    {"min", 1, itself, outside},
    {"min", 2, itself, outside},
    {"max", 0, itself, outside},
    {"max", 1, itself, outside},
    {"max", 2, itself, outside},
    {"quantise", 0, itself, codes},
    {"bit_not", 0, other_with<bit_not_>, codes},
    {"bit_xor", 0, other_with<bit_xor_>, codes},
    {"smoothstep", 2,
     [](Terms& t, TermId y, const Args& x) { // sin(3 a) = 3 sin a - 4 sin^3 a, solved for the share
         const TermId angle = t.div(call(t, "asin", t.sub(one(t), t.mul(t.number(2), y))), t.number(3));
         const TermId share = t.sub(t.number(0.5), call(t, "sin", angle));
         return t.add(x[0], t.mul(t.sub(x[1], x[0]), share));
     },
     beyond},
    {"curve", 0, other_with<curve_back>},
    {"curve_back", 0,
     [](Terms& t, TermId y, const Args& x) { return call(t, "curve", y, Args(x.begin() + 1, x.end())); }},
    {"shoulder", 0, other_with<shoulder_back>},
    {"shoulder_back", 0,
     [](Terms& t, TermId y, const Args& x) { return call(t, "shoulder", y, Args(x.begin() + 1, x.end())); }},
    {"log_encode", 0, other_with<log_decode>},
    {"log_decode", 0, other_with<log_encode>},
    {"narrow_encode", 0, other_with<narrow_decode>},
    {"narrow_decode", 0, other_with<narrow_encode>},
    {"narrow_difference_encode", 0, other_with<narrow_difference_decode>},
    {"narrow_difference_decode", 0, other_with<narrow_difference_encode>},
    {"bt1886_display", 0, other_with<bt1886_signal>},
    {"bt1886_signal", 0, other_with<bt1886_display>},
    {"hlg_display", 0, other_with<hlg_signal>},
    {"hlg_signal", 0, other_with<hlg_display>},
    {"adapt_bradford", 0, adapted_back<bradford>},
    {"adapt_cat02", 0, adapted_back<cat02>},
    {"adapt_von_kries", 0, adapted_back<von_kries>},
    {"adapt_scaling", 0, adapted_back<scaling>},
    {"blend_multiply", 0, [](Terms& t, TermId y, const Args& x) { return t.div(y, x[1]); }},
    {"blend_multiply", 1, [](Terms& t, TermId y, const Args& x) { return t.div(y, x[0]); }},
    {"blend_screen", 0, [](Terms& t, TermId y, const Args& x) { return t.div(t.sub(y, x[1]), t.sub(one(t), x[1])); }},
    {"blend_screen", 1, [](Terms& t, TermId y, const Args& x) { return t.div(t.sub(y, x[0]), t.sub(one(t), x[0])); }},
    {"blend_exclusion", 0,
     [](Terms& t, TermId y, const Args& x) { return t.div(t.sub(y, x[1]), t.sub(one(t), t.mul(t.number(2), x[1]))); }},
    {"blend_exclusion", 1,
     [](Terms& t, TermId y, const Args& x) { return t.div(t.sub(y, x[0]), t.sub(one(t), t.mul(t.number(2), x[0]))); }},
    {"blend_divide", 0, [](Terms& t, TermId y, const Args& x) { return t.mul(y, x[1]); }},
    {"blend_divide", 1, [](Terms& t, TermId y, const Args& x) { return t.div(x[0], y); }},
    {"exposure", 0, [](Terms& t, TermId y, const Args& x) { return of_function(t, "exposure", y, {t.neg(x[1])}); }},
    {"contrast", 0,
     [](Terms& t, TermId y, const Args& x) {
         return of_function(t, "contrast", y, {t.div(one(t), x[1]), x[2]});
     }},
    {"gamma", 0, [](Terms& t, TermId y, const Args& x) { return of_function(t, "gamma", y, {t.div(one(t), x[1])}); }},
    {"saturate",
     0,
     [](Terms& t, TermId y, const Args& x) { return of_function(t, "saturate", y, {t.div(one(t), x[1])}); },
     {},
     true},
    // The largest channel stays the largest, and what is away from it was multiplied by 1 + amount.
    {"subtractive_saturation", 0,
     [](Terms& t, TermId y, const Args& x) {
         return of_function(t, "subtractive_saturation", y, {t.div(t.neg(x[1]), t.add(one(t), x[1]))});
     }},
    // Scaled as a whole by its share of saturation, which scaling does not change.
    {"density", 0,
     [](Terms& t, TermId y, const Args& x) {
         const TermId share = t.invoke("colourfulness", lang::float_type, {y});
         return t.div(y, t.sub(one(t), t.mul(x[1], share)));
     }},
    {"turn", 0, [](Terms& t, TermId y, const Args& x) { return of_function(t, "turn", y, {t.neg(x[1])}); }},
};

struct Lost {
    std::string_view function, why;
};
const Lost lost[] = {
    {"floor", "rounding loses what is between whole numbers"},
    {"ceil", "rounding loses what is between whole numbers"},
    {"trunc", "rounding loses what is between whole numbers"},
    {"round", "rounding loses what is between whole numbers"},
    {"roundEven", "rounding loses what is between whole numbers"},
    {"fract", "it forgets the whole number"},
    {"mod", "it forgets how many times the second number went into the first"},
    {"sign", "it forgets how large the number was"},
    {"step", "it forgets how far a number was from the edge"},
    {"bit_and", "it drops bits"},
    {"bit_or", "it sets bits"},
    {"bit_left", "it drops bits"},
    {"bit_right", "it drops bits"},
    {"blur", "it mixes in other pixels"},
    {"sharpen", "it mixes in other pixels"},
    {"dilate", "it reads other pixels"},
    {"erode", "it reads other pixels"},
    {"luminance", "one number does not say which colour it was"},
    {"luma", "one number does not say which colour it was"},
    {"average", "one number does not say which colour it was"},
    {"achromat", "one number does not say which colour it was"},
};

/// Curves, spaces and models come in pairs, as many as there are.
TermId other_of_pair(Terms& t, std::string_view name, TermId result) {
    std::string back(name);
    if (name.ends_with("_encode") || name.ends_with("_decode"))
        back.replace(back.size() - 6, 6, name.ends_with("_encode") ? "decode" : "encode");
    else if (name.starts_with("to_"))
        back.replace(0, 3, "from_");
    else
        back.replace(0, 5, "to_");
    return call(t, back, result);
}
} // namespace

std::span<const Inverse> inverses() { return rows; }

const Inverse* find_inverse(std::string_view function, std::size_t argument) {
    for (const Inverse& row : rows)
        if (row.function == function && row.argument == argument)
            return &row;
    return nullptr;
}

std::optional<TermId> argument_from(Terms& t, TermId of, std::size_t argument, TermId result, bool light,
                                    std::string_view* loses) {
    const terms::Term& call = t[of];
    if (call.kind != terms::TermKind::call && call.kind != terms::TermKind::invoke)
        return {};
    const builtins::Builtin* builtin = call.kind == terms::TermKind::call ? &builtins::all()[call.index] : nullptr;
    const std::string_view name = builtin ? std::string_view(builtin->name) : std::string_view(call.text);
    if (builtin && builtin->model && argument == 0) // hsv(rgb), and rgb(c)
        return builtin->name == "rgb" ? t.call(builtin->model->name, t[call.args[0]].type, {result})
                                      : t.call("rgb", lang::vec3_type, {result});
    if (const Inverse* row = find_inverse(name, argument); row && (light || !row->of_light)) {
        *loses = row->loses;
        return row->argument_from(t, result, call.args);
    }
    const bool curve = name.ends_with("_encode") || name.ends_with("_decode");
    if (builtin && argument == 0 && call.args.size() == 1 &&
        (curve || (builtin->space && (name.starts_with("to_") || name.starts_with("from_")))))
        return other_of_pair(t, name, result);
    return {};
}

bool keeps_call(const lang::Function& function, bool light) {
    const auto prelude = builtins::vocabulary().prelude;
    const Inverse* row = find_inverse(function.name, 0);
    return row && (light || !row->of_light) &&
        std::any_of(prelude.begin(), prelude.end(), [&](const lang::FunctionPtr& p) { return p.get() == &function; });
}

std::vector<std::string_view> sentences() {
    std::vector<std::string_view> all;
    for (const Inverse& row : rows)
        if (!row.loses.empty())
            all.push_back(row.loses);
    for (const Lost& row : lost)
        all.push_back(row.why);
    return all;
}

std::string_view why_lost(std::string_view function) {
    for (const Lost& row : lost)
        if (row.function == function)
            return row.why;
    return {};
}

} // namespace kasuri::inverse
