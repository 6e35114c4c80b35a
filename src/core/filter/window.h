// The window a filter looks through, row by row.
#ifndef CHALCEDONY_CORE_FILTER_WINDOW_H_
#define CHALCEDONY_CORE_FILTER_WINDOW_H_

#include <cstddef>
#include <vector>

#include "core/tidy/element.h"

namespace chalcedony {

/// A disk or a box around a pixel, the same to all four sides.
class Window {
 public:
  /// Range     a disk or a box
  explicit Window(const Element& element);

  /// Rows and columns it holds on either side of its center.
  std::size_t reach() const { return half_widths_.size() / 2; }
  /// Columns on either side in row 0 to 2 * reach(); the center's row is reach().
  std::size_t half_width(std::size_t row) const { return half_widths_[row]; }
  std::size_t rows() const { return half_widths_.size(); }
  std::size_t pixels() const { return pixels_; }
  bool is_box() const { return is_box_; }

 private:
  std::vector<std::size_t> half_widths_;
  std::size_t pixels_ = 0;
  bool is_box_ = true;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FILTER_WINDOW_H_
