#include "insight/formula.hpp"

namespace kasuri::insight {

Formula::Formula(const lang::Rule& rule)
    : lower([&rule](ir::Graph& graph, const engine::CompileOptions& options) {
          return engine::lower(rule, graph, options);
      }),
      space(engine::working_space(rule)) {
    for (const lang::Parameter& p : rule.parameters)
        parameters.push_back(p.name);
}

} // namespace kasuri::insight
