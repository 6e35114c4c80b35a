// The filters of PNG rows, before they are deflated.
#ifndef CHALCEDONY_IO_PICTURE_PNG_ROW_FILTER_H_
#define CHALCEDONY_IO_PICTURE_PNG_ROW_FILTER_H_

#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Filters one row both by its left neighbors and by the row above, and keeps the one whose
/// residues are smaller in sum. Labels are left as they are. One for each thread.
///
/// Source    PNG, third edition, 9 and 12.7 (the usual heuristic)
class PngRowFilter {
 public:
  PngRowFilter(std::size_t row_bytes, std::size_t pixel_bytes, bool labels)
      : row_bytes_(row_bytes), pixel_bytes_(pixel_bytes), labels_(labels), trial_(row_bytes) {}

  /// `above`: the row above, or null for none. Writes the number of the filter and the residues:
  /// a byte more than the row has.
  void filter(const std::uint8_t* row, const std::uint8_t* above, std::uint8_t* out);

 private:
  std::size_t row_bytes_, pixel_bytes_;
  bool labels_;
  std::vector<std::uint8_t> trial_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PNG_ROW_FILTER_H_
