#include "builtins/builtin.hpp"
#include "colour/space.hpp"

#include <algorithm>

namespace kasuri::builtins {
namespace {

std::vector<Builtin> gathered() {
    std::vector<Builtin> rows;
    for (auto family : {arithmetic, shaping, geometry, conversions})
        for (Builtin& row : family())
            rows.push_back(std::move(row));
    return rows;
}

std::vector<lang::ModelShape> shapes() {
    std::vector<lang::ModelShape> shapes;
    for (const colour::Model* model : colour::models())
        shapes.push_back({model->name, {model->components[0].name, model->components[1].name, model->components[2].name}});
    return shapes;
}

/// Everything that vocabulary() points into; built once, never changed.
struct Tables {
    std::vector<Builtin> rows = gathered();
    std::vector<lang::ModelShape> models = shapes();
    std::vector<lang::Signature> signatures;
    std::vector<std::string_view> spaces;
    lang::Vocabulary vocabulary;

    Tables() {
        for (const Builtin& row : rows)
            signatures.push_back(signature(row));
        for (const colour::Space& space : colour::spaces())
            spaces.push_back(space.name);
        vocabulary = {signatures, models, spaces, {}};
    }

    lang::Type model_type(const colour::Model* model) const {
        for (const lang::ModelShape& shape : models)
            if (shape.name == model->name)
                return {lang::Kind::model, &shape};
        return {};
    }

    lang::Signature signature(const Builtin& row) const {
        lang::Slot takes = lang::gen;
        lang::Slot gives = lang::gen;
        switch (row.form) {
        case Form::componentwise:
        case Form::widening: break;
        case Form::reducing: gives = lang::exactly(lang::float_type); break;
        case Form::vec3s: takes = gives = lang::exactly(lang::vec3_type); break;
        case Form::truth:
            takes = lang::exactly(lang::float_type);
            gives = lang::exactly(lang::bool_type);
            break;
        case Form::to_model:
            takes = lang::exactly(lang::vec3_type);
            gives = lang::exactly(model_type(row.model));
            break;
        case Form::from_model:
            takes = lang::exactly(model_type(row.model));
            gives = lang::exactly(lang::vec3_type);
            break;
        }
        return {row.name, std::vector<lang::Slot>(row.parameters.size(), takes), row.parameters, gives, row.doc};
    }
};

const Tables& tables() {
    static const Tables built;
    return built;
}

} // namespace

std::span<const Builtin> all() { return tables().rows; }

const lang::Vocabulary& vocabulary() { return tables().vocabulary; }

void evaluate(const Builtin& row, int width, const double* const* arguments, double* result) {
    switch (row.form) {
    case Form::componentwise:
    case Form::truth:
        for (int i = 0; i < width; ++i) {
            double x[4] = {};
            for (std::size_t k = 0; k < row.parameters.size(); ++k)
                x[k] = arguments[k][i];
            result[i] = row.reference(x);
        }
        return;
    case Form::to_model:
    case Form::from_model: {
        const colour::Triple in = {arguments[0][0], arguments[0][1], arguments[0][2]};
        const colour::Triple out = row.form == Form::to_model ? row.model->from_rgb(in) : row.model->to_rgb(in);
        std::copy(out.begin(), out.end(), result);
        return;
    }
    default: row.whole_reference(width, arguments, result); return;
    }
}

void lower(const Builtin& row, ir::Graph& graph, int width, const ir::NodeId* const* arguments, ir::NodeId* result) {
    switch (row.form) {
    case Form::componentwise:
    case Form::truth:
        for (int i = 0; i < width; ++i) {
            ir::NodeId x[4] = {};
            for (std::size_t k = 0; k < row.parameters.size(); ++k)
                x[k] = arguments[k][i];
            result[i] = row.lowering(graph, x);
        }
        return;
    case Form::to_model:
    case Form::from_model: {
        const colour::NodeTriple in = {arguments[0][0], arguments[0][1], arguments[0][2]};
        const colour::NodeTriple out =
            row.form == Form::to_model ? row.model->lower_from_rgb(graph, in) : row.model->lower_to_rgb(graph, in);
        std::copy(out.begin(), out.end(), result);
        return;
    }
    default: row.whole_lowering(graph, width, arguments, result); return;
    }
}

} // namespace kasuri::builtins
