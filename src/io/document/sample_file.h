// Sample regions on disk: GeoJSON in pixel coordinates.
#ifndef CHALCEDONY_IO_DOCUMENT_SAMPLE_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_SAMPLE_FILE_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

#include "core/learn/sample_shape.h"

namespace chalcedony {

/// Whether a file is one of sample regions, by its name.
bool is_sample_file(const std::filesystem::path& path);

/// A sample file and what is said of it behind a colon, as FILE.geojson:ruby.
struct SampleFilePart {
  std::filesystem::path file;
  std::string part;  // empty when nothing is said
};

/// Reads such a text; none when it does not begin with the name of a sample file.
std::optional<SampleFilePart> sample_file_part(const std::string& text);

/// What happens to samples that were drawn on a picture of another size, as their file says.
enum class OtherSize { kError, kRescale };

/// Samples, and the size of the picture they were drawn on where that is said.
struct DrawnSamples {
  SampleSet samples;
  std::optional<DrawnSize> size;
};

/// Reads a sample file as parse_samples() does, for a picture of any size.
///
/// Errors    as parse_samples(), naming the file
DrawnSamples read_drawn(const std::filesystem::path& path);

/// Reads a GeoJSON FeatureCollection (RFC 7946 structure, pixel coordinates, y down) of Point,
/// Polygon and MultiPolygon features with a `class` property; specified in docs/formats.md.
///
/// Errors    InputError naming the feature: no class, another geometry, numbers that are none, or
///           drawn on a picture of another size than width x height that is to be an error
SampleSet parse_samples(std::string_view text, std::uint32_t width, std::uint32_t height,
                        OtherSize other = OtherSize::kError);

/// The same from a file; errors name it too.
SampleSet read_samples(const std::filesystem::path& path, std::uint32_t width, std::uint32_t height,
                       OtherSize other = OtherSize::kError);

/// Samples that were drawn on a picture of size `from`, on one of width x height.
///
/// Errors    InputError when that is another size and is to be an error, or `from` is none
SampleSet fitted_samples(SampleSet samples, const DrawnSize& from, std::uint32_t width,
                         std::uint32_t height, OtherSize other);

/// Samples as GeoJSON that reads back exactly, made for a picture of this size.
std::string samples_text(const SampleSet& samples, std::uint32_t width, std::uint32_t height);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_SAMPLE_FILE_H_
