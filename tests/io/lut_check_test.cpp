// What is not handed to the library's reader of LUTs, which cannot be called off.
#include "io/lut_check.hpp"
#include "io/lut_file.hpp"
#include "support/support.hpp"

using namespace kasuri;
using namespace kasuri::test;

namespace {

std::string fault(const std::string& text, const std::string& ending) {
    const Status may = io::may_be_read_as_lut(text, ending, "a" + ending);
    return may ? std::string() : may.error().what;
}

const std::string csp =
    "CSPLUTV100\n1D\n\nBEGIN METADATA\nmade by hand\nEND METADATA\n\n"
    "2\n0.0 1.0\n0.0 1.0\n2\n0.0 1.0\n0.0 1.0\n2\n0.0 1.0\n0.0 1.0\n\n3\n0 0 0\n0.25 0.25 0.25\n1 1 1\n";

} // namespace

TEST_CASE("a .csp that ends early is refused before its reader waits for ever", "[io][lut]") {
    CHECK(fault(csp, ".csp").empty());
    const auto lut = io::read_lut(csp, ".csp", "hand.csp");
    REQUIRE(lut);
    float r = 0.5f, g = 0, b = 1;
    float* const planes[3] = {&r, &g, &b};
    lut.value()->apply(planes, 1);
    CHECK(r == Approx(0.25).margin(1e-3));
    CHECK(b == Approx(1).margin(1e-5));
    CHECK_FALSE(fault("CSPLUTV100\n3D\n\nBEGIN METADATA\n", ".csp").empty());
    // Cut anywhere, it is refused, or whole but for the end of its last line.
    for (std::size_t length = 0; length + 6 < csp.size(); ++length) {
        INFO(length);
        CHECK_FALSE(fault(csp.substr(0, length), ".csp").empty());
    }
    CHECK_FALSE(fault("CSPLUTV100\n3D\n\n0\n0\n0\n1000000 1000000 1000000\n0 0 0\n", ".csp").empty());
    CHECK_FALSE(fault("CSPLUTV100\n3D\n\n0\n0\n0\n-2 2 2\n0 0 0\n", ".csp").empty());
    const auto cut = io::read_lut(csp.substr(0, 60), ".csp", "hand.csp");
    REQUIRE_FALSE(cut);
    CHECK(cut.error().text() ==
          "hand.csp: is not whole: its curves or its table end too early. The file may be cut short; copy it again.");
}

TEST_CASE("a LUT that refers to another file is refused, however it is written", "[io][lut]") {
    const auto ctf = [](const std::string& inside) {
        return "<?xml version=\"1.0\"?>\n<ProcessList version=\"1.3\" id=\"a\">" + inside + "</ProcessList>\n";
    };
    const std::string refers = "refers to another file, whose content could change what it does";
    CHECK(fault(ctf("<Reference path=\"/etc/b.clf\" inBitDepth=\"16f\" outBitDepth=\"16f\"/>"), ".ctf") == refers);
    CHECK(fault(ctf("<REFERENCE\n path=\"b.clf\"/>"), ".ctf") == refers);
    CHECK(fault("<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>" + ctf("&x;"), ".clf") == refers);
    CHECK(fault(ctf("<Description>No Reference at all</Description>"), ".ctf").empty());
    CHECK(fault(ctf("<ReferenceWhite/>"), ".ctf").empty());
    CHECK(fault(std::string("<\0R\0", 4), ".ctf") == "is not a text"); // UTF-16 would hide it
    CHECK(fault(ctf("<Reference path=\"b\"/>"), ".cube").empty());     // no XML
}

TEST_CASE("a broken LUT is told in one line, by its own name", "[io][lut]") {
    for (const auto& [ending, text] : {std::pair<std::string, std::string>{".cube", "LUT_3D_SIZE 2\n0 0 0\n"},
                                       {".cube", "LUT_3D_SIZE 100000\n"},
                                       {".clf", "<ProcessList id=\"a\" compCLFversion=\"3.0\"><Matrix/></ProcessList>"},
                                       {".spi3d", "SPILUT 1.0\n3 3\n"},
                                       {".3dl", "rubbish"}}) {
        INFO(ending << text);
        const auto read = io::read_lut(text, ending, "mine" + ending);
        REQUIRE_FALSE(read);
        const std::string said = read.error().text();
        CHECK(said.starts_with("mine" + ending + ": cannot be understood: "));
        CHECK(said.size() < 320);
        CHECK(said.find("/tmp") == std::string::npos);
        CHECK(said.find('\n') == std::string::npos);
    }
}
