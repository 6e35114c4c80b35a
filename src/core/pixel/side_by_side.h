// Several pictures of one size read as one, so that their pixels meet on the road.
#ifndef CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
#define CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_

#include <cstddef>
#include <memory>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

using RowSources = std::vector<std::unique_ptr<RowSource>>;

/// The pictures are decoded at the same time, each on a thread of its own where there are enough.
/// Each row holds that row of the first picture, then that of the second, and so on.
class SideBySide : public RowSource {
 public:
  /// Shape     pictures of one size, whatever their samples; the rows are of the pictures' width,
  ///           with as many bytes a pixel as all of them have together
  explicit SideBySide(RowSources pictures);

  /// Pictures of labels. Samples are 16 bits wide when any of the pictures has them so.
  ///
  /// Shape     one-channel integer pictures of one size; the rows are one-channel rows as wide as
  ///           all of them together
  static std::unique_ptr<SideBySide> of_labels(RowSources pictures);

  /// Where the row of picture p begins in a row, in bytes.
  std::size_t part(std::size_t p) const { return parts_[p]; }

  const RasterShape& shape() const override { return shape_; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override;

 private:
  RowSources pictures_;
  std::vector<std::size_t> parts_;
  RasterShape shape_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_SIDE_BY_SIDE_H_
