#pragma once
// Short ways to write rows, for the family files.
#include "builtins/builtin.hpp"

#include <cmath>
#include <limits>

namespace kasuri::builtins {

using ir::Graph;
using ir::NodeId;
using ir::Op;
using lang::bool_type;
using lang::exactly;
using lang::float_type;
using lang::mat3_type;
using lang::per_picture;
using lang::vec2_type;
using lang::vec3_type;
using lang::vec4_type;

inline constexpr double not_a_number = std::numeric_limits<double>::quiet_NaN();

/// NaN in, NaN out, whichever argument it is.
inline double minimum(double a, double b) { return std::isnan(a) || std::isnan(b) ? not_a_number : std::fmin(a, b); }
inline double maximum(double a, double b) { return std::isnan(a) || std::isnan(b) ? not_a_number : std::fmax(a, b); }

/// Collects rows of one family.
class Rows {
public:
    Builtin& componentwise(std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                           std::string_view source, std::vector<Case> cases, Builtin::ScalarReference reference,
                           Builtin::ScalarLowering lowering) {
        Builtin& row = add(name, std::move(parameters), doc, source, std::move(cases));
        row.reference = std::move(reference);
        row.lowering = std::move(lowering);
        return row;
    }
    Builtin& of_space(std::string_view name, std::vector<std::string_view> parameters, std::vector<lang::Slot> takes,
                      lang::Slot gives, std::string_view doc, std::string_view source, std::vector<Case> cases,
                      Builtin::SpaceReference reference, Builtin::SpaceLowering lowering) {
        Builtin& row = add(name, std::move(parameters), doc, source, std::move(cases));
        row.form = Form::of_space;
        row.takes = std::move(takes);
        row.gives = gives;
        row.space_reference = std::move(reference);
        row.space_lowering = std::move(lowering);
        return row;
    }
    Builtin& typed(std::string_view name, std::vector<std::string_view> parameters, std::vector<lang::Slot> takes,
                   lang::Slot gives, std::string_view doc, std::string_view source, std::vector<Case> cases,
                   Builtin::WholeReference reference, Builtin::WholeLowering lowering) {
        Builtin& row = add(name, std::move(parameters), doc, source, std::move(cases));
        row.form = Form::typed;
        row.takes = std::move(takes);
        row.gives = gives;
        row.whole_reference = std::move(reference);
        row.whole_lowering = std::move(lowering);
        return row;
    }
    Builtin& whole(Form form, std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                   std::string_view source, std::vector<Case> cases, Builtin::WholeReference reference,
                   Builtin::WholeLowering lowering) {
        Builtin& row = add(name, std::move(parameters), doc, source, std::move(cases));
        row.form = form;
        row.whole_reference = std::move(reference);
        row.whole_lowering = std::move(lowering);
        return row;
    }
    Builtin& add(std::string_view name, std::vector<std::string_view> parameters, std::string_view doc,
                 std::string_view source, std::vector<Case> cases = {}) {
        Builtin row;
        row.name = name;
        row.parameters = std::move(parameters);
        row.doc = doc;
        row.source = source;
        row.cases = std::move(cases);
        rows.push_back(std::move(row));
        return rows.back();
    }

    std::vector<Builtin> rows;
};

} // namespace kasuri::builtins
