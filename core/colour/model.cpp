#include "colour/model.hpp"

#include "ir/linear_map.hpp"

namespace kasuri::colour {

using ir::Graph;
using ir::NodeId;

namespace {

/// Whether `value` is still `known`, which it has been made of: where something was added, whether that is 0; where it
/// was multiplied, whether by 1 (a chroma of 0 doubled is what it was, but the plain way back is right for it, too). So
/// nothing has to be known of the component itself, which may be an angle.
NodeId unchanged(Graph& g, NodeId value, NodeId known) {
    const ir::Node node = g[value];
    const bool first = node.args[0] == known, second = node.args[1] == known;
    if ((node.op == ir::Op::add && (first || second)) || (node.op == ir::Op::sub && first))
        return g.equal(node.args[first ? 1 : 0], g.constant(0));
    if (node.op == ir::Op::mul && (first || second))
        return g.equal(node.args[first ? 1 : 0], g.constant(1));
    return g.equal(value, known);
}

} // namespace

const Model* find_model(std::string_view name) {
    for (const Model* model : models())
        if (model->name == name)
            return model;
    return nullptr;
}

Triple from_rgb(const Model& model, const Space& space, const Triple& rgb) {
    if (!model.frame)
        return model.from(rgb);
    const Matrix3 matrix = linear_to(*model.frame, space);
    const Triple light = light_of(space, rgb);
    Triple seen = matrix * light;
    // Rounding must not give a neutral a hue.
    if (model.frame->white && light[0] == light[1] && light[1] == light[2]) {
        const Triple white = matrix * Triple{1, 1, 1};
        if (white[0] / white[1] > 0.999999 && white[0] / white[1] < 1.000001)
            seen = {light[0] * white[1], light[0] * white[1], light[0] * white[1]};
    }
    return model.from(seen);
}

Triple to_rgb(const Model& model, const Space& space, const Triple& value) {
    const Triple light = model.to(value);
    if (!model.frame)
        return light;
    return numbers_of(space, inverse(linear_to(*model.frame, space)) * light);
}

NodeTriple lower_from_rgb(Graph& g, const Model& model, const Space& space, const NodeTriple& rgb) {
    const NodeTriple light =
        model.frame ? ir::linear_map(g, linear_to(*model.frame, space), lower_light_of(g, space, rgb)) : rgb;
    const NodeTriple made = model.lower_from(g, light);
    g.remember_conversion({&model, &space, made, rgb});
    return made;
}

NodeTriple lower_to_rgb(Graph& g, const Model& model, const Space& space, const NodeTriple& value) {
    const auto plain = [&] {
        const NodeTriple light = model.lower_to(g, value);
        return model.frame
            ? lower_numbers_of(g, space, ir::linear_map(g, inverse(linear_to(*model.frame, space)), light))
            : light;
    };
    const ir::Conversion* found =
        model.hue_has_origin && g.origin(value[0]) ? nullptr : g.conversion(&model, &space, value);
    if (!found)
        return plain();
    const ir::Conversion known = *found; // making nodes may move it
    if (known.result == value)
        return known.of;
    NodeTriple result = plain();
    NodeId same = 0;
    bool any = false;
    for (std::size_t i = 0; i < 3; ++i)
        if (value[i] != known.result[i]) {
            const NodeId equal = unchanged(g, value[i], known.result[i]);
            same = any ? g.make(ir::Op::logical_and, same, equal) : equal;
            any = true;
        }
    for (std::size_t i = 0; i < 3; ++i)
        result[i] = g.select(same, known.of[i], result[i]);
    return result;
}

} // namespace kasuri::colour
