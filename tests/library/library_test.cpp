// libkasuri by its C header: compiling, values, sources, what is said, what is known.
#include "kasuri.h"
#include "library/owned.hpp"
#include "support/support.hpp"

using namespace kasuri::test;
using Catch::Matchers::Contains;

namespace {

constexpr const char* dusk = "filter \"Dusk\"\n"
                             "note \"Light goes\"\n"
                             "param meet = 0.25 in 0 .. 1 \"How far\"\n"
                             "param turns = 2 in 0 .. 5 whole\n"
                             "param way = warm of warm, cold\n"
                             "param dye = vec3(0.5, 0.25, 0.125)\n"
                             "preset \"Deep\" meet = 1, way = cold\n"
                             "out.rgb = mix(rgb, rgb.gbr, meet) * (way.cold ? 2 : 1) * dye + vec3(turns)\n";

} // namespace

TEST_CASE("a text becomes a filter, with its words, space and identity", "[library]") {
    const Filter filter = compiled("filter \"Dusk\"\nnote \"Light goes\"\nworking acescg\nout.g = b\n");
    CHECK(std::string(kasuri_title(filter.get())) == "Dusk");
    CHECK(std::string(kasuri_note(filter.get())) == "Light goes");
    CHECK(std::string(kasuri_space(filter.get())) == "acescg");
    CHECK(std::string(kasuri_identity(filter.get())).size() == 32);
    CHECK(kasuri_looks_at_places(filter.get()) == 0);
    CHECK(kasuri_looks_at_places(compiled("out.rgb = blur(rgb, 2)").get()) == 1);
    CHECK(kasuri_looks_at_places(compiled("out.r = pos.x").get()) == 1);
    CHECK(std::string(kasuri_version()) ==
          fmt::format("{}.{}.{}", KASURI_VERSION_MAJOR, KASURI_VERSION_MINOR, KASURI_VERSION_PATCH));
}

TEST_CASE("faults of a text come as data, and their fixes mend it", "[library]") {
    std::string text = "let warm = lumminance(rgb)\nout.r = warm\n";
    kasuri_filter* filter = nullptr;
    kasuri_said* said = nullptr;
    REQUIRE(kasuri_compile(text.c_str(), nullptr, &filter, &said) == KASURI_TEXT_FAULT);
    CHECK_FALSE(filter);
    REQUIRE(kasuri_fault_count(said) >= 1);
    kasuri_fault fault;
    REQUIRE(kasuri_fault_at(said, 0, &fault) == KASURI_OK);
    CHECK(std::string(fault.code).substr(0, 2) == "K2");
    CHECK(std::string(fault.severity) == "error");
    CHECK((fault.line == 1 && fault.column == 12));
    CHECK(text.substr(fault.begin, fault.end - fault.begin) == "lumminance");
    CHECK_THAT(fault.message, Contains("lumminance"));
    CHECK_THAT(kasuri_said_text(said), Contains("rule:1:12: error"));
    REQUIRE(fault.fixes >= 1);
    kasuri_fix fix;
    REQUIRE(kasuri_fix_at(said, 0, 0, &fix) == KASURI_OK);
    text.replace(fix.begin, fix.end - fix.begin, fix.text);
    CHECK(kasuri_fault_at(said, 99, &fault) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_fix_at(said, 0, 99, &fix) == KASURI_BAD_ARGUMENT);
    kasuri_said_free(said);
    CHECK(compiled(text));
    // Hints come with what is good.
    REQUIRE(kasuri_compile("let unused = r\nout.g = b\n", nullptr, &filter, &said) == KASURI_OK);
    CHECK(kasuri_fault_count(said) == 1);
    kasuri_said_free(said);
    kasuri_filter_free(filter);
}

TEST_CASE("values are set by number and as they are written, and presets are taken", "[library]") {
    const Filter filter = compiled(dusk);
    REQUIRE(kasuri_parameter_count(filter.get()) == 6);
    const auto parameter = [&](size_t i) {
        kasuri_parameter p;
        REQUIRE(kasuri_parameter_at(filter.get(), i, &p) == KASURI_OK);
        return p;
    };
    CHECK((std::string(parameter(0).name) == "meet" && parameter(0).value == 0.25 && parameter(0).high == 1));
    CHECK(std::string(parameter(0).description) == "How far");
    CHECK(std::string(parameter(1).kind) == "whole");
    CHECK((std::string(parameter(2).kind) == "choice" && parameter(2).choices == 2));
    CHECK(std::string(kasuri_choice_at(filter.get(), 2, 1)) == "cold");
    CHECK_FALSE(kasuri_choice_at(filter.get(), 2, 2));
    CHECK((std::string(parameter(4).kind) == "colour" && std::string(parameter(4).name) == "dye.g"));
    CHECK(kasuri_set(filter.get(), "meet", 0.75, nullptr) == KASURI_OK);
    CHECK((parameter(0).value == 0.75 && parameter(0).usual == 0.25));
    CHECK(kasuri_set_text(filter.get(), "way", "cold", nullptr) == KASURI_OK);
    CHECK(parameter(2).value == 1);
    CHECK(kasuri_set_text(filter.get(), "dye", "1, 0.5,0", nullptr) == KASURI_OK);
    CHECK((parameter(3).value == 1 && parameter(4).value == 0.5 && parameter(5).value == 0));
    const struct {
        const char *name, *value, *words;
    } wrong[] = {{"meat", "1", "Did you mean meet?"},     {"meet", "2", "meet goes from 0 to 1, and not to 2"},
                 {"meet", "nan", "and not to nan"},       {"turns", "1.5", "in whole numbers"},
                 {"way", "north", "way cannot be north"}, {"dye", "1,2", "a colour is three numbers"}};
    for (const auto& each : wrong) {
        kasuri_said* said = nullptr;
        CHECK(kasuri_set_text(filter.get(), each.name, each.value, &said) == KASURI_BAD_ARGUMENT);
        CHECK_THAT(kasuri_said_text(said), Contains(each.words));
        kasuri_said_free(said);
    }
    const Filter other(kasuri_copy(filter.get()));
    CHECK(std::string(kasuri_identity(other.get())) == kasuri_identity(filter.get()));
    REQUIRE(kasuri_preset_count(other.get()) == 1);
    CHECK(kasuri_use_preset(other.get(), kasuri_preset_at(other.get(), 0), nullptr) == KASURI_OK);
    CHECK(std::string(kasuri_identity(other.get())) != kasuri_identity(filter.get()));
    CHECK((parameter(0).value == 0.75)); // the first is as it was
    kasuri_reset(filter.get());
    CHECK(parameter(0).value == 0.25);
    kasuri_said* said = nullptr;
    CHECK(kasuri_use_preset(filter.get(), "Deap", &said) == KASURI_BAD_ARGUMENT);
    CHECK_THAT(kasuri_said_text(said), Contains("Did you mean Deep?"));
    kasuri_said_free(said);
}

TEST_CASE("files of every kind are opened, and what is none says so", "[library]") {
    const TemporaryFolder folder;
    write(folder / "used.kasuri", "fn half_of(x: float) = 0.5 * x\n");
    write(folder / "one.kasuri", "use \"used.kasuri\"\nout.r = half_of(r)\n");
    write(folder / "list.cc",
          "<ColorCorrection id=\"a\"><SOPNode><Slope>2 1 1</Slope><Offset>0 0 0</Offset><Power>1 1 1</Power></SOPNode>"
          "</ColorCorrection>");
    write(folder / "swap.cube", "LUT_3D_SIZE 2\n0 0 0\n0 1 0\n0 0 1\n0 1 1\n1 0 0\n1 1 0\n1 0 1\n1 1 1\n");
    const auto opened = [&](const char* name, const char* space = nullptr) {
        kasuri_filter* filter = nullptr;
        kasuri_said* said = nullptr;
        const kasuri_status status = kasuri_open((folder / name).c_str(), space, &filter, &said);
        INFO(name << ": " << kasuri_said_text(said));
        CHECK(status == KASURI_OK);
        kasuri_said_free(said);
        return Filter(filter);
    };
    CHECK(applied(opened("one.kasuri"), {1, 0.5, 0.25}) == std::array<float, 3>{0.5F, 0.5F, 0.25F});
    CHECK(applied(opened("list.cc"), {0.25, 0.5, 0.25}) == std::array<float, 3>{0.5F, 0.5F, 0.25F});
    const Filter lut = opened("swap.cube", "rec709-linear");
    const auto swapped = applied(lut, {0.25, 0.5, 0.75});
    CHECK(swapped[0] == Approx(0.75).margin(1e-6)); // the table says: r is what was b, g what was r, b what was g
    CHECK(swapped[1] == Approx(0.25).margin(1e-6));
    CHECK(swapped[2] == Approx(0.5).margin(1e-6));
    const Filter look = Filter([&] {
        kasuri_filter* filter = nullptr;
        REQUIRE(kasuri_open(KASURI_SOURCE_DIR "/data/looks/three-times-of-day.kasurilook", nullptr, &filter, nullptr) ==
                KASURI_OK);
        return filter;
    }());
    CHECK(std::string(kasuri_title(look.get())) == "Three times of day");
    REQUIRE(kasuri_parameter_count(look.get()) > 2);
    kasuri_parameter first;
    REQUIRE(kasuri_parameter_at(look.get(), 0, &first) == KASURI_OK);
    CHECK(kasuri_set(look.get(), first.name, first.low, nullptr) == KASURI_OK);
    write(folder / "broken.kasurilook", "{");
    write(folder / "broken.cube", "LUT_3D_SIZE 2\n0 0\n");
    write(folder / "bad.kasuri", "out.r = \n");
    const struct {
        const char* name;
        kasuri_status status;
        const char* words;
    } wrong[] = {{"none.kasuri", KASURI_FILE, "none.kasuri"},
                 {"broken.kasurilook", KASURI_FILE, "broken.kasurilook"},
                 {"broken.cube", KASURI_FILE, "broken.cube"},
                 {"bad.kasuri", KASURI_TEXT_FAULT, "rule:1"}};
    for (const auto& each : wrong) {
        kasuri_filter* filter = nullptr;
        kasuri_said* said = nullptr;
        CHECK(kasuri_open((folder / each.name).c_str(), nullptr, &filter, &said) == each.status);
        CHECK_FALSE(filter);
        CHECK_THAT(kasuri_said_text(said), Contains(each.words));
        kasuri_said_free(said);
    }
    kasuri_filter* filter = nullptr;
    kasuri_said* said = nullptr;
    CHECK(kasuri_open((folder / "swap.cube").c_str(), "aces-cg", &filter, &said) == KASURI_BAD_ARGUMENT);
    CHECK_THAT(kasuri_said_text(said), Contains("Did you mean acescg?"));
    kasuri_said_free(said);
}

TEST_CASE("further pictures are given by name and copied", "[library]") {
    const Filter filter =
        compiled("source lamp \"The lamp's light\"\nsource plate : float\nout.rgb = rgb * plate + lamp.rgb\n");
    REQUIRE(kasuri_source_count(filter.get()) == 2);
    kasuri_source source;
    REQUIRE(kasuri_source_at(filter.get(), 0, &source) == KASURI_OK);
    CHECK((std::string(source.name) == "lamp" && source.channels == 4 && source.given == 0));
    float in[] = {1, 2, 3, 4, 5, 6}, out[6];
    const kasuri_picture from = kasuri_interleaved(in, 2, 1, 3, KASURI_FLOAT32),
                         to = kasuri_interleaved(out, 2, 1, 3, KASURI_FLOAT32);
    kasuri_said* said = nullptr;
    CHECK(kasuri_apply(filter.get(), &from, &to, 1, nullptr, &said) == KASURI_BAD_ARGUMENT);
    CHECK_THAT(kasuri_said_text(said), Contains("no picture was given for the source lamp"));
    kasuri_said_free(said);
    unsigned char lamp[] = {255, 0, 0, 0, 255, 51};
    float plate[] = {2, 3};
    kasuri_picture light = kasuri_interleaved(lamp, 2, 1, 3, KASURI_UINT8),
                   mask = kasuri_interleaved(plate, 2, 1, 1, KASURI_FLOAT32);
    CHECK(kasuri_give_source(filter.get(), "lump", &light, nullptr) == KASURI_BAD_ARGUMENT);
    REQUIRE(kasuri_give_source(filter.get(), "lamp", &light, nullptr) == KASURI_OK);
    REQUIRE(kasuri_give_source(filter.get(), "plate", &mask, nullptr) == KASURI_OK);
    std::fill(std::begin(lamp), std::end(lamp), 9); // it was copied
    REQUIRE(kasuri_source_at(filter.get(), 0, &source) == KASURI_OK);
    CHECK(source.given == 1);
    REQUIRE(kasuri_apply(filter.get(), &from, &to, 1, nullptr, nullptr) == KASURI_OK);
    const float wanted[] = {3, 4, 6, 12, 16, 18.2F};
    for (int i = 0; i < 6; ++i)
        CHECK(out[i] == Approx(wanted[i]));
    kasuri_picture small = kasuri_interleaved(plate, 1, 2, 1, KASURI_FLOAT32);
    REQUIRE(kasuri_give_source(filter.get(), "plate", &small, nullptr) == KASURI_OK);
    CHECK(kasuri_apply(filter.get(), &from, &to, 1, nullptr, &said) == KASURI_BAD_ARGUMENT);
    CHECK_THAT(kasuri_said_text(said), Contains("is 1 x 2 pixels, and not 2 x 1"));
    kasuri_said_free(said);
    REQUIRE(kasuri_give_source(filter.get(), "plate", nullptr, nullptr) == KASURI_OK);
    CHECK(kasuri_apply(filter.get(), &from, &to, 1, nullptr, nullptr) == KASURI_BAD_ARGUMENT);
}

TEST_CASE("what is known of a filter: its matrix, and whether it keeps what it promises", "[library]") {
    double m[12];
    REQUIRE(kasuri_matrix(compiled("out.rgb = vec3(0.5 * r + 0.5 * g, g, b - 0.25)").get(), m) == 1);
    const double wanted[] = {0.5, 0.5, 0, 0, 0, 1, 0, 0, 0, 0, 1, -0.25};
    for (int i = 0; i < 12; ++i)
        CHECK(m[i] == wanted[i]);
    CHECK(kasuri_matrix(compiled("out.r = r * r").get(), m) == 0);
    const Filter filter = compiled("param lift = 0 in 0 .. 1\nout.rgb = rgb + vec3(lift, 0, 0)\n"
                                   "proof \"greys stay grey\" : neutral\nproof \"as it came\" : identity\n");
    kasuri_proofs* proofs = nullptr;
    int holds = -1;
    REQUIRE(kasuri_check(filter.get(), nullptr, &proofs, &holds, nullptr) == KASURI_OK);
    CHECK(holds == 0);
    REQUIRE(kasuri_proof_count(proofs) == 2);
    kasuri_proof proof;
    REQUIRE(kasuri_proof_at(proofs, 0, &proof) == KASURI_OK);
    CHECK(
        (std::string(proof.function) == "neutral" && proof.passed == 0 && proof.promised == 1 && proof.figure >= 0.9));
    CHECK(std::string(proof.at) == "lift = 1");
    CHECK(proof.after[0] == Approx(proof.before[0] + 1));
    CHECK_THAT(proof.statement, Contains("FAIL") && Contains("greys stay grey"));
    REQUIRE(kasuri_proof_at(proofs, 1, &proof) == KASURI_OK);
    CHECK((proof.passed == 1 && proof.proved == 1)); // at its defaults
    CHECK(kasuri_proof_at(proofs, 2, &proof) == KASURI_BAD_ARGUMENT);
    kasuri_proofs_free(proofs);
    kasuri_filter* look = nullptr;
    REQUIRE(kasuri_open(KASURI_SOURCE_DIR "/data/looks/three-times-of-day.kasurilook", nullptr, &look, nullptr) ==
            KASURI_OK);
    REQUIRE(kasuri_check(look, nullptr, &proofs, &holds, nullptr) == KASURI_OK);
    CHECK(holds == 1);
    kasuri_proofs_free(proofs);
    kasuri_call* call = kasuri_call_new();
    kasuri_call_off(call);
    CHECK(kasuri_check(filter.get(), call, &proofs, &holds, nullptr) == KASURI_CALLED_OFF);
    CHECK_FALSE(proofs);
    kasuri_call_free(call);
    kasuri_filter_free(look);
}

TEST_CASE("tables are baked into memory, with their error, and files that others read", "[library]") {
    const Filter filter = compiled("out.rgb = vec3(r * r, 0.5 * g + 0.25 * b, b)");
    std::vector<float> table(3 * 17 * 17 * 17);
    kasuri_lut_error error;
    REQUIRE(kasuri_bake(filter.get(), 17, 0, 1, nullptr, nullptr, table.data(), &error, nullptr) == KASURI_OK);
    for (std::size_t i = 0; i < 17 * 17 * 17; ++i) {
        const double r = static_cast<double>(i % 17) / 16, g = static_cast<double>(i / 17 % 17) / 16,
                     b = static_cast<double>(i / 289) / 16;
        REQUIRE(static_cast<double>(table[3 * i]) == Approx(r * r).margin(1e-6));
        REQUIRE(static_cast<double>(table[3 * i + 1]) == Approx(0.5 * g + 0.25 * b).margin(1e-6));
    }
    // Of a parabola over 1/16, read linearly, the worst is in the middle: (1/32)^2.
    CHECK(error.largest <= 1.0 / 1024 + 1e-6);
    CHECK(error.largest > 0.9 / 1024);
    CHECK(error.samples > 1000);
    for (const char* ending : {".cube", ".clf", ".icc", ".3dl"}) {
        INFO(ending);
        char* bytes = nullptr;
        size_t length = 0;
        REQUIRE(kasuri_bake_file(filter.get(), ending, 17, 0, 1, nullptr, nullptr, &bytes, &length, &error, nullptr) ==
                KASURI_OK);
        CHECK(length > 100);
        CHECK(error.largest < 0.01);
        if (std::string(ending) == ".cube") {
            const TemporaryFolder folder;
            write(folder / "back.cube", std::string(bytes, length));
            kasuri_filter* back = nullptr;
            REQUIRE(kasuri_open((folder / "back.cube").c_str(), "rec709-linear", &back, nullptr) == KASURI_OK);
            const auto made = applied(Filter(back), {0.3, 0.6, 0.9});
            CHECK(static_cast<double>(made[0]) == Approx(0.09).margin(error.largest + 1e-6));
        }
        kasuri_bytes_free(bytes);
    }
    kasuri_said* said = nullptr;
    CHECK(kasuri_bake(compiled("out.r = pos.x").get(), 17, 0, 1, nullptr, nullptr, table.data(), nullptr, &said) ==
          KASURI_NOT_POSSIBLE);
    CHECK(std::string(kasuri_said_text(said)).size() > 20);
    kasuri_said_free(said);
    char* bytes = nullptr;
    size_t length = 0;
    CHECK(kasuri_bake_file(filter.get(), ".png", 17, 0, 1, nullptr, nullptr, &bytes, &length, nullptr, nullptr) ==
          KASURI_BAD_ARGUMENT);
    CHECK(kasuri_bake(filter.get(), 1, 0, 1, nullptr, nullptr, table.data(), nullptr, nullptr) == KASURI_BAD_ARGUMENT);
    CHECK(kasuri_bake(filter.get(), 17, 1, 1, nullptr, nullptr, table.data(), nullptr, nullptr) == KASURI_BAD_ARGUMENT);
}

TEST_CASE("readings are measured of filters and pictures, as numbers by rows", "[library][readings]") {
    size_t response = 0, histogram = 0;
    for (size_t i = 0; i < kasuri_reading_count(); ++i) {
        kasuri_reading reading;
        REQUIRE(kasuri_reading_at(i, &reading) == KASURI_OK);
        response = std::string(reading.name) == "response" ? i : response;
        histogram = std::string(reading.name) == "histogram" ? i : histogram;
        for (size_t k = 0; k < reading.settings; ++k) {
            kasuri_setting setting;
            REQUIRE(kasuri_setting_at(i, k, &setting) == KASURI_OK);
            CHECK(setting.usual >= setting.low);
            for (size_t c = 0; c < setting.choices; ++c)
                CHECK(kasuri_setting_choice(i, k, c));
            CHECK_FALSE(kasuri_setting_choice(i, k, setting.choices));
        }
        CHECK(kasuri_setting_at(i, reading.settings, nullptr) == KASURI_BAD_ARGUMENT);
    }
    CHECK(kasuri_reading_at(kasuri_reading_count(), nullptr) == KASURI_BAD_ARGUMENT);
    const Filter filter = compiled("out.rgb = vec3(2 * r, g, g)");
    kasuri_measured* measured = nullptr;
    REQUIRE(kasuri_measure("response", filter.get(), nullptr, nullptr, 0, &measured, nullptr) == KASURI_OK);
    bool red = false;
    for (size_t i = 0; i < kasuri_layer_count(measured); ++i) {
        kasuri_layer layer;
        REQUIRE(kasuri_layer_at(measured, i, &layer) == KASURI_OK);
        if (std::string(layer.name) != "r" || std::string(layer.kind) != "trace")
            continue;
        red = true;
        REQUIRE(layer.columns == 2);
        for (size_t p = 0; p < layer.rows; ++p)
            CHECK(layer.numbers[2 * p + 1] == Approx(2 * layer.numbers[2 * p]).margin(1e-5));
        CHECK(layer.high[0] > layer.low[0]);
    }
    CHECK(red);
    CHECK(kasuri_figure_count(measured) > 0);
    kasuri_figure figure;
    REQUIRE(kasuri_figure_at(measured, 0, &figure) == KASURI_OK);
    CHECK((std::string(figure.of) == "r" && figure.value == Approx(2).margin(1e-3))); // the slope
    kasuri_measured_free(measured);
    // A histogram counts every pixel once in each channel.
    float pixels[30];
    for (int i = 0; i < 30; ++i)
        pixels[i] = 0.3F + 0.01F * static_cast<float>(i);
    const kasuri_picture picture = kasuri_interleaved(pixels, 5, 2, 3, KASURI_FLOAT32);
    kasuri_said* said = nullptr;
    CHECK(kasuri_measure("histogram", filter.get(), nullptr, nullptr, 0, &measured, &said) == KASURI_BAD_ARGUMENT);
    kasuri_said_free(said);
    const char* wrong = "bins=none";
    CHECK(kasuri_measure("histogram", filter.get(), &picture, &wrong, 1, &measured, &said) == KASURI_BAD_ARGUMENT);
    CHECK_FALSE(measured);
    kasuri_said_free(said);
    CHECK(kasuri_measure("histogramm", filter.get(), &picture, nullptr, 0, &measured, nullptr) == KASURI_BAD_ARGUMENT);
    for (size_t i = 0; i < kasuri_reading_count(); ++i) { // all of them, without a fault
        kasuri_reading reading;
        REQUIRE(kasuri_reading_at(i, &reading) == KASURI_OK);
        INFO(reading.name);
        CHECK(kasuri_measure(reading.name, filter.get(), &picture, nullptr, 0, &measured, nullptr) == KASURI_OK);
        CHECK(kasuri_layer_count(measured) > 0);
        kasuri_measured_free(measured);
    }
    REQUIRE(kasuri_model_count() > 5);
    kasuri_model model;
    REQUIRE(kasuri_model_at(0, &model) == KASURI_OK);
    CHECK((model.name[0] && model.components[2][0] && model.doc[0]));
}
