// Rows that are kept for a second pass, when the picture is small enough.
#ifndef CHALCEDONY_CORE_PIXEL_KEPT_ROWS_H_
#define CHALCEDONY_CORE_PIXEL_KEPT_ROWS_H_

#include <atomic>
#include <cstddef>
#include <memory>
#include <optional>
#include <thread>

#include "core/pixel/row_source.h"
#include "core/pixel/zeroed_array.h"

namespace chalcedony {

/// Reads from another source, and gives the rows of the first pass again in later ones. A picture
/// of more than `most_bytes` is decoded each time instead, so memory stays bounded. Memory is made
/// by a thread of its own, a little ahead of the rows: the one that decodes is what all others wait
/// for.
class KeptRows : public RowSource {
 public:
  KeptRows(std::unique_ptr<RowSource> source, std::size_t most_bytes);

  const RasterShape& shape() const override { return source_->shape(); }
  void read_rows(std::uint32_t count, std::byte* rows) override;
  const std::byte* lend_rows(std::uint32_t count) override;
  bool lends() const override { return keeps_; }
  void rewind() override;

 private:
  std::size_t all_bytes() const { return shape().row_bytes() * std::size_t{shape().height}; }
  void begin_to_keep();
  void make_pages(const std::stop_token& stop);

  std::unique_ptr<RowSource> source_;
  bool keeps_;
  std::optional<ZeroedArray<std::byte>> kept_;
  std::size_t held_ = 0;                // bytes of rows read so far in the first pass
  std::atomic<std::size_t> wanted_{0};  // bytes whose pages are to be made by now
  std::size_t next_ = 0;                // of kept_, where reading goes on
  std::jthread makes_pages_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_KEPT_ROWS_H_
