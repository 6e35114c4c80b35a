#include "io/exif.h"

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

constexpr std::uint32_t kOrientationTag = 0x0112, kExifFolderTag = 0x8769, kColorSpaceTag = 0xa001;

void read_folder(const Numbers& numbers, std::size_t position, bool may_nest, Exif& exif) {
  const std::uint32_t entries = numbers.at(position, 2);
  for (std::uint32_t e = 0; e < entries && e < 1000; ++e) {
    const std::size_t entry = position + 2 + 12 * std::size_t{e};
    const std::uint32_t tag = numbers.at(entry, 2);
    if (tag == kOrientationTag) {
      const auto value = static_cast<int>(numbers.at(entry + 8, 2));
      if (value >= 1 && value <= 8) exif.orientation = value;
    } else if (tag == kColorSpaceTag) {
      exif.color_space = static_cast<int>(numbers.at(entry + 8, 2));
    } else if (tag == kExifFolderTag && may_nest) {
      read_folder(numbers, numbers.at(entry + 8, 4), false, exif);
    }
  }
}

}  // namespace

Exif parse_exif(std::span<const std::byte> bytes) {
  Exif exif;
  const Numbers numbers(bytes);
  if (numbers.valid()) read_folder(numbers, numbers.at(4, 4), true, exif);
  return exif;
}

}  // namespace chalcedony
