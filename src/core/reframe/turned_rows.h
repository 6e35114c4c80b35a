// A picture turned by any angle.
#ifndef CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_

#include <array>
#include <cstdint>
#include <memory>
#include <optional>

#include "core/pixel/row_source.h"
#include "core/reframe/bicubic_line.h"
#include "core/reframe/picture_points.h"

namespace chalcedony {

/// The smallest upright size that holds a turned picture.
RasterShape turned_shape(const RasterShape& shape, double degrees);

/// Holds the whole picture in memory from the first read on. Pixels lend as much as their alpha
/// says; edges blend into the fill.
class TurnedRows : public RowSource {
 public:
  /// `info` is what the source's samples mean; with a transparent fill the rows get alpha.
  /// `degrees`: clockwise as seen.
  TurnedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, double degrees,
             const PointLook& look);

  /// What the turned samples mean: alpha is straight.
  const PictureInfo& info() const { return to_; }

  const RasterShape& shape() const override { return to_.shape; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override { next_row_ = 0; }

 private:
  /// New pixels [first, last) of a row.
  struct PixelRange {
    std::uint32_t first, last;
  };

  const PictureInfo& old() const { return points_.picture(); }
  PictureLine line_of_row(std::uint32_t y) const;
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
  double cosine_, sine_;
  std::uint32_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
