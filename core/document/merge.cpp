#include "document/merge.hpp"

#include "base/text.hpp"

#include <algorithm>
#include <cstdint>
#include <vector>

namespace kasuri::document {
namespace {

using Lines = std::vector<std::string_view>;

/// Lines with their ends.
Lines lines_of(std::string_view text) {
    Lines lines;
    while (!text.empty()) {
        const std::size_t end = text.find('\n');
        const std::size_t size = end == text.npos ? text.size() : end + 1;
        lines.push_back(text.substr(0, size));
        text.remove_prefix(size);
    }
    return lines;
}

/// For each line of `a` the line of `b` that it is, or -1: a longest common subsequence.
std::vector<std::ptrdiff_t> matches(const Lines& a, const Lines& b) {
    std::vector<std::ptrdiff_t> found(a.size(), -1);
    std::size_t head = 0, tail = 0;
    const std::size_t least = std::min(a.size(), b.size());
    while (head < least && a[head] == b[head]) {
        found[head] = static_cast<std::ptrdiff_t>(head);
        ++head;
    }
    while (tail < least - head && a[a.size() - 1 - tail] == b[b.size() - 1 - tail]) {
        found[a.size() - 1 - tail] = static_cast<std::ptrdiff_t>(b.size() - 1 - tail);
        ++tail;
    }
    const std::size_t rows = a.size() - head - tail, columns = b.size() - head - tail;
    constexpr std::size_t most = 16'000'000; // a table of so many cells; beyond it the middle counts as changed
    if (rows == 0 || columns == 0 || rows * columns > most)
        return found;
    std::vector<std::uint32_t> length((rows + 1) * (columns + 1), 0);
    const auto at = [&](std::size_t i, std::size_t j) -> std::uint32_t& { return length[i * (columns + 1) + j]; };
    for (std::size_t i = rows; i-- > 0;)
        for (std::size_t j = columns; j-- > 0;)
            at(i, j) = a[head + i] == b[head + j] ? at(i + 1, j + 1) + 1 : std::max(at(i + 1, j), at(i, j + 1));
    for (std::size_t i = 0, j = 0; i < rows && j < columns;)
        if (a[head + i] == b[head + j]) {
            found[head + i] = static_cast<std::ptrdiff_t>(head + j);
            ++i, ++j;
        } else if (at(i + 1, j) >= at(i, j + 1)) {
            ++i;
        } else {
            ++j;
        }
    return found;
}

std::string joined(const Lines& lines, std::size_t begin, std::size_t end) {
    std::string text;
    for (std::size_t i = begin; i < end; ++i)
        text += lines[i];
    return text;
}

} // namespace

Merged merged(std::string_view base, std::string_view ours, std::string_view theirs) {
    if (ours == theirs || theirs == base)
        return {std::string(ours), 0};
    if (ours == base)
        return {std::string(theirs), 0};
    const Lines o = lines_of(base), a = lines_of(ours), b = lines_of(theirs);
    const auto in_a = matches(o, a), in_b = matches(o, b);
    Merged made;
    std::size_t at = 0, at_a = 0, at_b = 0;
    while (at < o.size() || at_a < a.size() || at_b < b.size()) {
        // The next line that all three share.
        std::size_t stable = at;
        while (stable < o.size() && (in_a[stable] < 0 || in_b[stable] < 0))
            ++stable;
        const std::size_t end_a = stable < o.size() ? static_cast<std::size_t>(in_a[stable]) : a.size(),
                          end_b = stable < o.size() ? static_cast<std::size_t>(in_b[stable]) : b.size();
        const std::string was = joined(o, at, stable), mine = joined(a, at_a, end_a), their = joined(b, at_b, end_b);
        if (mine == was || mine == their) {
            made.text += their;
        } else {
            made.text += mine;
            made.conflicts += their == was ? 0 : 1;
        }
        if (stable < o.size())
            made.text += o[stable];
        at = stable + 1;
        at_a = end_a + 1;
        at_b = end_b + 1;
        if (stable >= o.size())
            break;
    }
    return made;
}

} // namespace kasuri::document
