#include "builtins/row.hpp"

namespace kasuri::builtins {

/// Two rows for every colour model: NAME(vec3) and rgb(NAME).
std::vector<Builtin> conversions() {
    std::vector<Builtin> rows;
    for (const colour::Model* model : colour::models()) {
        Builtin there;
        there.name = model->name;
        there.parameters = {"colour"};
        there.form = Form::to_model;
        there.doc = model->doc;
        there.source = model->source;
        there.model = model;
        rows.push_back(there);
        Builtin back = there;
        back.name = "rgb";
        back.form = Form::from_model;
        back.doc = "Back to r, g, b.";
        rows.push_back(back);
    }
    return rows;
}

} // namespace kasuri::builtins
