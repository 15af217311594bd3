// The language server message by message (LSP 3.17): what editors ask, in any order, called off, broken, and with
// letters that count two.
#include "lsp/framing.hpp"
#include "lsp/server.hpp"
#include "lsp/text.hpp"
#include "support/support.hpp"

#include <fmt/format.h>
#include <mutex>
#include <nlohmann/json.hpp>

using namespace kasuri;
using namespace kasuri::test;
using Json = nlohmann::json;

namespace {

/// An editor that waits for every answer.
class Editor {
public:
    explicit Editor(const Json& capabilities = Json::object(), const Json& options = Json::object()) {
        initialized = ask("initialize", {{"capabilities", capabilities}, {"initializationOptions", options}});
        tell("initialized", Json::object());
    }
    void raw(const std::string& message) { server.receive(message); }
    void tell(const std::string& method, const Json& params) {
        raw(Json{{"jsonrpc", "2.0"}, {"method", method}, {"params", params}}.dump());
    }
    /// The whole answer.
    Json answer(const std::string& method, const Json& params) {
        const int id = ++last_;
        raw(Json{{"jsonrpc", "2.0"}, {"id", id}, {"method", method}, {"params", params}}.dump());
        server.settle();
        const std::lock_guard lock(mutex);
        for (const Json& each : came)
            if (each.value("id", Json()) == id && !each.contains("method"))
                return each;
        FAIL("no answer to " << method);
        return {};
    }
    Json ask(const std::string& method, const Json& params) {
        const Json whole = answer(method, params);
        INFO(whole.dump());
        CHECK(whole.contains("result"));
        return whole.value("result", Json());
    }
    void open(const std::string& text, const std::string& uri = "file:///village/dusk.kasuri") {
        tell("textDocument/didOpen",
             {{"textDocument", {{"uri", uri}, {"languageId", "kasuri"}, {"version", 1}, {"text", text}}}});
        server.settle();
    }
    void change(const Json& range, const std::string& text, int version = 2) {
        Json change = {{"text", text}};
        if (!range.is_null())
            change["range"] = range;
        tell("textDocument/didChange",
             {{"textDocument", {{"uri", here["textDocument"]["uri"]}, {"version", version}}},
              {"contentChanges", {change}}});
    }
    static Json range(std::size_t line, std::size_t from, std::size_t to) {
        return {{"start", {{"line", line}, {"character", from}}}, {"end", {{"line", line}, {"character", to}}}};
    }
    Json at(std::size_t line, std::size_t character) const {
        Json params = here;
        params["position"] = {{"line", line}, {"character", character}};
        return params;
    }
    /// The faults that were told last.
    Json faults() {
        server.settle();
        const std::lock_guard lock(mutex);
        Json last;
        for (const Json& each : came)
            if (each.value("method", "") == "textDocument/publishDiagnostics")
                last = each["params"];
        return last;
    }

    std::mutex mutex;
    std::vector<Json> came;
    Json here = {{"textDocument", {{"uri", "file:///village/dusk.kasuri"}}}};
    lsp::Server server{[this](const std::string& message) {
        const std::lock_guard lock(mutex);
        came.push_back(Json::parse(message)); // what goes out is JSON
    }};
    Json initialized;

private:
    int last_ = 0;
};

constexpr const char* dusk = "filter \"Dusk\"\n"
                             "param meet = 0.5 in 0 .. 1 \"How far\"\n"
                             "param lift = 0.1\n"
                             "param fall = 0.1\n"
                             "let c = vec3(0.8, 0.2, 0.1)\n"
                             "out.rgb = mix(rgb, rgb.gbr, meet) * c + vec3(lift - fall)\n"
                             "proof \"no NaN\" : finite\n"
                             "proof \"greys stay grey\" : neutral\n";

Json of_severity(const Json& told, int severity) {
    Json some = Json::array();
    for (const Json& each : told["diagnostics"])
        if (each["severity"] == severity)
            some.push_back(each);
    return some;
}

} // namespace

TEST_CASE("messages are cut where their headers say, and what is between them is passed over", "[lsp]") {
    lsp::Framing framing;
    const std::string two = lsp::Framing::framed("{\"a\":1}") +
        "rubbish\r\n\r\nContent-Type: x\r\ncontent-length:  3 \r\n\r\nabc" + "Content-Length: 99999999999\r\n\r\n" +
        lsp::Framing::framed("last");
    std::vector<std::string> found;
    for (const char c : two) { // byte by byte
        framing.feed({&c, 1});
        while (auto message = framing.next())
            found.push_back(*message);
    }
    CHECK(found == std::vector<std::string>{"{\"a\":1}", "abc", "last"});
    framing.feed(std::string(10'000'000, 'x')); // is not kept
    CHECK_FALSE(framing.next());
    framing.feed("\r\n\r\n" + lsp::Framing::framed("again"));
    CHECK(framing.next() == "again");
}

TEST_CASE("places count in bytes or in UTF-16, and lines end in three ways", "[lsp]") {
    using lsp::Units;
    const lsp::Text text("a\u00e9\U0001f3ee b\r\nnext\rlast\n\xff!");
    REQUIRE(text.lines() == 4);
    CHECK(text.offset({0, 2}, Units::utf16) == 3);
    CHECK(text.offset({0, 3}, Units::utf16) == 3); // inside the lantern's pair: before it
    CHECK(text.offset({0, 4}, Units::utf16) == 7);
    CHECK(text.offset({0, 99}, Units::utf16) == 9); // before \r\n
    CHECK(text.offset({0, 7}, Units::utf8) == 7);
    CHECK(text.offset({1, 4}, Units::utf16) == 15);
    CHECK(text.offset({3, 2}, Units::utf16) == text.raw().size()); // a byte that is no letter counts one
    CHECK(text.offset({9, 0}, Units::utf16) == text.raw().size());
    CHECK(text.clean().size() == text.raw().size());
    CHECK(text.clean().find('\r') == std::string::npos);
    std::mt19937 random(3);
    for (int i = 0; i < 300; ++i) { // there and back, of texts of all kinds of letters
        std::string made;
        for (int k = 0; k < 40; ++k)
            made += std::array{"a", "\u00e9", "\u20ac", "\U0001f3ee", "\n", "\r\n", "\r", " "}[random() % 8];
        lsp::Text any(made);
        for (std::size_t at = 0; at <= made.size(); ++at)
            for (const Units units : {Units::utf8, Units::utf16}) {
                const std::size_t back = any.offset(any.position(at, units), units);
                const bool inside = at < made.size() && (made[at] & 0xC0) == 0x80;
                const bool end = at > 0 && made[at - 1] == '\r' && at < made.size() && made[at] == '\n';
                if (!inside && !end)
                    REQUIRE(back == at);
            }
    }
}

TEST_CASE("what an editor asks of a text is answered", "[lsp]") {
    Editor e;
    CHECK(e.initialized["capabilities"]["positionEncoding"] == "utf-16");
    for (const char* each :
         {"completionProvider", "hoverProvider", "signatureHelpProvider", "definitionProvider", "referencesProvider",
          "documentHighlightProvider", "renameProvider", "documentFormattingProvider", "documentSymbolProvider",
          "foldingRangeProvider", "semanticTokensProvider", "colorProvider", "inlayHintProvider", "codeLensProvider",
          "codeActionProvider"})
        CHECK(e.initialized["capabilities"].contains(each));
    e.open(dusk);
    CHECK(of_severity(e.faults(), 1).empty());
    const Json completion = e.ask("textDocument/completion", e.at(5, 13)); // out.rgb = mix|
    CHECK(completion["items"][0]["label"] == "mix");
    CHECK(completion["items"][0]["textEdit"]["range"] == Editor::range(5, 10, 13));
    CHECK_FALSE(completion["items"][0].contains("documentation")); // it is asked for when it is looked at
    CHECK(e.ask("completionItem/resolve", completion["items"][0])["documentation"].get<std::string>().starts_with(
        "x * (1 - share)"));
    const std::string hover = e.ask("textDocument/hover", e.at(5, 11))["contents"]["value"];
    CHECK(hover.find("mix(x gen, y gen, share gen)") != std::string::npos);
    CHECK(hover.find("data:image/svg+xml;base64,") != std::string::npos);
    Editor modern(
        Json::parse(R"({"textDocument": {"completion": {"completionList": {"itemDefaults": ["editRange"]}}}})"));
    modern.open(dusk);
    const Json short_list = modern.ask("textDocument/completion", modern.at(5, 13));
    CHECK(short_list["itemDefaults"]["editRange"] == Editor::range(5, 10, 13));
    CHECK_FALSE(short_list["items"][0].contains("textEdit"));
    CHECK(e.ask("textDocument/hover", e.at(0, 9)).is_null());
    const Json help = e.ask("textDocument/signatureHelp", e.at(5, 19));
    CHECK(help["signatures"][0]["label"] == "mix(x gen, y gen, share gen) gen");
    CHECK(help["signatures"][0]["parameters"][0]["label"] == Json({11, 16}));
    CHECK(e.ask("textDocument/definition", e.at(5, 29))["range"] == Editor::range(1, 6, 10));
    CHECK(e.ask("textDocument/references", e.at(1, 7)).size() == 2);
    Json without = e.at(1, 7);
    without["context"] = {{"includeDeclaration", false}};
    CHECK(e.ask("textDocument/references", without).size() == 1);
    CHECK(e.ask("textDocument/documentHighlight", e.at(1, 7)).size() == 2);
    CHECK(e.ask("textDocument/prepareRename", e.at(5, 29))["placeholder"] == "meet");
    CHECK(e.ask("textDocument/prepareRename", e.at(5, 11)).is_null()); // the language's own
    Json rename = e.at(5, 29);
    rename["newName"] = "far";
    CHECK(e.ask("textDocument/rename", rename)["changes"]["file:///village/dusk.kasuri"].size() == 2);
    rename["newName"] = "c";
    CHECK(e.answer("textDocument/rename", rename)["error"]["code"] == -32803);
    const Json symbols = e.ask("textDocument/documentSymbol", e.here);
    CHECK(symbols.size() == 8);
    CHECK((symbols[1]["name"] == "meet" && symbols[1]["selectionRange"] == Editor::range(1, 6, 10)));
    CHECK(e.ask("textDocument/foldingRange", e.here) ==
          Json::array({{{"startLine", 1}, {"endLine", 3}}})); // three parameters
    const Json tokens = e.ask("textDocument/semanticTokens/full", e.here)["data"];
    REQUIRE(tokens.size() > 30);
    CHECK(tokens.size() % 5 == 0);
    CHECK(Json(std::vector<Json>(tokens.begin(), tokens.begin() + 10)) ==
          Json({0, 0, 6, 0, 0, 0, 7, 6, 2, 0})); // filter "Dusk"
    CHECK(e.ask("textDocument/formatting", e.here).empty());
    e.change(Editor::range(5, 7, 10), "=");
    const Json edits = e.ask("textDocument/formatting", e.here);
    REQUIRE(edits.size() == 1);
    CHECK(edits[0]["newText"].get<std::string>().find("out.rgb = mix(") != std::string::npos);
}

TEST_CASE("faults are told with their fixes, and mended they are gone", "[lsp]") {
    Editor e;
    e.open("let lantern = \"\U0001f3ee\"\n");
    e.change({}, "note \"\U0001f3ee\"\nout.r = lumminance(rgb)\n");
    const Json faults = e.faults()["diagnostics"];
    REQUIRE(faults.size() == 1);
    CHECK((faults[0]["code"] == "K202" && faults[0]["severity"] == 1));
    CHECK(faults[0]["range"] == Editor::range(1, 8, 18));
    Json asked = e.here;
    asked["range"] = Editor::range(1, 0, 20);
    asked["context"] = {{"diagnostics", Json::array()}};
    const Json actions = e.ask("textDocument/codeAction", asked);
    REQUIRE(actions.size() >= 1);
    CHECK((actions[0]["kind"] == "quickfix" && actions[0]["isPreferred"] == true));
    const Json edit = actions[0]["edit"]["changes"]["file:///village/dusk.kasuri"][0];
    e.change(edit["range"], edit["newText"], 3);
    CHECK((e.faults()["diagnostics"].empty() && e.faults()["version"] == 3));
    e.tell("textDocument/didClose", e.here);
    CHECK(e.faults()["diagnostics"].empty());
    CHECK(e.answer("textDocument/hover", e.at(0, 0))["error"]["code"] == -32602);
}

TEST_CASE("the text of an editor that counts in UTF-16, or in bytes, stays the same as ours", "[lsp]") {
    for (const bool bytes : {false, true}) {
        Editor e(bytes ? Json{{"general", {{"positionEncodings", {"utf-8", "utf-16"}}}}} : Json::object());
        CHECK(e.initialized["capabilities"]["positionEncoding"] == (bytes ? "utf-8" : "utf-16"));
        lsp::Text theirs("");
        const auto units = bytes ? lsp::Units::utf8 : lsp::Units::utf16;
        e.open("");
        std::mt19937 random(11);
        for (int version = 2; version < 300; ++version) {
            // What people type, somewhere: letters of one and two units, whole lines, taking away.
            const std::size_t size = theirs.raw().size();
            std::size_t begin = random() % (size + 1),
                        end = std::min(size, begin + (random() % 3 == 0 ? random() % 20 : 0));
            const auto from = theirs.position(begin, units), to = theirs.position(end, units);
            begin = theirs.offset(from, units);
            end = std::max(begin, theirs.offset(to, units));
            const std::string
                typed = std::array{"r",      " ",      "\n", "out.r = g\n", "\U0001f3ee",
                                   "\u00e9", "// x\n", "(",  "\"",          "param a = 1\n"}[random() % 10];
            e.change({{"start", {{"line", from.line}, {"character", from.character}}},
                      {"end", {{"line", to.line}, {"character", to.character}}}},
                     typed, version);
            theirs.replace(begin, end, typed);
        }
        // The same faults at the same places as of the whole text at once.
        const Json so_far = e.faults();
        Editor fresh(bytes ? Json{{"general", {{"positionEncodings", {"utf-8"}}}}} : Json::object());
        fresh.open(theirs.raw());
        CHECK(so_far["diagnostics"] == fresh.faults()["diagnostics"]);
        CHECK(e.ask("textDocument/semanticTokens/full", e.here) ==
              fresh.ask("textDocument/semanticTokens/full", fresh.here));
    }
}

TEST_CASE("colours are shown as the screen has them, picked back into the working space, and values stand beside",
          "[lsp]") {
    Editor e(Json::object(), {{"colour", {0.5, 0.25, 0.125}}});
    e.open("working acescg\nlet dye = vec3(0.18, 0.18, 0.18)\nout.rgb = rgb * 2 + dye\n");
    const Json found = e.ask("textDocument/documentColor", e.here);
    REQUIRE(found.size() == 1);
    CHECK(found[0]["range"] == Editor::range(1, 10, 32));
    // Grey stays grey whatever the primaries: 0.18 of light is 0.4613561295 of sRGB (IEC 61966-2-1).
    CHECK(found[0]["color"]["green"].get<double>() == Approx(0.46135613).margin(1e-6));
    Json picked = e.here;
    picked["color"] = {{"red", 0.5}, {"green", 0.5}, {"blue", 0.5}, {"alpha", 1}};
    picked["range"] = found[0]["range"];
    const Json written = e.ask("textDocument/colorPresentation", picked);
    CHECK(written[0]["label"] == "0.21404, 0.21404, 0.21404");
    e.change(written[0]["textEdit"]["range"], written[0]["textEdit"]["newText"]);
    Json all = e.here;
    all["range"] = {{"start", {{"line", 0}, {"character", 0}}}, {"end", {{"line", 9}, {"character", 0}}}};
    const Json hints = e.ask("textDocument/inlayHint", all);
    REQUIRE(hints.size() == 2);
    CHECK(hints[1]["label"] == "= 1.214, 0.714, 0.464");
    CHECK(hints[1]["position"] == Json({{"line", 2}, {"character", 23}}));
    e.tell("workspace/didChangeConfiguration", {{"settings", {{"kasuri", {{"values", false}}}}}});
    CHECK(e.ask("textDocument/inlayHint", all).empty());
}

TEST_CASE("proofs are measured beside, told as lenses, and those that do not hold as warnings", "[lsp]") {
    Editor e(Json::parse(R"({"workspace": {"codeLens": {"refreshSupport": true}}})"));
    e.open(dusk);
    e.server.settle_proofs();
    const Json lenses = e.ask("textDocument/codeLens", e.here);
    REQUIRE(lenses.size() == 2);
    CHECK(lenses[0]["command"]["title"].get<std::string>().starts_with("bounded: 0 <= 0"));
    CHECK(lenses[1]["command"]["title"].get<std::string>().starts_with("does not hold: "));
    const Json warned = of_severity(e.faults(), 2);
    REQUIRE(warned.size() == 1);
    CHECK(warned[0]["range"]["start"]["line"] == 7);
    const auto refreshes = std::count_if(e.came.begin(), e.came.end(), [](const Json& m) {
        return m.value("method", "") == "workspace/codeLens/refresh";
    });
    CHECK(refreshes == 1);
    e.change(Editor::range(4, 13, 26), "1, 1, 1");
    CHECK(e.ask("textDocument/codeLens", e.here)[1]["command"]["title"].get<std::string>().size() >
          5); // at once, measured or not
    e.server.settle_proofs();
    CHECK(e.ask("textDocument/codeLens", e.here)[1]["command"]["title"].get<std::string>().starts_with("proved: "));
    CHECK(of_severity(e.faults(), 2).empty());
}

TEST_CASE("wrong orders, broken messages and what is called off are answered as the protocol says", "[lsp]") {
    std::mutex mutex;
    std::vector<Json> came;
    lsp::Server server([&](const std::string& message) {
        const std::lock_guard lock(mutex);
        came.push_back(Json::parse(message));
    });
    const auto code_of = [&](const std::string& message) -> Json {
        const std::size_t before = came.size();
        server.receive(message);
        server.settle();
        return came.size() > before ? came.back().value("error", Json::object()).value("code", Json()) : Json();
    };
    CHECK(code_of("{\"id\": 1, \"method\": \"textDocument/hover\"}") == -32002);
    CHECK(code_of("{") == -32700);
    CHECK(code_of("[1, 2]") == -32600);
    CHECK(code_of("{\"id\": 1, \"method\": 7}") == -32600);
    CHECK(code_of("{\"method\": \"textDocument/didOpen\", \"params\": {}}").is_null()); // a note is never answered
    CHECK(code_of("{\"id\": 2, \"method\": \"initialize\", \"params\": {}}").is_null());
    CHECK(code_of("{\"id\": 3, \"method\": \"village/walk\"}") == -32601);
    CHECK(code_of("{\"id\": 4, \"method\": \"textDocument/hover\", \"params\": {\"textDocument\": {}}}") == -32602);
    CHECK(
        code_of("{\"id\": 4, \"method\": \"textDocument/hover\", \"params\": {\"textDocument\": {\"uri\": \"x\"}}}") ==
        -32602);
    for (const char* wrong :
         {"{\"method\": \"textDocument/didChange\", \"params\": {\"textDocument\": {\"uri\": \"x\"}, "
          "\"contentChanges\": [{}]}}",
          "{\"method\": \"textDocument/didClose\", \"params\": {\"textDocument\": 3}}", "{\"result\": 4, \"id\": 77}",
          "{\"method\": \"workspace/didChangeConfiguration\", \"params\": {\"settings\": [1]}}"})
        CHECK(code_of(wrong).is_null());
    server.receive("{\"method\": \"textDocument/didOpen\", \"params\": {\"textDocument\": {\"uri\": \"u\", \"text\": "
                   "\"out.r = g\"}}}");
    server.settle();
    const Json hover = {{"method", "textDocument/hover"},
                        {"params", {{"textDocument", {{"uri", "u"}}}, {"position", {{"line", 0}, {"character", -5}}}}}};
    Json asked = hover;
    asked["id"] = 5;
    CHECK((code_of(asked.dump()).is_null() ||
           code_of(asked.dump()) == -32602)); // a place before the line: none, or an error
    // What is called off before its turn comes is not worked on.
    came.clear();
    server.receive("{\"method\": \"$/cancelRequest\", \"params\": {\"id\": 9}}");
    asked["id"] = 9;
    server.receive(asked.dump());
    asked["id"] = 10;
    server.receive(asked.dump());
    server.settle();
    REQUIRE(came.size() == 2);
    CHECK(came[0]["error"]["code"] == -32800);
    CHECK(came[1]["id"] == 10);
    CHECK(server.exit_code() == 1);
    CHECK(code_of("{\"id\": 11, \"method\": \"shutdown\"}").is_null());
    CHECK(code_of("{\"id\": 12, \"method\": \"textDocument/hover\"}") == -32600);
    CHECK_FALSE(server.receive("{\"method\": \"exit\"}"));
    CHECK(server.exit_code() == 0);
}

TEST_CASE("broken and senseless messages never end the server", "[lsp][fuzz]") {
    std::mutex mutex;
    std::size_t came = 0;
    lsp::Server server([&](const std::string& message) {
        const std::lock_guard lock(mutex);
        came += Json::parse(message).is_object() ? 1 : 0;
    });
    server.receive("{\"id\": 0, \"method\": \"initialize\", \"params\": {}}");
    const std::string open =
        Json{{"method", "textDocument/didOpen"}, {"params", {{"textDocument", {{"uri", "u"}, {"text", dusk}}}}}}.dump();
    std::mt19937 random(17);
    const std::vector<std::string> methods = {
        "completion",     "hover",        "signatureHelp",       "codeAction",    "formatting",
        "definition",     "references",   "documentHighlight",   "rename",        "prepareRename",
        "documentSymbol", "foldingRange", "semanticTokens/full", "documentColor", "colorPresentation",
        "inlayHint",      "codeLens"};
    std::size_t asked = 1;
    for (int round = 0; round < 400; ++round) {
        server.receive(open);
        const std::size_t line = random() % 12, character = random() % 50;
        Json params = {{"textDocument", {{"uri", "u"}}},
                       {"position", {{"line", line}, {"character", character}}},
                       {"newName", "far"},
                       {"range", Editor::range(line, character, random() % 60)},
                       {"color", {{"red", 1}, {"green", 0.5}, {"blue", 0}, {"alpha", 1}}}};
        Json change = {{"method", "textDocument/didChange"},
                       {"params",
                        {{"textDocument", {{"uri", "u"}}},
                         {"contentChanges",
                          {{{"range", params["range"]},
                            {"text", std::string(random() % 5, static_cast<char>(32 + random() % 90))}}}}}}};
        server.receive(change.dump());
        const std::string request = Json{
            {"id", round},
            {"method", "textDocument/" + methods[random() % methods.size()]},
            {"params", params}}.dump();
        server.receive(request);
        ++asked;
        std::string broken = request;
        for (int k = 0; k < 3; ++k)
            broken[random() % broken.size()] = static_cast<char>(random());
        server.receive(broken);
    }
    server.settle();
    CHECK(came >= asked); // every request has its answer
}
