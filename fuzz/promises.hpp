#pragma once
#include <string>

namespace kasuri::fuzz {

/// Ends the program if something that is promised does not hold.
void insist(bool holds);

/// Takes a text through everything that is made of a rule's text: tokens, tree, types, diagnostics, fixes, canonical
/// form, program and a few pixels, and through what an editor does with it at some byte (`dice` says which):
/// completion, hover, calls, new names, numbers and colours, comments, recipes, and merging with what became of it
/// (`other`).
void keep_text_promises(const std::string& text, const std::string& other, unsigned dice);

/// Takes a rule through what algebra makes of it: a shorter one that does the same, one for another working space, and
/// the way back; each is a good rule.
void keep_algebra_promises(const std::string& text);

/// Files of a kind: 0 look, 1 bench file, 2 recovery, 3 .cube, 4 .clf, 5 .ccc, 6 library entry, 7 .exr, 8 .png, 9 .csp,
/// 10 config, 11 .3dl.
inline constexpr int file_kinds = 12;
void keep_file_promises(int kind, const std::string& content);

} // namespace kasuri::fuzz
