// Where rows come from: a decoder, or a picture in memory.
#ifndef CHALCEDONY_CORE_PIXEL_ROW_SOURCE_H_
#define CHALCEDONY_CORE_PIXEL_ROW_SOURCE_H_

#include <cstddef>
#include <cstdint>

#include "core/pixel/raster.h"

namespace chalcedony {

/// Rows of a picture from top to bottom, once or several times.
class RowSource {
 public:
  RowSource() = default;
  RowSource(const RowSource&) = delete;
  RowSource& operator=(const RowSource&) = delete;
  virtual ~RowSource() = default;

  virtual const RasterShape& shape() const = 0;

  /// Decodes the next `count` rows to `rows`, count * row_bytes() of them, in the byte order of
  /// this machine.
  ///
  /// Errors    InputError when the picture is damaged
  virtual void read_rows(std::uint32_t count, std::byte* rows) = 0;

  /// The next `count` rows in memory of the source's own, where they stay until it is rewound; null
  /// when it does not lend, and then nothing was read.
  ///
  /// Errors    as read_rows()
  virtual const std::byte* lend_rows([[maybe_unused]] std::uint32_t count) { return nullptr; }

  /// Whether it lends rows.
  virtual bool lends() const { return false; }

  /// Starts again at the top row, for a second pass.
  virtual void rewind() = 0;

  /// Whether a second pass takes next to no time, since nothing is decoded for it.
  virtual bool rereads_quickly() const { return false; }
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ROW_SOURCE_H_
