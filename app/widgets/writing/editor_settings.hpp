#pragma once

namespace kasuri::app {

class RuleEditor;

inline constexpr double least_text_size = 7, max_text_size = 24, usual_text_size = 9; ///< points

/// How large the text of rules is, in points, and whether long lines go on in the next one. Both are remembered.
double text_size(const RuleEditor& editor);
void set_text_size(RuleEditor& editor, double points);
bool wraps(const RuleEditor& editor);
void set_wraps(RuleEditor& editor, bool on);
/// As it was chosen; from then on what Ctrl and the wheel do is remembered too.
void restore_editor(RuleEditor& editor);

} // namespace kasuri::app
