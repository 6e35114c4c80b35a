// Writes pictures: rows are encoded in parallel and appended in order.
#ifndef CHALCEDONY_IO_PICTURE_WRITER_H_
#define CHALCEDONY_IO_PICTURE_WRITER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/color/channel.h"
#include "core/color/css_color.h"
#include "core/pixel/raster.h"
#include "io/carried_facts.h"
#include "io/class_legend.h"

namespace chalcedony {

/// What is to be written.
struct PictureSpec {
  RasterShape shape;   // of the samples that will come
  bool alpha = false;  // the last channel is straight alpha
  const Space* space = &spaces::kSrgb;
  std::optional<Channel> plane;     // the one channel holds this plane of a space, scaled as it is
  bool labels = false;              // codes, not colors: a mask or a class map
  std::vector<LegendEntry> legend;  // of a class map
  std::vector<Color> palette;       // of a PNG of indexed colors; see indexed_spec()
  int jpeg_quality = 92;
  CarriedFacts carried = {};
};

/// A picture of codes, not colors, of this size: a mask, or numbers.
PictureSpec label_spec(const RasterShape& size, SampleType sample = SampleType::kU8);

/// A class map with these classes: in bytes where they do for its numbers, else in 16 bits.
PictureSpec class_map_spec(const RasterShape& size, std::vector<LegendEntry> legend);

/// A PNG of up to 255 colors: its samples are their numbers, 1 for the first. 0 is no color: black,
/// and transparent with `alpha`.
PictureSpec indexed_spec(const RasterShape& size, std::vector<Color> colors, bool alpha);

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

/// The formats pictures can be written in.
enum class PictureFormat { kPng, kTiff, kJpeg, kWebp };

/// The format an extension means.
///
/// Errors    UsageError for an extension that is none
PictureFormat format_of(const std::filesystem::path& path);

/// A writer for the path's format.
///
/// Errors    UsageError when the format cannot hold the picture (a lossy format for labels or for
///           a space that is not RGB, floats in PNG); OutputError when the file cannot be made
std::unique_ptr<PictureWriter> create_picture(const std::filesystem::path& path,
                                              const PictureSpec& spec);

/// The check alone, before any work.
void check_format(const std::filesystem::path& path, const PictureSpec& spec);

/// Writes a picture that is in memory.
void write_picture(const std::filesystem::path& path, const PictureSpec& spec,
                   const std::vector<std::byte>& samples);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_WRITER_H_
