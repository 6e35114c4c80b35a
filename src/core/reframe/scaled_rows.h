// A picture in another size, scaled while its rows pass by.
#ifndef CHALCEDONY_CORE_REFRAME_SCALED_ROWS_H_
#define CHALCEDONY_CORE_REFRAME_SCALED_ROWS_H_

#include <cstdint>
#include <deque>
#include <memory>
#include <vector>

#include "core/color/conversion.h"
#include "core/per_thread.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/row_source.h"
#include "core/pixel/unset_vector.h"
#include "core/reframe/resampling.h"
#include "core/reframe/tapped_line.h"

namespace chalcedony {

/// How a picture is scaled.
struct Scaling {
  std::uint32_t width = 0, height = 0;  // afterwards
  Interpolation enlarging = Interpolation::kBicubic;
  bool linear_light = false;  // average light, not the numbers that encode it
};

/// Pixels lend as much as their alpha says; pixels that are not finite lend nothing. Only the rows
/// that the next ones are made of are held.
class ScaledRows : public RowSource {
 public:
  /// `info` is what the source's samples mean.
  ScaledRows(std::unique_ptr<RowSource> source, const PictureInfo& info, const Scaling& scaling);

  /// What the scaled samples mean: as before, but for the size and that alpha is straight.
  const PictureInfo& info() const { return writer_.info(); }

  const RasterShape& shape() const override { return writer_.info().shape; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override;

 private:
  /// What a thread needs to make one row.
  struct Scratch {
    explicit Scratch(const PictureInfo& info) : reader(info, count_all()), planes(4) {}
    BlockReader reader;
    PlaneBuffer planes;
    std::vector<float> row;  // planes of the source's width, and the padding
  };
  using ScaledAcross = UnsetVector<float>;  // planes of the new width, and the padding

  std::uint32_t rows_at_once(std::uint32_t most) const;
  void make_rows(std::uint32_t count, std::byte* rows);
  void read_to(std::uint32_t end);
  ScaledAcross across(const std::byte* stored, std::uint32_t y);
  void read_planes_of(const std::byte* stored, std::uint32_t y, Scratch& scratch) const;
  void down(std::uint32_t y, std::byte* stored);
  void write(const std::vector<float>& sums, Scratch& scratch, std::byte* stored) const;

  std::unique_ptr<RowSource> source_;
  PictureInfo from_;
  BlockWriter writer_;
  TappedLine columns_;
  std::vector<Taps> rows_;
  bool linear_light_;
  Conversion to_light_, from_light_;
  std::size_t colors_, planes_;
  bool weighs_;  // a last plane says how much was lent
  PerThread<Scratch> scratch_;

  std::deque<ScaledAcross> held_;  // source rows from held_first_ on
  std::uint32_t held_first_ = 0, next_read_ = 0, next_row_ = 0;
  std::vector<std::byte> stored_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_SCALED_ROWS_H_
