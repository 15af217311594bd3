#pragma once
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace kasuri::fit {

/// A number of a family that is looked for.
struct Value {
    std::string name;             ///< in the text behind $
    double start = 0;             ///< where it changes nothing, or nearly
    double low = 0, high = 1;     ///< what is usual: the range of a parameter, and what tests draw from
    bool parameter = false;       ///< it stays a parameter of the rule; else its number is written into the text
    std::string description = {}; ///< of the parameter
};

/// A rule with open numbers. `text` has statements of the language with $NAME where a value stands, and [a - $NAME ...]
/// where a sum of values becomes one number.
struct Form {
    std::string text;
    std::vector<Value> values;
    std::vector<std::vector<double>> more_starts{}; ///< where the first one may lead into a corner
};

/// What a form may be made to measure for.
struct Range {
    double low = 0, high = 1; ///< of the numbers that come in, in the working space
};

/// One row: a kind of rule.
struct Family {
    std::string name;  ///< for programs: "matrix"
    std::string title; ///< for people: "3x3 matrix"
    std::string doc;
    std::string source; ///< where the formula comes from
    Form (*form)(const Family& family, const Range& range);
    /// The spaces it is tried in: the numbers as they came, or also as light (numbers that are light: also encoded).
    enum class Spaces { as_they_are, both } spaces = Spaces::both;
    std::string model{}; ///< of the colour model that it works in; empty: none
    int size = 0;        ///< of families that differ in a number: knots, degree
};

/// All rows, from simple to costly.
std::span<const Family> families();
const Family* find_family(std::string_view name);

/// The text with a parameter for every value (its start the default): what is solved for.
std::string open_text(const Form& form);
/// The text with numbers in place, each with so many decimals, and parameters for those that stay. Without `filter`,
/// `working` and other declarations.
std::string closed_text(const Form& form, std::span<const double> values);

// What files of families offer each other.

/// "mat3(...)" by rows over three lines, behind `before`; every number is named PREFIX_from_r and so on, prefixes r, g,
/// b with `suffix` behind them; values are added to `form`. `balanced`: rows sum to 1.
std::string matrix_text(Form& form, const std::string& before, const std::string& suffix, bool balanced);

/// "curve(ARGUMENT, vec2(0, $NAME_0), ...)" through so many knots evenly over the range.
std::string curve_text(Form& form, const std::string& argument, const std::string& name, int knots, const Range& range);

} // namespace kasuri::fit
