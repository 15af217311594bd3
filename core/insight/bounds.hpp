#pragma once
#include "base/cancel.hpp"
#include "subject/subject.hpp"

namespace kasuri::insight {

/// What interval arithmetic (ir/range.hpp) shows of a subject for every colour of a whole cube, not for the colours
/// that were tried: the cube is cut in halves until every part is shown, and given up at the first small part that is
/// not, or after some thousand parts. True is certain; false says nothing. The subject's values count, unless
/// `all_values` is asked for: then it is for every value of every parameter between its ends. A fixed subject has none.
/// Further pictures may be anything from -1 to 16, and pictures up to 65536 pixels wide and high.
struct Bounds {
    const subject::Subject& subject;
    bool all_values = false;
    CancelToken cancel{};

    /// r, g, b and alpha come out as finite numbers in the single precision of the tiles, for r, g, b between `low` and
    /// `high` and alpha between 0 and 1.
    bool finite(double low, double high) const;
    /// In exact arithmetic, r, g, b stay between 0 and 1 for r, g, b and alpha that are, but for `room`.
    bool inside(double room) const;
    /// In exact arithmetic, along greys from `low` to `high` with alpha 1, whatever falls of a channel, added up, is at
    /// most `room`. Not of what reads the place, neighbours or further pictures.
    bool rises(double low, double high, double room) const;
};

} // namespace kasuri::insight
