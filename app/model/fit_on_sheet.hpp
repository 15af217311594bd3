#pragma once
#include "base/result.hpp"
#include "document/look_file.hpp"

#include <QStringList>

#include <optional>
#include <string>

namespace kasuri::app {

class Bench;

/// What a rule was found of, as far as a sheet can show it.
struct FitSource {
    QStringList files{};                   ///< one LUT, look or filter, or two pictures, before and after
    std::string space{};                   ///< what their numbers mean, if that was said
    std::optional<document::Look> bench{}; ///< instead: what was on the bench
    bool moved = false;                    ///< the second picture was brought over the first
};

/// Whether a sheet can show where a rule is off that was found of it; why not, in the error. Pictures that do not lie
/// on each other, tables and charts have no pixels to show.
Status can_be_seen(const FitSource& source);

/// Shows where the rule on the bench is off: before becomes what it was found of, and a cell shows the difference;
/// `mean` says how large the differences are (CIEDE2000). Of pictures the first is on the sheet then, and the second is
/// given to a source named `wanted`. The cell, or what cannot be read.
Result<int> see_where_it_is_off(Bench& bench, const FitSource& source, double mean);

} // namespace kasuri::app
