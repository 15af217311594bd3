#pragma once
#include "base/result.hpp"
#include "subject/subject.hpp"

namespace kasuri::app {

class Session;
class LookModel;
class SheetModel;

/// What the window shows, as it is rendered and handed over: the rule or the look at its values, with the pictures that
/// were given to its sources. The error if its text does not compile now: then what is shown is older than the text.
Result<subject::Subject> subject_on_bench(const Session& session, const LookModel& look, const SheetModel& sheet);

} // namespace kasuri::app
