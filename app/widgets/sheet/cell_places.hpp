#pragma once
#include <QRect>

#include <vector>

namespace kasuri::app {

/// Where the cells of a sheet go. `aspects`: width by height of what each shows, in their order, which is kept: row by
/// row from the left. As many in each row as makes the pictures largest without making one of them small; rows of low
/// pictures are lower, and a broad picture has more of its row. Each place has `caption` pixels of its own height, and
/// `gap` to the next ones beside and below.
std::vector<QRect> cell_places(const std::vector<double>& aspects, const QRect& room, int caption, const QSize& gap);

} // namespace kasuri::app
