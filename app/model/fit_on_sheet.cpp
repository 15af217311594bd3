#include "model/fit_on_sheet.hpp"

#include "base/file_kind.hpp"
#include "base/said.hpp"
#include "model/bench.hpp"
#include "model/file_names.hpp"
#include "model/lens.hpp"

#include <QFileInfo>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr char wanted[] = "wanted";
constexpr double fine_enough = 1; ///< CIEDE2000 on average: below, the finer of two scales

/// The picture on the sheet, put there if it is not.
int cell_of(SheetModel& sheet, const std::string& picture) {
    const auto found = std::find_if(sheet.cells().begin(), sheet.cells().end(),
                                    [&](const Cell& cell) { return !cell.target && cell.picture == picture; });
    return found != sheet.cells().end() ? found->id : sheet.add_picture(picture, "colour");
}

/// Where the difference is shown: a cell of the same that shows one already, else one more behind it.
int difference_cell(SheetModel& sheet, int of, const std::string& lens_id) {
    const Cell like = *sheet.find(of);
    const auto shows = std::find_if(sheet.cells().begin(), sheet.cells().end(), [&](const Cell& cell) {
        return cell.target == like.target && cell.picture == like.picture && cell.layer == like.layer &&
            lens(cell.lens).compares;
    });
    const int id = shows != sheet.cells().end() ? shows->id : sheet.duplicate(of);
    sheet.set_lens(id, lens_id);
    return id;
}

Result<int> of_pictures(Bench& bench, const FitSource& source) {
    SheetModel& sheet = bench.sheet();
    if (!source.space.empty()) {
        std::map<std::string, std::string> spaces = sheet.said_spaces();
        for (const QString& file : source.files)
            spaces[bytes_of(file)] = source.space;
        sheet.remember_spaces(std::move(spaces));
    }
    const int cell = cell_of(sheet, bytes_of(source.files.front()));
    sheet.give(wanted, bytes_of(source.files.back()));
    OtherRule rule;
    if (const lang::Rule* now = bench.session().rule(); now && !now->working.empty())
        rule.text = "working " + now->working + "\n";
    rule.of_picture = bytes_of(source.files.front());
    rule.text += "source wanted : vec3\nout.rgb = wanted\n";
    bench.against().set(QFileInfo(source.files.back()).fileName(), std::move(rule));
    return cell;
}

} // namespace

Status can_be_seen(const FitSource& source) {
    if (source.bench)
        return {};
    if (source.files.size() == 2)
        return source.moved ? Status(Error{said("the pictures do not lie on each other as they came"), "",
                                           "The figures in the table say how far it is off."})
                            : Status();
    if (source.files.size() == 1)
        for (const FileKind kind : {FileKind::lut, FileKind::look, FileKind::filter})
            if (is_kind(bytes_of(source.files.front()), kind))
                return {};
    return Error{said("a table or a chart has no pixels to show"), "",
                 "The figures in the table say how far it is off."};
}

Result<int> see_where_it_is_off(Bench& bench, const FitSource& source, double mean) {
    if (const Status can = can_be_seen(source); !can)
        return can.error();
    SheetModel& sheet = bench.sheet();
    int cell = 0;
    if (source.bench) {
        bench.against().set_look(Against::tr("what it was found of"), *source.bench);
    } else if (source.files.size() == 2) {
        auto made = of_pictures(bench, source);
        if (!made)
            return made.error();
        cell = made.value();
    } else if (const Status opened = bench.against().open(bytes_of(source.files.front()), source.space); !opened) {
        return opened.error();
    }
    if (cell == 0) {
        if (sheet.cells().empty())
            bench.add_chart();
        const auto picture =
            std::find_if(sheet.cells().begin(), sheet.cells().end(), [](const Cell& c) { return !c.target; });
        cell = picture != sheet.cells().end() ? picture->id : sheet.cells().front().id;
    }
    return difference_cell(sheet, cell, mean < fine_enough ? "fine_difference" : "difference");
}

} // namespace kasuri::app
