#include "words.hpp"

#include "base/setting.hpp"
#include "builtins/builtin.hpp"
#include "colour/model.hpp"
#include "colour/space.hpp"
#include "document/recipe.hpp"
#include "fit/family.hpp"
#include "insight/derivative.hpp"
#include "insight/hold_sum.hpp"
#include "insight/solve.hpp"
#include "inverse/table.hpp"
#include "lang/diagnostic.hpp"
#include "proof/proof.hpp"
#include "proof/ready_made.hpp"
#include "readings/reading.hpp"
#include "targets/target.hpp"

#include <fmt/format.h>
#include <set>

namespace kasuri::cli {
namespace {

std::string as_literal(std::string_view text) {
    std::string made;
    for (const char c : text)
        made += c == '"' || c == '\\' ? std::string("\\") + c : c == '\n' ? std::string("\\n") : std::string(1, c);
    return made;
}

} // namespace

std::string words_to_translate() {
    std::set<std::string> all;
    const auto add = [&](auto... texts) { (all.insert(std::string(texts)), ...); };
    const auto add_settings = [&](std::span<const Setting> settings) {
        for (const Setting& setting : settings) {
            add(setting.name, setting.doc);
            for (const std::string_view each : setting.choices)
                add(each);
        }
    };
    for (const targets::Target* target : targets::all()) {
        add(target->title, target->detail, target->doc);
        add_settings(target->settings);
    }
    for (const readings::Reading* reading : readings::all()) {
        add(reading->title, reading->doc);
        add_settings(reading->settings);
        for (const readings::Panel& panel : reading->panels(completed(reading->settings, {})))
            add(panel.title, panel.x.title, panel.y.title);
    }
    for (const std::string& figure : readings::figure_names())
        add(figure);
    for (const insight::SumHold& hold : insight::sum_holds())
        add(hold.name, hold.doc);
    for (const proof::Function* function : proof::functions())
        add(function->title, function->doc);
    for (const proof::ReadyMade& row : proof::ready_made())
        add(row.title, row.doc);
    for (const document::Recipe& recipe : document::recipes())
        add(recipe.title, recipe.doc);
    for (const colour::Space& space : colour::spaces())
        add(space.doc);
    for (const fit::Family& family : fit::families())
        add(family.title, family.doc);
    for (const insight::Measure& measure : insight::measures())
        add(measure.title, measure.doc);
    std::set<std::string> core; // the core says these itself, by base/said
    for (const lang::CodeRow& row : lang::code_table()) {
        core.emplace(row.wording);
        core.emplace(row.help);
    }
    for (const std::string_view sentence : inverse::sentences())
        core.emplace(sentence);
    all.erase("");
    core.erase("");
    std::string text = "// Written by `kasuri-cli docs words`: texts of the core's tables, for lupdate.\n#include "
                       "<QtGlobal>\n\n[[maybe_unused]] static const char* const words[] = {\n";
    for (const std::string& each : all)
        text += fmt::format("    QT_TRANSLATE_NOOP(\"Tables\", \"{}\"),\n", as_literal(each));
    for (const std::string& each : core)
        text += fmt::format("    QT_TRANSLATE_NOOP(\"Core\", \"{}\"),\n", as_literal(each));
    return text + "};\n";
}

} // namespace kasuri::cli
