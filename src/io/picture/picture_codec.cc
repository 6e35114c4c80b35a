#include "io/picture/picture_codec.h"

#include <cstdint>
#include <string>
#include <system_error>

#include "core/error.h"

namespace chalcedony {

void take_exif(PictureFile& file, std::span<const std::byte> bytes) {
  const Exif exif = parse_exif(bytes);
  file.stated.exif = exif.colors;
  file.facts.orientation = exif.orientation;
  CarriedFacts& carried = file.facts.carried;
  if (!carried.has_resolution()) {
    carried.pixels_per_meter_x = exif.pixels_per_meter_x;
    carried.pixels_per_meter_y = exif.pixels_per_meter_y;
  }
  if (carried.description.empty()) carried.description = exif.description;
  if (carried.captured.empty()) carried.captured = exif.captured;
}

void check_size(std::uint64_t width, std::uint64_t height, const ReadOptions& options) {
  const std::string size = std::to_string(width) + "x" + std::to_string(height);
  if (width == 0 || height == 0)
    throw InputError("holds no pixels (" + size + ")", "write the file again");
  if (options.max_pixels > 0 && width * height > options.max_pixels)
    throw InputError(
        "has " + size + " pixels, more than --max-pixels " + std::to_string(options.max_pixels),
        "raise --max-pixels to read it");
}

void check_page(std::size_t page, std::size_t pages) {
  if (page <= pages) return;
  throw InputError(pages == 1 ? "holds one picture, and --page asks for another"
                              : "holds " + std::to_string(pages) +
                                    " pictures, and --page asks for number " + std::to_string(page),
                   pages == 1 ? "leave it out" : "give a number up to " + std::to_string(pages));
}

void check_file_holds(std::uint64_t width, std::uint64_t height, std::uint64_t pixel_bits,
                      const std::filesystem::path& path) {
  constexpr std::uint64_t kMostBitsInByte = 8 * 1365;
  std::error_code unknown;
  const std::uint64_t bytes = std::filesystem::file_size(path, unknown);
  if (unknown || height == 0 || width <= kMostBitsInByte * bytes / height / pixel_bits) return;
  throw InputError("says that it has " + std::to_string(width) + "x" + std::to_string(height) +
                       " pixels, more than " + std::to_string(bytes) + " bytes can hold",
                   "the file is damaged or cut off; fetch it again");
}

}  // namespace chalcedony
