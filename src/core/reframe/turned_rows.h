// A picture turned by any angle.
#ifndef CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_

#include <array>
#include <cstdint>
#include <memory>
#include <optional>

#include "core/pixel/large_vector.h"
#include "core/pixel/row_source.h"
#include "core/reframe/bicubic_line.h"

namespace chalcedony {

/// How a picture is turned.
struct Turn {
  double degrees = 0;    // clockwise as seen
  bool nearest = false;  // take the nearest pixel, for labels; else bicubic
  /// What shows beside the picture, in the contract's units of its space; null for transparent,
  /// which needs alpha.
  std::optional<std::array<double, 3>> fill;
};

/// The smallest upright size that holds a turned picture.
RasterShape turned_shape(const RasterShape& shape, double degrees);

/// Holds the whole picture in memory from the first read on. Pixels lend as much as their alpha
/// says; edges blend into the fill.
class TurnedRows : public RowSource {
 public:
  /// `info` is what the source's samples mean; with a transparent fill the rows get alpha.
  TurnedRows(std::unique_ptr<RowSource> source, const PictureInfo& info, const Turn& turn);

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

  void load();
  PictureLine line_of_row(std::uint32_t y) const;
  PixelRange pixels_within(const PictureLine& line, double margin, PixelRange range) const;
  template <class Sample>
  void make_row(std::uint32_t y, Sample* out) const;
  template <class Sample>
  void make_outside(std::uint32_t first, std::uint32_t last, Sample* row) const;
  template <class Sample>
  void make_inside(const PictureLine& line, PixelRange range, Sample* row) const;
  template <class Sample>
  void take_nearest(double x, double y, Sample* out) const;
  template <class Sample>
  void take_bicubic(double x, double y, Sample* out) const;

  std::unique_ptr<RowSource> source_;
  PictureInfo from_, to_;
  Turn turn_;
  double cosine_, sine_;
  std::array<float, 3> fill_{};  // as stored
  LargeVector<std::byte> samples_;
  std::uint32_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_TURNED_ROWS_H_
