// A rectangle that was seen at a slant, made upright.
#ifndef CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_

#include <cstdint>
#include <memory>

#include "core/reframe/four_corners.h"
#include "core/reframe/picture_points.h"

namespace chalcedony {

/// Holds the whole picture in memory from the first read on.
class StraightenedRows : public RowSource {
 public:
  /// `info` is what the source's samples mean. Corners may lie beside the picture.
  StraightenedRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
                   const FourCorners& corners, PointLook look);

  /// What the samples mean: alpha is straight.
  const PictureInfo& info() const { return to_; }

  const RasterShape& shape() const override { return to_.shape; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override { next_row_ = 0; }

 private:
  template <class Sample>
  void make_row(std::uint32_t y, Sample* out) const;

  PicturePoints points_;
  PictureInfo to_;
  SquareMap map_;
  std::uint32_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_STRAIGHTENED_ROWS_H_
