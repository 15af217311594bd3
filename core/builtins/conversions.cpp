#include "builtins/model_types.hpp"
#include "builtins/row.hpp"

#include <algorithm>

namespace kasuri::builtins {

std::span<const lang::ModelShape> model_shapes() {
    static const std::vector<lang::ModelShape> shapes = [] {
        std::vector<lang::ModelShape> made;
        for (const colour::Model* model : colour::models()) {
            const auto& c = model->components;
            lang::ModelShape shape{
                model->name, {c[0].name, c[1].name, c[2].name}, model->doc, {c[0].meaning, c[1].meaning, c[2].meaning}};
            for (std::uint8_t i = 0; i < 3; ++i)
                if (c[i].cyclic) {
                    shape.hue = lang::HueWay::angle;
                    shape.angle = i;
                }
            if (shape.hue == lang::HueWay::none && c[1].low < 0 && c[2].low < 0)
                shape.hue = lang::HueWay::plane;
            made.push_back(shape);
        }
        return made;
    }();
    return shapes;
}

lang::Type type_of(const colour::Model& model) {
    for (const lang::ModelShape& shape : model_shapes())
        if (shape.name == model.name)
            return {lang::Kind::model, &shape};
    return {};
}

/// Two rows for every colour model: NAME(vec3) and rgb(NAME).
std::vector<Builtin> conversions() {
    Rows table;
    for (const colour::Model* model : colour::models()) {
        Builtin& there = table.of_space(
            model->name, {"colour"}, {exactly(vec3_type)}, exactly(type_of(*model)), model->doc, model->source, {},
            [model](const colour::Space& space, const double* const* x, double* r) {
                const colour::Triple made = colour::from_rgb(*model, space, {x[0][0], x[0][1], x[0][2]});
                std::copy(made.begin(), made.end(), r);
            },
            [model](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                const colour::NodeTriple made = colour::lower_from_rgb(g, *model, space, {x[0][0], x[0][1], x[0][2]});
                std::copy(made.begin(), made.end(), r);
            });
        there.model = model;
        Builtin& back = table.of_space(
            "rgb", {"colour"}, {exactly(type_of(*model))}, exactly(vec3_type), "Back to r, g, b of the working space.",
            model->source, {},
            [model](const colour::Space& space, const double* const* x, double* r) {
                const colour::Triple made = colour::to_rgb(*model, space, {x[0][0], x[0][1], x[0][2]});
                std::copy(made.begin(), made.end(), r);
            },
            [model](Graph& g, const colour::Space& space, const NodeId* const* x, NodeId* r) {
                const colour::NodeTriple made = colour::lower_to_rgb(g, *model, space, {x[0][0], x[0][1], x[0][2]});
                std::copy(made.begin(), made.end(), r);
            });
        back.model = model;
    }
    return std::move(table.rows);
}

} // namespace kasuri::builtins
