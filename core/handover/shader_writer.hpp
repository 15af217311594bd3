#pragma once
#include "base/result.hpp"
#include "handover/shader.hpp"
#include "handover/shader_dialect.hpp"
#include "io/shader_code.hpp"
#include "ir/graph.hpp"

#include <map>
#include <set>
#include <string>
#include <vector>

namespace kasuri::handover {

/// Writes nodes of a subject's graph as statements of a dialect, with the values and helpers that they need. Names
/// begin with that of the function.
class ShaderWriter {
public:
    /// A value that can be set: a number, or the three of a colour, which stand together.
    struct Value {
        std::string name;
        std::size_t first = 0; ///< of the subject's parameters
        bool colour = false;
    };

    ShaderWriter(const subject::Subject& subject, const ShaderOptions& options, const Dialect& dialect);

    const ir::Graph& graph() const { return graph_; }
    std::span<const ir::NodeId> outputs() const { return outputs_; }
    std::span<const Value> values() const { return values_; }
    std::span<const std::string> sources() const { return sources_; } ///< as they are called in the text
    std::string_view in_space() const { return in_; }
    std::string_view out_space() const { return out_; }

    /// What stands for a neighbourhood's result, which is an input of the graph; without it those are refused.
    void read_stage(std::uint32_t slot, std::string text) { stages_[slot] = std::move(text); }
    /// Tables may be read; without it LUTs and spaces of a colour config are refused.
    void allow_tables() { tables_allowed_ = true; }

    /// One a line, for all that these nodes need; `results`: what each of them is called.
    Result<std::string> statements(std::span<const ir::NodeId> nodes, std::vector<std::string>& results);

    // Of the statements that were written since the last `begin`: what they call and read.
    void begin();
    void call(std::string_view helper) { want(helper); } ///< also this one
    bool placed() const { return placed_; }              ///< `pixel`
    bool sized() const { return sized_; }                ///< the picture's size
    std::string helper_texts() const;
    const std::map<std::string, io::ShaderCode>& tables() const { return wanted_tables_; } ///< by their functions

    /// The title as a comment; the values as the dialect has them, with the picture's size if `with_size`.
    std::string title() const;
    std::string value_texts(bool with_size) const;

private:
    Result<std::string> external(const ir::Node& node, const std::vector<std::string>& names, std::string& into);
    void name_values(std::set<std::string>& taken);
    std::string leaf(const ir::Node& node);
    std::string with_size(std::string_view text) const;
    std::string filled(std::string_view text, const std::string* operands = nullptr) const;
    void want(std::string_view name);
    std::string default_of(const Value& value) const;
    std::string words_of(const Value& value) const;
    std::string values_as_uniforms(bool with_size) const;
    std::string values_as_block(bool with_size) const;
    std::string values_as_struct(bool with_size) const;

    const subject::Subject& subject_;
    const Dialect& dialect_;
    bool in_c_;
    std::string prefix_;
    std::string_view in_, out_;
    ir::Graph graph_;
    std::vector<ir::NodeId> outputs_;
    std::set<std::string_view> wanted_;
    std::vector<Value> values_;
    std::vector<std::string> parameters_, sources_;
    std::map<std::uint32_t, std::string> stages_;
    std::map<std::string, io::ShaderCode> wanted_tables_;
    std::map<std::string, std::string> converted_; ///< variables of conversions, by what comes in
    bool tables_allowed_ = false, placed_ = false, sized_ = false;
};

} // namespace kasuri::handover
