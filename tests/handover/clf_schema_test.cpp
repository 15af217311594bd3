// CLF files against the standard's tables: SMPTE ST 2136-1:2024, which took over S-2014-006 of the Academy, clauses on
// ProcessList and process nodes (from memory).
#include "base/text.hpp"
#include "handover/cube.hpp"
#include "support/support.hpp"

#include <map>
#include <set>

using namespace kasuri;
using namespace kasuri::test;

namespace {

struct Element {
    std::string name;
    std::map<std::string, std::string> attributes{};
    std::string text{};
    std::vector<Element> children{};
};

/// The tree of an XML text: what our files need, and no more (no comments, no sections of other kinds).
struct Parser {
    std::string_view text;
    std::size_t at = 0;

    void skip_spaces() {
        while (at < text.size() && std::isspace(static_cast<unsigned char>(text[at])))
            ++at;
    }
    std::string name() {
        const std::size_t begin = at;
        while (at < text.size() &&
               (std::isalnum(static_cast<unsigned char>(text[at])) || text[at] == '_' || text[at] == ':'))
            ++at;
        return std::string(text.substr(begin, at - begin));
    }
    Element element() {
        REQUIRE(text[at] == '<');
        ++at;
        Element made;
        made.name = name();
        for (skip_spaces(); text[at] != '>' && text[at] != '/'; skip_spaces()) {
            const std::string attribute = name();
            REQUIRE(text.substr(at, 2) == "=\"");
            const std::size_t end = text.find('"', at + 2);
            REQUIRE(end != std::string_view::npos);
            made.attributes[attribute] = text.substr(at + 2, end - at - 2);
            at = end + 1;
        }
        if (text[at] == '/') {
            at += 2;
            return made;
        }
        for (++at;;) {
            const std::size_t next = text.find('<', at);
            REQUIRE(next != std::string_view::npos);
            made.text += text.substr(at, next - at);
            at = next;
            if (text[at + 1] != '/') {
                made.children.push_back(element());
                continue;
            }
            at += 2;
            CHECK(name() == made.name);
            ++at;
            return made;
        }
    }
};

Element parsed(const std::string& text) {
    Parser parser{text};
    REQUIRE(text.starts_with("<?xml version=\"1.0\" encoding=\"UTF-8\"?>"));
    parser.at = text.find("?>") + 2;
    parser.skip_spaces();
    Element root = parser.element();
    parser.skip_spaces();
    CHECK(parser.at == text.size());
    return root;
}

std::size_t numbers_in(const std::string& text) {
    std::istringstream words(text);
    std::size_t count = 0;
    for (double number = 0; words >> number;)
        ++count;
    CHECK(words.eof());
    return count;
}

const std::set<std::string> depths = {"8i", "10i", "12i", "16i", "16f", "32f"};
const std::set<std::string> nodes = {"LUT1D", "LUT3D", "Matrix", "Range", "Log", "Exponent", "ASC_CDL"};

void check_array(const Element& node) {
    const auto array =
        std::find_if(node.children.begin(), node.children.end(), [](const Element& e) { return e.name == "Array"; });
    REQUIRE(array != node.children.end());
    std::istringstream dims(array->attributes.at("dim"));
    std::vector<std::size_t> dim;
    for (std::size_t d = 0; dims >> d;)
        dim.push_back(d);
    std::size_t all = 1;
    for (const std::size_t d : dim)
        all *= d;
    CHECK(numbers_in(array->text) == all);
    if (node.name == "Matrix")
        CHECK((dim == std::vector<std::size_t>{3, 3} || dim == std::vector<std::size_t>{3, 4}));
    else if (node.name == "LUT3D")
        CHECK((dim.size() == 4 && dim[0] == dim[1] && dim[1] == dim[2] && dim[3] == 3));
    else
        CHECK((dim.size() == 2 && (dim[1] == 3 || dim[1] == 1)));
}

/// Checks a file; its identifier.
std::string checked(const std::string& text) {
    const Element root = parsed(text);
    CHECK(root.name == "ProcessList");
    CHECK(root.attributes.at("xmlns") == "http://www.smpte-ra.org/ns/2136-1/2024");
    CHECK(root.attributes.at("compCLFversion").starts_with("3"));
    for (const auto& [name, value] : root.attributes)
        CHECK(std::set<std::string>{"xmlns", "id", "name", "compCLFversion"}.contains(name));
    // In this order: Description any number of times, InputDescriptor, OutputDescriptor, Info; then process nodes.
    const auto rank = [](const std::string& name) {
        return name == "Description"     ? 0
            : name == "InputDescriptor"  ? 1
            : name == "OutputDescriptor" ? 2
            : name == "Info"             ? 3
                                         : 4;
    };
    int last = 0, count = 0;
    std::map<int, int> times;
    std::string before = "32f";
    for (const Element& child : root.children) {
        INFO(child.name);
        CHECK(rank(child.name) >= last);
        last = rank(child.name);
        ++times[last];
        if (last < 4) {
            CHECK_FALSE(child.text.empty());
            continue;
        }
        ++count;
        CHECK(nodes.contains(child.name));
        CHECK(depths.contains(child.attributes.at("inBitDepth")));
        CHECK(depths.contains(child.attributes.at("outBitDepth")));
        CHECK(child.attributes.at("inBitDepth") == before); // what goes out of one goes into the next
        before = child.attributes.at("outBitDepth");
        if (child.name == "LUT3D" && child.attributes.contains("interpolation"))
            CHECK(std::set<std::string>{"trilinear", "tetrahedral"}.contains(child.attributes.at("interpolation")));
        if (child.name == "Log")
            CHECK(std::set<std::string>{"log10", "antiLog10", "log2", "antiLog2", "linToLog", "logToLin",
                                        "cameraLinToLog", "cameraLogToLin"}
                      .contains(child.attributes.at("style")));
        if (child.name == "Matrix" || child.name.starts_with("LUT"))
            check_array(child);
    }
    CHECK(count >= 1);
    CHECK(times[1] == 1);
    CHECK(times[2] == 1);
    const std::string id = root.attributes.at("id");
    // RFC 9562, 4: 8-4-4-4-12 hexadecimal digits; version 8, variant 10.
    REQUIRE(id.size() == std::string("urn:uuid:").size() + 36);
    CHECK(id.starts_with("urn:uuid:"));
    CHECK(id[9 + 14] == '8');
    CHECK(std::string("89ab").find(id[9 + 19]) != std::string::npos);
    return id;
}

} // namespace

TEST_CASE("CLF files are as the standard's tables say, each with an identifier of its own", "[handover]") {
    std::set<std::string> identifiers;
    const char* const rules[] = {"", "out.rgb = rgb.gbr * 2 + 0.1",
                                 "filter \"A <b> & 'c'\"\nout.rgb = vec3(r * r, g, b)",
                                 "out.rgb = vec3(r * b, g * g, b * r)", "out.rgb = vec3(r * b, g * g, b * r * 0.9)"};
    int files = 0;
    for (const char* text : rules)
        for (const bool shaped : {false, true}) {
            INFO(text);
            const lang::Rule rule = good_rule(text);
            const subject::Subject subject(rule, defaults(rule));
            baking::BakeOptions options{9, shaped ? 0.0 : -0.5, shaped ? 16.0 : 2.0};
            options.shaped = shaped;
            const auto baked = baking::bake(subject, options);
            REQUIRE(baked);
            const auto file = handover::lut_file(".clf", subject, baked.value());
            REQUIRE(file);
            identifiers.insert(checked(file.value().text));
            ++files;
            const auto again = handover::lut_file(".clf", subject, baked.value());
            CHECK(again.value().text == file.value().text); // the same content, the same identifier
        }
    CHECK(static_cast<int>(identifiers.size()) == files);
}
