#pragma once
#include "base/result.hpp"

#include <string>
#include <vector>

namespace kasuri::cli {

// Libraries want files that have a name: what comes from standard input is put into a private one first, and what goes
// to standard output is written into one and copied when it is whole.

/// The file that standard input has been put into, which is removed at the end. `ending`: of its name, with its dot;
/// empty: what the first bytes say, if they are those of a kind of picture. Standard input can be asked for once.
/// Errors: twice, nothing came, no kind that is known, no space.
Result<std::string> standard_input(const std::string& ending = {});

/// Every "-" among them becomes the file that standard input was put into.
Status take_standard_input(std::vector<std::string>& files);

/// A name in that folder, for what goes to standard output.
Result<std::string> for_standard_output(const std::string& ending);
/// Copies it there. The error: it cannot be read, standard output does not take it.
Status to_standard_output(const std::string& file);

/// A message as a user reads it: "standard input" in place of the private name.
std::string told(std::string message);

} // namespace kasuri::cli
