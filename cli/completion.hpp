#pragma once
#include <string>
#include <vector>

namespace kasuri::cli {

/// What may stand in the place of a word.
struct Candidate {
    std::string value, doc;
};
struct Candidates {
    std::vector<Candidate> values; ///< all of them, however the word begins
    bool files = false;            ///< also files; of NAME=FILE behind the =
};

/// `words`: those behind kasuri-cli; the last is the one in question and may be empty. Errors are silent: nothing is
/// offered then.
Candidates candidates(const std::vector<std::string>& words);

} // namespace kasuri::cli
