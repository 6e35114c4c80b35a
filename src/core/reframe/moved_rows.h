// A picture whose pixels lie along other lines of it than its rows.
#ifndef CHALCEDONY_CORE_REFRAME_MOVED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_MOVED_ROWS_H_

#include <cstdint>
#include <memory>

#include "core/pixel/row_source.h"
#include "core/reframe/bicubic_line.h"
#include "core/reframe/picture_points.h"

namespace chalcedony {

/// Holds the whole picture in memory from the first read on. Pixels lend as much as their alpha
/// says; edges blend into the fill.
class MovedRows : public RowSource {
 public:
  /// What the new samples mean: alpha is straight.
  const PictureInfo& info() const { return to_; }

  const RasterShape& shape() const override { return to_.shape; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override { next_row_ = 0; }

 protected:
  /// `info` is what the source's samples mean, `size` that of the new picture.
  MovedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, const PointLook& look,
            const RasterShape& size);

  const PictureInfo& old() const { return points_.picture(); }

 private:
  /// New pixels [first, last) of a row.
  struct PixelRange {
    std::uint32_t first, last;
  };

  /// Where the pixels of row y lie in the old picture.
  virtual PictureLine line_of_row(std::uint32_t y) const = 0;

  PixelRange pixels_within(const PictureLine& line, double margin, PixelRange range) const;
  template <class Sample>
  void make_row(std::uint32_t y, Sample* out) const;
  template <class Sample>
  void make_outside(std::uint32_t first, std::uint32_t last, Sample* row) const;
  template <class Sample>
  void make_inside(const PictureLine& line, PixelRange range, Sample* row) const;

  PicturePoints points_;
  PictureInfo to_;
  bool nearest_;
  std::uint32_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_MOVED_ROWS_H_
