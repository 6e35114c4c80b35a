// A picture whose profile describes a space of its own, read as sRGB floats.
#ifndef CHALCEDONY_CORE_PIXEL_PROFILED_ROWS_H_
#define CHALCEDONY_CORE_PIXEL_PROFILED_ROWS_H_

#include <memory>
#include <vector>

#include "core/color/conversion.h"
#include "core/color/curve_table.h"
#include "core/color/rgb_profile.h"
#include "core/per_thread.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

/// Colors outside sRGB are kept: they lie below 0 or above 1.
class ProfiledRows : public RowSource {
 public:
  /// `info` is what the source's samples mean but for the space, which `profile` tells.
  ProfiledRows(std::unique_ptr<RowSource> source, const PictureInfo& info,
               const RgbProfile& profile);

  /// What the rows hold: sRGB floats, of one channel for a gray profile; alpha is straight.
  const PictureInfo& info() const { return writer_.info(); }

  const RasterShape& shape() const override { return writer_.info().shape; }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  void rewind() override {
    source_->rewind();
    next_row_ = 0;
  }

 private:
  struct Scratch {
    explicit Scratch(const PictureInfo& info) : reader(info, count_all()) {}
    BlockReader reader;
    PlaneBuffer planes;
  };

  void convert_row(const std::byte* stored, std::uint32_t y, std::byte* row);

  std::unique_ptr<RowSource> source_;
  PictureInfo from_;
  BlockWriter writer_;
  bool gray_;
  std::vector<CurveTable> curves_;  // of r, g, b, or of gray
  Affine to_xyz_;                   // of linear 0-255
  Conversion to_srgb_;
  PerThread<Scratch> scratch_;
  std::vector<std::byte> stored_;
  std::uint32_t next_row_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_PROFILED_ROWS_H_
