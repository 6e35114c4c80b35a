// Bands: some rows of a picture at a time, read in order, with rows of their neighborhood.
#ifndef CHALCEDONY_CORE_PIXEL_BAND_H_
#define CHALCEDONY_CORE_PIXEL_BAND_H_

#include <atomic>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/row_source.h"

namespace chalcedony {

/// Some rows of a picture as stored, with rows of their neighborhood above and below.
class Band {
 public:
  Band() = default;
  Band(Band&&) = default;
  Band& operator=(Band&&) = default;

  std::uint32_t first_row() const { return first_row_; }
  std::uint32_t rows() const { return rows_; }
  const RasterShape& shape() const { return shape_; }

  /// Row `y` of the picture. Valid for the band's own rows and for its halo: rows beyond the
  /// picture's edge repeat the edge row.
  const std::byte* row(std::int64_t y) const;

  /// The band's own rows, one after the other.
  const std::byte* own_rows() const { return row(first_row_); }

 private:
  friend class BandReader;
  RasterShape shape_;
  std::uint32_t first_row_ = 0;
  std::uint32_t rows_ = 0;
  std::uint32_t first_held_ = 0;  // the halo above, clipped to the picture, begins here
  std::uint32_t held_ = 0;
  std::vector<std::byte> bytes_;
  const std::byte* held_rows_ = nullptr;  // in bytes_, or in memory of the source
};

/// Rows of a band: some hundred thousand pixels, by the picture alone, so that borders (and with
/// them sums) do not depend on the number of threads.
std::uint32_t rows_per_band(const RasterShape& shape, std::uint32_t halo);

/// Cuts a source into bands.
class BandReader {
 public:
  /// `halo`: rows of neighborhood a band carries on either side. `stop`: set from outside to stop
  /// early, may be null.
  BandReader(RowSource& source, std::uint32_t halo, const std::atomic<bool>* stop);

  /// How many bands there are in all.
  std::size_t bands() const { return (shape_.height + band_rows_ - 1) / band_rows_; }
  bool at_end() const { return next_row_ >= shape_.height; }

  /// A band with room for the largest one, unless the source lends its rows, to be filled again and
  /// again.
  Band make_band() const;

  /// Fills a band with the next rows. Not to be called at the end.
  ///
  /// Errors    what the source throws; Interrupted
  void read_next(Band& band);

 private:
  bool borrows() const { return halo_ == 0 && source_.lends(); }
  void read_held_rows(Band& band);
  void keep_halo(const Band& band);

  RowSource& source_;
  RasterShape shape_;
  std::uint32_t halo_;
  std::uint32_t band_rows_;
  const std::atomic<bool>* stop_;
  std::uint32_t next_row_ = 0;   // first row of the next band
  std::uint32_t next_read_ = 0;  // first row not yet decoded
  std::vector<std::byte> kept_;  // the rows before next_read_ that the next band needs
  std::uint32_t kept_first_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_BAND_H_
