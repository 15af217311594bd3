#include "handover/shader_passes.hpp"

#include "base/file.hpp"
#include "handover/shader_writer.hpp"
#include "ir/needed.hpp"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <map>
#include <nlohmann/json.hpp>
#include <tuple>

namespace kasuri::handover {
namespace {

/// Up to four values that need the same neighbourhood at the same time: one picture, one walk over it.
struct Group {
    int depth = 0; ///< how many neighbourhoods have to be there before
    ir::Neighbour kind{};
    ir::NodeId size = 0;
    std::vector<const ir::Stage*> stages;
    std::string picture; ///< once it is there
};

std::vector<Group> groups_of(const ir::Graph& graph, std::span<const ir::NodeId> outputs) {
    std::map<std::uint32_t, int> depths; // by the slots of results
    const auto depth_of = [&](std::span<const ir::NodeId> nodes) {
        const std::vector<bool> needed = ir::needed_by(graph, nodes);
        int depth = 0;
        for (ir::NodeId id = 0; id < graph.size(); ++id)
            if (needed[id] && graph[id].op == ir::Op::input && graph[id].slot >= graph.first_stage_slot())
                depth = std::max(depth, depths.at(graph[id].slot) + 1);
        return depth;
    };
    std::vector<bool> wanted = ir::needed_by(graph, outputs);
    std::vector<const ir::Stage*> all;
    for (auto stage = graph.stages().rbegin(); stage != graph.stages().rend(); ++stage) // from the last to the first
        if (wanted[stage->result]) {
            const std::array<ir::NodeId, 2> reads = {stage->source, stage->size};
            const std::vector<bool> more = ir::needed_by(graph, reads);
            for (std::size_t i = 0; i < more.size(); ++i)
                wanted[i] = wanted[i] || more[i];
            all.insert(all.begin(), &*stage);
        }
    std::map<std::tuple<int, ir::Neighbour, ir::NodeId>, std::vector<Group>> found;
    for (const ir::Stage* stage : all) {
        const std::array<ir::NodeId, 1> source = {stage->source};
        const int depth = depth_of(source);
        depths[graph[stage->result].slot] = depth;
        auto& same = found[{depth, stage->kind, stage->size}];
        if (same.empty() || same.back().stages.size() == 4)
            same.push_back({depth, stage->kind, stage->size, {}, {}});
        same.back().stages.push_back(stage);
    }
    std::vector<Group> ordered;
    for (auto& [key, same] : found)
        ordered.insert(ordered.end(), same.begin(), same.end());
    return ordered;
}

class Passes {
public:
    Passes(const subject::Subject& subject, const ShaderOptions& options, const Dialect& dialect)
        : subject_(subject), name_(options.function), dialect_(dialect), writer_(subject, options, dialect) {
        writer_.allow_tables();
        parts_.title = subject.title();
        parts_.dialect = dialect.name;
        parts_.in_space = writer_.in_space();
        parts_.out_space = writer_.out_space();
        parts_.inputs = {"picture"};
        for (const lang::SourceInput& source : subject.sources())
            parts_.inputs.push_back(source.name);
        for (const ShaderWriter::Value& value : writer_.values()) {
            const subject::Parameter& parameter = subject.parameters()[value.first];
            PassValue made{value.name, {}, parameter.low, parameter.high, parameter.description};
            for (std::size_t k = 0; k < (value.colour ? 3u : 1u); ++k)
                made.usual.push_back(subject.values()[value.first + k]);
            parts_.values.push_back(std::move(made));
        }
    }

    Result<ShaderParts> run() {
        groups_ = groups_of(writer_.graph(), writer_.outputs());
        for (Group& group : groups_) {
            std::vector<ir::NodeId> sources;
            for (const ir::Stage* stage : group.stages)
                sources.push_back(stage->source);
            const std::string values = next();
            if (const Status made = pixels(sources, values); !made)
                return made.error();
            group.picture = values;
            const bool blur = group.kind == ir::Neighbour::blur;
            for (const char* along :
                 blur ? std::vector<const char*>{"ivec2(1, 0)", "ivec2(0, 1)"} : std::vector<const char*>{""}) {
                const std::string into = next();
                if (const Status made = neighbours(group, along, into); !made)
                    return made.error();
                group.picture = into;
            }
            for (std::size_t i = 0; i < group.stages.size(); ++i)
                writer_.read_stage(writer_.graph()[group.stages[i]->result].slot,
                                   fmt::format("{}.{}", group.picture, "rgba"[i]));
        }
        if (const Status made = pixels(writer_.outputs(), "result"); !made)
            return made.error();
        if (sized_ || dialect_.values == Values::block) { // the block has it, read or not
            parts_.width = name_ + "_width";
            parts_.height = name_ + "_height";
        }
        return std::move(parts_);
    }

private:
    std::string next() { return fmt::format("b{}", ++pictures_); }

    /// A walk that looks at each pixel by itself and writes up to four values.
    Status pixels(std::span<const ir::NodeId> nodes, const std::string& into) {
        writer_.begin();
        std::vector<std::string> results;
        const Result<std::string> body = writer_.statements(nodes, results);
        if (!body)
            return body.error();
        results.resize(4, "0.0");
        std::vector<PassInput> reads;
        std::string text = "    ivec2 at = ivec2(gl_FragCoord.xy);\n";
        const auto read = [&](const std::string& type, const std::string& variable, const std::string& picture) {
            const std::string sampler = fmt::format("{}_read_{}", name_, picture);
            reads.push_back({sampler, picture});
            text += fmt::format("    {} {} = texelFetch({}, at, 0){};\n", type, variable, sampler,
                                type == "float"      ? ".r"
                                    : type == "vec3" ? ".rgb"
                                                     : "");
        };
        if (reads_input(nodes))
            read("vec4", "colour", "picture");
        for (std::size_t i = 0; i < subject_.sources().size(); ++i) {
            const int channels = width(subject_.sources()[i].type);
            if (body.value().find(writer_.sources()[i]) != std::string::npos || named(results, writer_.sources()[i]))
                read(channels == 1 ? "float" : fmt::format("vec{}", channels), writer_.sources()[i],
                     subject_.sources()[i].name);
        }
        for (const Group& group : groups_)
            if (!group.picture.empty() &&
                (body.value().find(group.picture + ".") != std::string::npos || named(results, group.picture + ".")))
                read("vec4", group.picture, group.picture);
        if (writer_.placed())
            text += "    vec2 pixel = vec2(at);\n";
        text += body.value() +
            fmt::format("    {}_result = vec4({}, {}, {}, {});\n", name_, results[0], results[1], results[2],
                        results[3]);
        add("pixels", text, reads, into);
        return {};
    }

    static bool named(const std::vector<std::string>& results, const std::string& name) {
        return std::any_of(results.begin(), results.end(), [&](const auto& each) { return each.starts_with(name); });
    }

    bool reads_input(std::span<const ir::NodeId> nodes) const {
        const ir::Graph& graph = writer_.graph();
        const std::vector<bool> needed = ir::needed_by(graph, nodes);
        for (ir::NodeId id = 0; id < graph.size(); ++id)
            if (needed[id] && graph[id].op == ir::Op::input && graph[id].slot < 4)
                return true;
        return false;
    }

    /// A walk in which each pixel looks at others.
    Status neighbours(const Group& group, const std::string& along, const std::string& into) {
        writer_.begin();
        std::vector<std::string> results;
        const std::array<ir::NodeId, 1> sized = {group.size};
        const Result<std::string> body = writer_.statements(sized, results);
        if (!body)
            return body.error();
        writer_.call("none");
        const std::string sampler = fmt::format("{}_read_{}", name_, group.picture);
        std::string text = fmt::format("    ivec2 at = ivec2(gl_FragCoord.xy), last = textureSize({}, 0) - 1;\n"
                                       "{}    float size = {};\n"
                                       "    if (!(size > 0.0)) {{\n"
                                       "        {}_result = isnan(size) ? vec4({}_none()) : texelFetch({}, at, 0);\n"
                                       "        return;\n"
                                       "    }}\n",
                                       sampler, body.value(), results[0], name_, name_, sampler);
        if (group.kind == ir::Neighbour::blur) { // exp(-x^2 / 2) = exp2(-0.72134752 x^2)
            text += fmt::format("    int reach = int(ceil(4.7 * size));\n"
                                "    float total = 0.0;\n"
                                "    vec4 sum = vec4(0.0);\n"
                                "    for (int i = -reach; i <= reach; ++i) {{\n"
                                "        float x = float(i) / size, weight = exp2(-0.72134752 * x * x);\n"
                                "        sum += weight * texelFetch({}, clamp(at + i * {}, ivec2(0), last), 0);\n"
                                "        total += weight;\n"
                                "    }}\n"
                                "    {}_result = sum / total;\n",
                                sampler, along, name_);
        } else {
            const char* const how = group.kind == ir::Neighbour::dilate ? "maximum" : "minimum";
            writer_.call(how);
            std::string four;
            for (const char c : {'r', 'g', 'b', 'a'})
                four += fmt::format("{0}{1}_{2}(most.{3}, one.{3})", c == 'r' ? "" : ", ", name_, how, c);
            text += fmt::format("    int reach = int(floor(size));\n"
                                "    vec4 most = texelFetch({0}, at, 0);\n"
                                "    for (int y = -reach; y <= reach; ++y)\n"
                                "        for (int x = -reach; x <= reach; ++x)\n"
                                "            if (float(x * x + y * y) <= size * size) {{\n"
                                "                vec4 one = texelFetch({0}, clamp(at + ivec2(x, y), ivec2(0), last), "
                                "0);\n"
                                "                most = vec4({1});\n"
                                "            }}\n"
                                "    {2}_result = most;\n",
                                sampler, four, name_);
        }
        add(std::string(ir::row(group.kind).name), text, {{sampler, group.picture}}, into);
        return {};
    }

    void add(const std::string& does, const std::string& body, const std::vector<PassInput>& reads,
             const std::string& into) {
        sized_ = sized_ || writer_.sized();
        ShaderPass pass;
        pass.file = fmt::format("pass{}.frag", parts_.passes.size() + 1);
        pass.does = does;
        pass.reads = reads;
        pass.writes = into;
        const bool vulkan = dialect_.values == Values::block;
        int binding = 0;
        std::string samplers, functions;
        const auto declare = [&](const char* type, const std::string& sampler) {
            samplers += vulkan ? fmt::format("layout(set = 0, binding = {}) uniform {} {};\n", ++binding, type, sampler)
                               : fmt::format("uniform {} {};\n", type, sampler);
        };
        for (const PassInput& each : reads)
            declare("sampler2D", each.sampler);
        for (const auto& [function, code] : writer_.tables()) {
            functions += code.text;
            for (const io::ShaderTable& table : code.tables) {
                declare(table.size[2] > 0 ? "sampler3D" : "sampler2D", table.sampler);
                pass.tables.push_back(table.sampler);
                if (std::none_of(parts_.tables.begin(), parts_.tables.end(),
                                 [&](const auto& known) { return known.sampler == table.sampler; }))
                    parts_.tables.push_back(table);
            }
        }
        pass.text = std::string(dialect_.first_lines) + writer_.title() + "\n" +
            fmt::format("{}out vec4 {}_result;\n", vulkan ? "layout(location = 0) " : "", name_) + samplers + "\n" +
            // In a block of Vulkan every pass has the same values at the same places.
            writer_.value_texts(vulkan || writer_.sized()) + writer_.helper_texts() + functions + "void main() {\n" +
            body + "}\n";
        parts_.passes.push_back(std::move(pass));
    }

    const subject::Subject& subject_;
    std::string name_;
    const Dialect& dialect_;
    ShaderWriter writer_;
    ShaderParts parts_;
    std::vector<Group> groups_;
    int pictures_ = 0;
    bool sized_ = false;
};

} // namespace

Result<ShaderParts> shader_parts(const subject::Subject& subject, const ShaderOptions& options) {
    const Dialect* dialect = find_dialect(options.dialect);
    if (!dialect || dialect->first_lines.empty())
        return Error{said("there are no passes in the dialect {}", options.dialect), "",
                     "330, es300 and vulkan450 have them."};
    return Passes(subject, options, *dialect).run();
}

Status write_parts(const ShaderParts& parts, const std::filesystem::path& folder) {
    using Json = nlohmann::ordered_json;
    std::error_code failed;
    std::filesystem::create_directories(folder, failed);
    if (failed)
        return Error{said("cannot be made ({})", failed.message()), folder.string(), ""};
    Json values = Json::array(), tables = Json::array(), passes = Json::array();
    for (const PassValue& value : parts.values) {
        const Json usual = value.usual.size() == 1 ? Json(value.usual[0]) : Json(value.usual);
        values.push_back({{"name", value.name},
                          {"type", value.usual.size() == 1 ? "float" : "vec3"},
                          {"usual", usual},
                          {"low", value.low},
                          {"high", value.high},
                          {"doc", value.doc}});
    }
    for (const io::ShaderTable& table : parts.tables) {
        const std::string file = table.sampler + ".f32";
        const std::string_view bytes(reinterpret_cast<const char*>(table.values.data()),
                                     table.values.size() * sizeof(float));
        if (const Status written = write_file(folder / file, bytes); !written)
            return written;
        tables.push_back({{"sampler", table.sampler},
                          {"file", file},
                          {"size", table.size[2] > 0 ? Json(table.size) : Json({table.size[0], table.size[1]})},
                          {"channels", table.channels},
                          {"linear", table.linear}});
    }
    for (const ShaderPass& pass : parts.passes) {
        if (const Status written = write_file(folder / pass.file, pass.text); !written)
            return written;
        Json reads = Json::object();
        for (const PassInput& each : pass.reads)
            reads[each.sampler] = each.picture;
        passes.push_back({{"file", pass.file},
                          {"does", pass.does},
                          {"reads", reads},
                          {"tables", pass.tables},
                          {"writes", pass.writes}});
    }
    Json whole = {{"kasuri-shader", 1},
                  {"title", parts.title},
                  {"dialect", parts.dialect},
                  {"in-space", parts.in_space},
                  {"out-space", parts.out_space},
                  {"inputs", parts.inputs},
                  {"values", values},
                  {"tables", tables},
                  {"passes", passes}};
    if (!parts.width.empty())
        whole["size"] = {{"width", parts.width}, {"height", parts.height}};
    // Last: whoever finds it finds all that it names.
    return write_file(folder / "parts.json", whole.dump(2, ' ', false, Json::error_handler_t::replace) + "\n");
}

} // namespace kasuri::handover
