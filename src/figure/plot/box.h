// A rectangle of a page, and how it is divided among what stands there.
#ifndef CHALCEDONY_FIGURE_PLOT_BOX_H_
#define CHALCEDONY_FIGURE_PLOT_BOX_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// What a box leaves free at its sides, in pixels of the page.
struct Edges {
  double left = 0, top = 0, right = 0, bottom = 0;
};

/// In pixels of the page: x to the right and y down from its upper left corner.
struct Box {
  double left = 0, top = 0, right = 0, bottom = 0;

  double width() const { return right - left; }
  double height() const { return bottom - top; }
  double middle() const { return (top + bottom) / 2; }  // between top and bottom

  /// What is left of it without its edges.
  Box inside(const Edges& edges) const {
    return {left + edges.left, top + edges.top, right - edges.right, bottom - edges.bottom};
  }

  /// Takes away a part so wide or high, and a gap beside it; returns the part.
  Box cut_left(double wide, double gap = 0) {
    const Box part{left, top, left + wide, bottom};
    left += wide + gap;
    return part;
  }
  Box cut_right(double wide, double gap = 0) {
    const Box part{right - wide, top, right, bottom};
    right -= wide + gap;
    return part;
  }
  Box cut_top(double high, double gap = 0) {
    const Box part{left, top, right, top + high};
    top += high + gap;
    return part;
  }
  Box cut_bottom(double high, double gap = 0) {
    const Box part{left, bottom - high, right, bottom};
    bottom -= high + gap;
    return part;
  }
};

/// n boxes of one width side by side, with gaps between them.
inline std::vector<Box> columns_of(Box box, std::size_t n, double gap) {
  const double wide = (box.width() + gap) / static_cast<double>(n) - gap;
  std::vector<Box> columns;
  for (std::size_t i = 0; i < n; ++i) columns.push_back(box.cut_left(wide, gap));
  return columns;
}

/// n boxes of one height below each other, with gaps between them.
inline std::vector<Box> rows_of(Box box, std::size_t n, double gap) {
  const double high = (box.height() + gap) / static_cast<double>(n) - gap;
  std::vector<Box> rows;
  for (std::size_t i = 0; i < n; ++i) rows.push_back(box.cut_top(high, gap));
  return rows;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_BOX_H_
