#include "cli/driver.hpp"

using namespace kasuri::test;

namespace {

const std::string demo_filters = KASURI_SOURCE_DIR "/data/filters";

bool holds(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

} // namespace

TEST_CASE("explain shows each stage", "[cli]") {
    Folder folder;
    const std::string rule = "explain --rule 'param k = 1; let c = hsv(rgb); out.rgb = blur(rgb(c) * k, 2)' --stage ";
    CHECK(cli(folder, rule + "tokens").out.starts_with("1:1 keyword param\n1:7 name k\n1:9 symbol =\n1:11 number 1\n"));
    CHECK(cli(folder, rule + "tree").out == "param k 1\nlet c (hsv rgb)\nassign out.rgb (blur (* (rgb c) k) 2)\n");
    const std::string types = cli(folder, rule + "types").out;
    CHECK(types.starts_with("param k = 1 in 0 .. 1\nc =\n    hsv( ) : hsv\n        rgb : vec3\n"));
    CHECK(holds(types, "k : float, per picture\n"));
    CHECK(holds(types, "2 : float, constant\n"));
    const std::string graph = cli(folder, rule + "graph").out;
    CHECK(holds(graph, "= parameter 0\n"));
    CHECK(holds(graph, "= blur n"));
    CHECK_FALSE(holds(graph, "hexcone")); // there and back is nothing
    CHECK(cli(folder, "explain --stage graph --rule 'out.r = g * 1 + 0'").out ==
          "n1 = g\nn2 = b\nn3 = a\nout n1 n1 n2 n3\n");
    CHECK(holds(cli(folder, "explain --plain --stage graph --rule 'out.r = g * 1 + 0'").out, "= mul n1"));
    const std::string tiles = cli(folder, rule + "tiles").out;
    CHECK(tiles.starts_with("pass 1 of 2: 3 instructions, 3 registers\n"));
    CHECK(holds(tiles, "pass 2 of 2: 0 instructions"));
    // Without --stage: all of them, under their headings.
    const std::string all = cli(folder, "explain " + demo_filters + "/indigo-over-madder.kasuri").out;
    for (const char* stage : {"== tokens\n", "\n== tree\n", "\n== types\n", "\n== graph\n", "\n== tiles\n"})
        CHECK(holds(all, stage));
}

TEST_CASE("explain of a broken rule goes as far as it can", "[cli]") {
    Folder folder;
    const Ran ran = cli(folder, "explain --rule 'out.rgb = clmp(rgb, 0, 1)'");
    CHECK(ran.exit == 1);
    CHECK(holds(ran.out, "== tree\nassign out.rgb (clmp rgb 0 1)\n"));
    CHECK_FALSE(holds(ran.out, "== types"));
    CHECK(holds(ran.err, "error K202"));
    CHECK(cli(folder, "explain").exit == 2);
    CHECK(cli(folder, "explain --rule '' --stage soup").exit == 2);
    CHECK(cli(folder, "explain " + folder.file("none.kasuri")).exit == 3);
}

TEST_CASE("functions, sources and proofs are in the dump of types", "[cli]") {
    Folder folder;
    const std::string out =
        cli(folder,
            "explain --stage types --rule 'source lamp : vec3\nfn twice(c vec3) { let d = c\n d * 2 }\n"
            "out.rg = twice(lamp).rg\nproof \"a\" : out.r >= 0\nproof \"b\" : finite'")
            .out;
    for (const char* part :
         {"source lamp : vec3\n", "fn twice(c vec3) vec3\n    d =\n        c : vec3\n    result\n",
          "out[0,1] =\n    components 0 1 : vec2\n        twice( ) : vec3\n            lamp : vec3\n",
          "2 : float, constant\n", "proof \"a\"\n    >= : bool\n", "proof \"b\" : finite\n"})
        CHECK(holds(out, part));
}

TEST_CASE("format writes the canonical form, or only names what would change", "[cli]") {
    Folder folder;
    const std::string loose = folder.write("loose.kasuri", "out.r=g*2// why\n"),
                      good = folder.write("good.kasuri", "out.r = g\n");
    const std::string broken = folder.write("broken.kasuri", "out.r = (\n");
    Ran ran = cli(folder, "format --check " + good + " " + loose);
    CHECK(ran.exit == 1);
    CHECK(ran.out == loose + "\n");
    CHECK(folder.read("loose.kasuri") == "out.r=g*2// why\n");
    ran = cli(folder, "format " + good + " " + loose);
    CHECK(ran.exit == 0);
    CHECK(ran.out == loose + "\n");
    CHECK(folder.read("loose.kasuri") == "out.r = g * 2  // why\n");
    CHECK(cli(folder, "format --check " + loose).exit == 0);
    ran = cli(folder, "format " + broken);
    CHECK(ran.exit == 1);
    CHECK(holds(ran.err, "K111"));
    CHECK(holds(ran.err, "left as it is"));
    CHECK(folder.read("broken.kasuri") == "out.r = (\n");
    CHECK(cli(folder, "format " + folder.file("none.kasuri")).exit == 3);
}

TEST_CASE("eval reads named columns, rows of a picture, and parameters of every kind", "[cli]") {
    Folder folder;
    CHECK(cli(folder, "eval --columns x,g,r,b --print 'vec4(rgb, x)'", "9,2,1,3\n").out == "1,2,3,9\n");
    CHECK(cli(folder, "eval --columns x,y --rule 'out.r = x * y'", "x,y\n3,4\n").out == "12,0,0\n");
    CHECK(cli(folder, "eval --reference --columns x,y --rule 'out.r = x * y'", "3,4\n").out == "12,0,0\n");
    for (const char* wrong : {"r,r", "r,out", "r,pos", "r,,b", "r,2x"}) {
        INFO(wrong);
        CHECK(cli(folder, std::string("eval --columns ") + wrong + " --print r", "1,1,1\n").exit == 2);
    }
    Ran ran = cli(folder, "eval --columns x,y --print x", "1,2\n3\n");
    CHECK(ran.exit == 3);
    CHECK(holds(ran.err, "standard input:2:1: 1 columns; expected x,y"));
    ran = cli(folder, "eval --width 2 --print r", "1,1,1\n1,1,1\n1,1,1\n");
    CHECK(ran.exit == 2);
    CHECK(holds(ran.err, "3 lines do not divide into rows of 2"));
    // A blur is the same by both ways, within what docs/language.md promises.
    std::string rows;
    for (int i = 0; i < 40; ++i)
        rows += (i == 13 ? "1" : "0") + std::string(",0,0\n");
    std::istringstream fast(cli(folder, "eval --width 8 --print 'blur(r, 1.5)'", rows).out),
        exact(cli(folder, "eval --width 8 --reference --rule 'out.r = blur(r, 1.5)'", rows).out);
    double x = 0;
    int compared = 0;
    for (std::string line; std::getline(exact, line);) {
        REQUIRE(fast >> x);
        CHECK(std::abs(x - std::stod(line)) < 2e-5);
        compared += std::stod(line) > 0.01 ? 1 : 0;
    }
    CHECK(compared > 10);
    const std::string kinds = "eval --rule 'param n = 2 in 0 .. 8 whole; param on = true; param way = soft of soft, "
                              "hard; param tint = vec3(1, 1, 1)\n"
                              "out.rgb = (on ? rgb * n : rgb) * (way.hard ? tint : vec3(1))' ";
    CHECK(cli(folder, kinds, "1,2,3\n").out == "2,4,6\n");
    CHECK(cli(folder, kinds + "--set on=off", "1,2,3\n").out == "1,2,3\n");
    CHECK(cli(folder, kinds + "--set n=3 --set way=hard --set tint=0,1,0.5", "1,2,3\n").out == "0,6,4.5\n");
    CHECK(cli(folder, kinds + "--set way=hard --set tint.g=0", "1,2,3\n").out == "2,0,6\n");
    for (const char* wrong : {"on=maybe", "way=middle", "tint=1,2", "n=two", "m=1", "n"}) {
        INFO(wrong);
        CHECK(cli(folder, kinds + "--set " + wrong, "1,2,3\n").exit == 2);
    }
}
