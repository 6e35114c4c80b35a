// Writes pictures: rows are encoded in parallel and appended in order.
#ifndef CHALCEDONY_IO_PICTURE_PICTURE_WRITER_H_
#define CHALCEDONY_IO_PICTURE_PICTURE_WRITER_H_

#include <cstddef>
#include <cstdint>
#include <utility>
#include <vector>

namespace chalcedony {

/// Some encoded rows on their way to the file.
struct EncodedRows {
  std::uint32_t rows = 0;
  std::vector<std::byte> bytes;
  std::uint32_t adler = 1;         // PNG
  std::uint64_t raw_size = 0;      // PNG
  std::vector<std::byte> samples;  // what was encoded, where `bytes` has memory of its own

  /// The memory the samples came in, once the rows are written.
  std::vector<std::byte> take_buffer() { return std::move(samples.empty() ? bytes : samples); }
};

class PictureWriter {
 public:
  PictureWriter() = default;
  PictureWriter(const PictureWriter&) = delete;
  PictureWriter& operator=(const PictureWriter&) = delete;
  virtual ~PictureWriter() = default;

  /// Encodes rows of interleaved samples; const, so that threads share it.
  virtual EncodedRows encode(std::uint32_t first_row, std::uint32_t rows,
                             std::vector<std::byte> samples) const = 0;
  /// Appends what follows the rows appended before.
  virtual void append(const EncodedRows& rows) = 0;
  /// Completes the file and gives it its name. Without it nothing is left behind.
  virtual void finish() = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_PICTURE_WRITER_H_
