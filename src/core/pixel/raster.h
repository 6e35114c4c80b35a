// Pictures as they are stored: interleaved samples in rows, and what those samples mean.
#ifndef CHALCEDONY_CORE_PIXEL_RASTER_H_
#define CHALCEDONY_CORE_PIXEL_RASTER_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>

#include "core/color/space.h"

namespace chalcedony {

enum class SampleType : std::uint8_t { kU8, kU16, kF32 };

constexpr std::size_t bytes_per_sample(SampleType type) {
  return type == SampleType::kU8 ? 1 : type == SampleType::kU16 ? 2 : 4;
}

/// The largest code of an integer sample; 1 for float, whose white is 1.
constexpr double full_scale_of(SampleType type) {
  return type == SampleType::kU8 ? 255.0 : type == SampleType::kU16 ? 65535.0 : 1.0;
}

/// use(Sample()) with the number type of such samples, so that work is written once for all of
/// them.
template <class Use>
decltype(auto) with_sample(SampleType type, const Use& use) {
  switch (type) {
    case SampleType::kU8:
      return use(std::uint8_t{});
    case SampleType::kU16:
      return use(std::uint16_t{});
    case SampleType::kF32:
      break;
  }
  return use(float{});
}

/// Size and sample layout of stored rows; samples of a pixel lie side by side.
struct RasterShape {
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  std::uint32_t channels = 0;
  SampleType sample = SampleType::kU8;

  std::size_t pixel_bytes() const { return channels * bytes_per_sample(sample); }
  std::size_t row_bytes() const { return width * pixel_bytes(); }
  std::uint64_t pixels() const { return std::uint64_t{width} * height; }
  /// "480x360"
  std::string size_text() const { return std::to_string(width) + "x" + std::to_string(height); }

  friend bool operator==(const RasterShape&, const RasterShape&) = default;
};

enum class AlphaKind : std::uint8_t { kNone, kStraight, kPremultiplied };

/// Which stored channels of a picture are its color, where that is not said by their number: of one
/// with more than a color and alpha.
struct ColorBands {
  std::array<std::uint32_t, 3> of{};  // r, g and b
  bool named = false;                 // false: nobody said, and `of` is only good to show something
};

/// What stored samples mean. Color comes first, alpha last; one color channel is a gray, which is
/// read as a color with equal r g b. With `bands` any three channels are the color.
struct PictureInfo {
  RasterShape shape;
  AlphaKind alpha = AlphaKind::kNone;
  const Space* space = &spaces::kSrgb;
  double full_scale = 255;  // the code that means full; 1 for float
  std::optional<ColorBands> bands;

  std::uint32_t color_channels() const {
    if (bands) return 3;
    return shape.channels - (alpha == AlphaKind::kNone ? 0 : 1);
  }
  bool is_float() const { return shape.sample == SampleType::kF32; }
  /// Whether no channel can be out of its range, by the way it is stored: integers whose full code
  /// is the highest there is.
  bool codes_in_range() const { return !is_float() && full_scale >= full_scale_of(shape.sample); }
  /// Whether every pixel is a color that sRGB can show, by the way it is stored.
  bool known_in_range() const { return codes_in_range() && space == &spaces::kSrgb; }
  /// Whether it is said which channels are its color.
  bool has_color() const { return !bands || bands->named; }
  /// The same picture to be shown, whichever channels are taken for its color.
  PictureInfo shown() const {
    PictureInfo info = *this;
    if (info.bands) info.bands->named = true;
    return info;
  }
};

/// How a stored color sample becomes a channel value: value = sample * factor + offset.
struct SampleScale {
  double factor = 1;
  double offset = 0;
};

/// The scale of a channel: RGB spans 0-255 in integers and in floats of 0-1; the channels of
/// other spaces span their usual range in integers and are stored as they are in floats.
SampleScale sample_scale(const Space& space, std::size_t channel, SampleType sample,
                         double full_scale);

/// The scale of a plane of its own: of 0-255 as RGB, of all else as channels of other spaces.
SampleScale sample_scale(const ChannelInfo& channel, SampleType sample, double full_scale);

/// The same, with the full scale of the sample type.
inline SampleScale sample_scale(const Space& space, std::size_t channel, SampleType sample) {
  return sample_scale(space, channel, sample, full_scale_of(sample));
}

/// The scale of shares of 0-1, such as alpha: over all codes of an integer, as they are in a float.
constexpr SampleScale share_scale(SampleType sample) { return {1.0 / full_scale_of(sample), 0}; }

/// The scales of a picture's color channels. A gray picture uses the first.
std::array<SampleScale, 3> sample_scales(const PictureInfo& info);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_RASTER_H_
