#include "io/picture/create_picture.h"

#include <algorithm>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/pixel/band.h"
#include "io/picture/picture_encoder.h"

namespace chalcedony {

PictureFormat format_of(const std::filesystem::path& path) {
  const std::string extension = lower_case(path.extension().string());
  if (extension == ".png") return PictureFormat::kPng;
  if (extension == ".tif" || extension == ".tiff") return PictureFormat::kTiff;
  if (extension == ".jpg" || extension == ".jpeg") return PictureFormat::kJpeg;
  if (extension == ".webp") return PictureFormat::kWebp;
  throw UsageError("'" + extension + "' is no picture format this program writes",
                   "end the name in .png, .tif, .jpg or .webp", path.string());
}

namespace {

void check_webp(const std::filesystem::path& path, const PictureSpec& spec) {
  constexpr std::uint32_t kMostPixels = 16383;
  if (spec.shape.channels < 3)
    throw UsageError("a WebP holds no gray picture", "write a .png or a .tif", path.string());
  if (std::max(spec.shape.width, spec.shape.height) > kMostPixels)
    throw UsageError("a WebP holds at most 16383 pixels across and down", "write a .png or a .tif",
                     path.string());
}

}  // namespace

void check_format(const std::filesystem::path& path, const PictureSpec& spec) {
  const PictureFormat format = format_of(path);
  const bool deep = spec.shape.sample != SampleType::kU8;
  if (format == PictureFormat::kPng && spec.shape.sample == SampleType::kF32)
    throw UsageError("a PNG cannot hold floats", "write a .tif, or ask for --depth 16",
                     path.string());
  if (format == PictureFormat::kPng || format == PictureFormat::kTiff) return;
  const std::string name = format == PictureFormat::kJpeg ? "a JPEG" : "a WebP";
  if (spec.labels)
    throw UsageError(name + " would change the labels", "write a .png or a .tif", path.string());
  if (!spec.space->is_rgb)
    throw UsageError(name + " would not keep the numbers of " + std::string(spec.space->id),
                     "write a .tif or a .png", path.string());
  if (deep) throw UsageError(name + " holds 8 bits only", "ask for --depth 8", path.string());
  if (format == PictureFormat::kWebp) {
    check_webp(path, spec);
  } else if (spec.alpha) {
    throw UsageError(name + " holds no alpha", "write a .png, or have convert --alpha drop it",
                     path.string());
  }
}

std::unique_ptr<PictureWriter> create_picture(const std::filesystem::path& path,
                                              const PictureSpec& spec) {
  check_format(path, spec);
  switch (format_of(path)) {
    case PictureFormat::kPng:
      return create_png(path, spec);
    case PictureFormat::kTiff:
      return create_tiff(path, spec);
    case PictureFormat::kWebp:
      return create_webp(path, spec);
    case PictureFormat::kJpeg:
      break;
  }
  return create_jpeg(path, spec);
}

void write_picture(const std::filesystem::path& path, const PictureSpec& spec,
                   const std::vector<std::byte>& samples) {
  const auto writer = create_picture(path, spec);
  const std::uint32_t step = rows_per_band(spec.shape, 0);
  for (std::uint32_t row = 0; row < spec.shape.height; row += step) {
    const std::uint32_t rows = std::min(step, spec.shape.height - row);
    const auto first = samples.begin() + static_cast<std::ptrdiff_t>(row * spec.shape.row_bytes());
    const auto last = first + static_cast<std::ptrdiff_t>(rows * spec.shape.row_bytes());
    writer->append(writer->encode(row, rows, std::vector<std::byte>(first, last)));
  }
  writer->finish();
}

}  // namespace chalcedony
