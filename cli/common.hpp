#pragma once
#include "arguments.hpp"
#include "base/result.hpp"
#include "base/setting.hpp"
#include "lang/check.hpp"
#include "messages.hpp"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace kasuri::cli {

/// The options that say which rule and which values: FILTER or --rule TEXT, --preset NAME, --set name=value.
struct RuleOptions {
    std::string filter;
    std::string text;
    bool text_given = false; ///< an empty rule is a rule: the identity
    std::string preset;
    std::vector<std::string> settings;
    bool trilinear = false;           ///< how a LUT in the filter's place is read between its points
    std::string lut_space;            ///< of a LUT in the filter's place; empty: the usual one
    std::string lut_ending;           ///< standard input is a LUT of this kind
    std::vector<std::string> sources; ///< NAME=FILE, NAME=FILE:LAYER or NAME=FILE:CHANNEL

    /// `positional`: add FILTER as a positional argument and --rule as its alternative.
    void define(Arguments& arguments, bool alternative);
    /// --source, for commands that look at pictures.
    void define_sources(Arguments& arguments);
};

/// A checked rule with its values, or the exit code after everything has been said on standard error.
struct Loaded {
    int exit = 0;
    std::string text; ///< there as soon as it could be read
    lang::Rule rule;
    std::vector<double> values;
    std::vector<lang::Diagnostic> diagnostics{}; ///< of the text
};
/// `columns`: names that are plain floats beside r, g, b, a. `quiet`: only what the rule is; nothing is said, and
/// nothing set.
Loaded load(const RuleOptions& options, std::optional<std::string> print = {}, std::vector<std::string> columns = {},
            bool quiet = false);

/// Whether there is a space of this name (empty: the rule's own); says what is meant otherwise.
bool known_space(const std::string& name);

/// Loads the colour config that is named, or else the one of $OCIO, which only earns a note if it cannot be
/// used. `texts`: NAME=VALUE of its variables.
int use_config(const std::string& named, const std::vector<std::string>& texts);

/// name=number or name=choice for settings; the usual values for the rest. Says what is wrong and gives
/// nothing otherwise. `whose`: how to find out what there is.
std::optional<std::vector<double>> read_settings(std::span<const Setting> settings,
                                                 const std::vector<std::string>& texts, const std::string& whose);

/// What a setting may be, on one line.
std::string described(const Setting& setting);

/// An ending that was asked for, with its dot.
inline std::string dotted(const std::string& ending) {
    return ending.empty() || ending[0] == '.' ? ending : "." + ending;
}

/// In the place of a file: standard input, or standard output.
inline constexpr std::string_view standard_stream = "-";
/// The text of a filter, from standard input if it is called "-".
Result<std::string> read_filter(const std::string& file);
/// What a proof in `out` calls `file`: its path from the folder of `out` (of the file itself, if that is standard
/// output). Empty if it does not lie there or below: then no proof can read it.
std::string name_beside(const std::string& file, const std::string& out);
/// Whether standard output is free for a file: not where --json puts the answer there.
Status free_output();
/// Into a file, or on standard output if it is called "-" or nothing; whether that could be written is told at the end.
Status write_out(const std::string& file, std::string_view content);

} // namespace kasuri::cli
