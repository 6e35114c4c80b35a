#include "io/metadata/exif.h"

#include <algorithm>
#include <utility>

#include "io/metadata/big_endian.h"

namespace chalcedony {
namespace {

/// Bounds-checked numbers in the byte order the data names.
class Numbers {
 public:
  explicit Numbers(std::span<const std::byte> bytes) : bytes_(bytes) {
    if (bytes.size() >= 8)
      big_endian_ = static_cast<char>(bytes[0]) == 'M' && static_cast<char>(bytes[1]) == 'M';
  }
  std::uint32_t at(std::size_t position, std::size_t size) const {
    if (position > bytes_.size() || size > bytes_.size() - position) return 0;
    std::uint32_t value = 0;
    for (std::size_t i = 0; i < size; ++i) {
      const std::size_t place = big_endian_ ? i : size - 1 - i;
      value = value << 8 | std::to_integer<std::uint32_t>(bytes_[position + place]);
    }
    return value;
  }
  bool valid() const { return at(2, 2) == 42; }

 private:
  std::span<const std::byte> bytes_;
  bool big_endian_ = false;
};

constexpr std::uint32_t kDescriptionTag = 0x010e, kOrientationTag = 0x0112,
                        kXResolutionTag = 0x011a, kYResolutionTag = 0x011b,
                        kResolutionUnitTag = 0x0128, kExifFolderTag = 0x8769,
                        kOriginalTimeTag = 0x9003, kColorSpaceTag = 0xa001,
                        kInteroperabilityFolderTag = 0xa005, kInteroperabilityTag = 0x0001;
constexpr int kSrgbColors = 1, kOtherColors = 0xffff;      // of ColorSpace
constexpr std::uint32_t kText = 2, kShort = 3, kLong = 4;  // types of fields

/// Folders of fields while they are read: the first names that of Exif, which names that of
/// interoperability.
class FolderReader {
 public:
  explicit FolderReader(const Numbers& numbers) : numbers_(numbers) {}

  Exif read() {
    read_folder(numbers_.at(4, 4));
    if (exif_folder_ != 0) read_folder(exif_folder_);
    if (interoperability_folder_ != 0) read_interoperability();
    exif_.pixels_per_meter_x = per_meter(x_resolution_, unit_);
    exif_.pixels_per_meter_y = per_meter(y_resolution_, unit_);
    exif_.colors = exif_colors(color_space_, interoperability_);
    return std::move(exif_);
  }

 private:
  template <class Use>
  void for_each_field(std::size_t folder, const Use& use) const {
    constexpr std::uint32_t kMost = 1000;
    const std::uint32_t fields = std::min(numbers_.at(folder, 2), kMost);
    for (std::uint32_t f = 0; f < fields; ++f) use(folder + 2 + 12 * std::size_t{f});
  }

  void read_folder(std::size_t folder) {
    for_each_field(folder, [&](std::size_t entry) { take(entry); });
  }

  /// Its fields have numbers of their own.
  void read_interoperability() {
    for_each_field(interoperability_folder_, [&](std::size_t entry) {
      if (numbers_.at(entry, 2) == kInteroperabilityTag) interoperability_ = text(entry);
    });
  }

  void take(std::size_t entry) {
    switch (numbers_.at(entry, 2)) {
      case kExifFolderTag:
        exif_folder_ = numbers_.at(entry + 8, 4);
        break;
      case kInteroperabilityFolderTag:
        interoperability_folder_ = numbers_.at(entry + 8, 4);
        break;
      case kOrientationTag: {
        const auto value = static_cast<int>(numbers_.at(entry + 8, 2));
        if (value >= 1 && value <= 8) exif_.orientation = value;
        break;
      }
      case kColorSpaceTag:
        color_space_ = static_cast<int>(numbers_.at(entry + 8, 2));
        break;
      case kResolutionUnitTag:
        unit_ = static_cast<int>(numbers_.at(entry + 8, 2));
        break;
      case kXResolutionTag:
        x_resolution_ = ratio(entry);
        break;
      case kYResolutionTag:
        y_resolution_ = ratio(entry);
        break;
      case kDescriptionTag:
        exif_.description = text(entry);
        break;
      case kOriginalTimeTag:
        exif_.captured = text(entry);
        break;
      default:
        break;
    }
  }

  double ratio(std::size_t entry) const {
    const std::size_t at = numbers_.at(entry + 8, 4);
    const double below = numbers_.at(at + 4, 4);
    return below == 0 ? 0 : numbers_.at(at, 4) / below;
  }

  std::string text(std::size_t entry) const {
    constexpr std::uint32_t kMost = 65535;
    const std::uint32_t length = numbers_.at(entry + 4, 4);
    if (numbers_.at(entry + 2, 2) != kText || length > kMost) return {};
    const std::size_t at = length <= 4 ? entry + 8 : numbers_.at(entry + 8, 4);
    std::string text;
    for (std::uint32_t i = 0; i < length; ++i) {
      const auto c = static_cast<char>(numbers_.at(at + i, 1));
      if (c == 0) break;
      text += c;
    }
    while (!text.empty() && text.back() == ' ') text.pop_back();
    return text;
  }

  const Numbers& numbers_;
  Exif exif_;
  std::size_t exif_folder_ = 0, interoperability_folder_ = 0;  // 0: none
  int color_space_ = 0;
  std::string interoperability_;
  int unit_ = 2;
  double x_resolution_ = 0, y_resolution_ = 0;
};

/// A folder while it is written: fields of twelve bytes, longer values behind them.
class FolderWriter {
 public:
  FolderWriter(std::vector<std::byte>& bytes, std::uint32_t fields) : bytes_(bytes) {
    put(fields, 2);
    values_at_ = bytes_.size() + 12 * std::size_t{fields} + 4;
  }

  void number(std::uint32_t tag, std::uint32_t type, std::uint32_t value) {
    put(tag, 2), put(type, 2), put(1, 4);
    put(type == kShort ? value << 16 : value, 4);
  }
  void text(std::uint32_t tag, const std::string& value) {
    const auto length = static_cast<std::uint32_t>(value.size() + 1);
    put(tag, 2), put(kText, 2), put(length, 4);
    std::string stored = value + '\0';
    if (length <= 4) {
      stored.resize(4);
      append_text(bytes_, stored);
      return;
    }
    put(static_cast<std::uint32_t>(values_at_ + values_.size()), 4);
    if (stored.size() % 2) stored += '\0';
    values_ += stored;
  }
  /// Where a folder that follows this one begins.
  std::size_t end() const { return values_at_ + values_.size(); }
  void finish() {
    put(0, 4);
    append_text(bytes_, values_);
  }

 private:
  void put(std::uint32_t value, int size) { append_number(bytes_, value, size); }

  std::vector<std::byte>& bytes_;
  std::size_t values_at_ = 0;
  std::string values_;
};

}  // namespace

double per_meter(double resolution, int unit) {
  constexpr double kInchesPerMeter = 1 / 0.0254, kCentimetersPerMeter = 100;
  if (unit == 2) return resolution * kInchesPerMeter;
  return unit == 3 ? resolution * kCentimetersPerMeter : 0;
}

Exif parse_exif(std::span<const std::byte> bytes) {
  const Numbers numbers(bytes);
  return numbers.valid() ? FolderReader(numbers).read() : Exif{};
}

ExifColors exif_colors(int color_space, const std::string& interoperability) {
  if (color_space == kSrgbColors) return ExifColors::kSrgb;
  if (color_space != kOtherColors) return ExifColors::kNotSaid;
  return interoperability == "R03" ? ExifColors::kDcfOptional : ExifColors::kUncalibrated;
}

std::vector<std::byte> exif_data(const Exif& exif) {
  const bool described = !exif.description.empty(), timed = !exif.captured.empty(),
             spaced = exif.colors == ExifColors::kSrgb;
  if (!described && !timed && !spaced) return {};
  std::vector<std::byte> bytes;
  append_text(bytes, "MM");
  append_number(bytes, 42, 2);
  append_number(bytes, 8, 4);
  const bool nested = timed || spaced;
  FolderWriter first(bytes, (described ? 1u : 0u) + (nested ? 1u : 0u));
  if (described) first.text(kDescriptionTag, exif.description);
  if (nested) first.number(kExifFolderTag, kLong, static_cast<std::uint32_t>(first.end()));
  first.finish();
  if (!nested) return bytes;
  FolderWriter second(bytes, (timed ? 1u : 0u) + (spaced ? 1u : 0u));
  if (timed) second.text(kOriginalTimeTag, exif.captured);
  if (spaced) second.number(kColorSpaceTag, kShort, std::uint32_t{kSrgbColors});
  second.finish();
  return bytes;
}

}  // namespace chalcedony
