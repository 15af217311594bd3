#include "insight/hold_sum.hpp"

namespace kasuri::insight {
namespace {

MixRow freely(MixRow row, std::size_t, std::size_t edited, double value) {
    row[edited] = value;
    return row;
}

MixRow shared(MixRow row, std::size_t, std::size_t edited, double value) {
    const double change = value - row[edited];
    for (std::size_t i = 0; i < row.size(); ++i)
        row[i] = i == edited ? value : row[i] - change / 2;
    return row;
}

MixRow by_own(MixRow row, std::size_t own, std::size_t edited, double value) {
    if (edited == own)
        return shared(row, own, edited, value);
    row[own] -= value - row[edited];
    row[edited] = value;
    return row;
}

MixRow by_other(MixRow row, std::size_t own, std::size_t edited, double value) {
    if (edited == own)
        return shared(row, own, edited, value);
    row[3 - own - edited] -= value - row[edited];
    row[edited] = value;
    return row;
}

MixRow divided(MixRow row, std::size_t, std::size_t edited, double value) {
    row[edited] = value;
    const double sum = row[0] + row[1] + row[2];
    if (sum != 0)
        for (double& weight : row)
            weight /= sum;
    return row;
}

constexpr SumHold table[] = {
    {"free", "Each number for itself", freely},
    {"others share", "The other two weights share the change equally: the row keeps its sum", shared},
    {"own takes it", "The output's own channel takes the change: the row keeps its sum", by_own},
    {"other takes it", "The one other weight takes the change, the own channel stays: the row keeps its sum", by_other},
    {"divided", "The row is divided by its sum, which becomes 1", divided},
};

} // namespace

std::span<const SumHold> sum_holds() { return table; }

} // namespace kasuri::insight
