#pragma once
#include "lang/check_body.hpp"

namespace kasuri::lang {

/// param: adds one Parameter, or three for a colour, to the rule.
void check_parameter(const Statement& s, const FileContext& file, BodyChecker& body, Rule& rule);

/// preset: adds a Preset to the rule.
void check_preset(const Statement& s, const FileContext& file, BodyChecker& body, Rule& rule);

} // namespace kasuri::lang
