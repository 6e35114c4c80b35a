// Numbers of classes, pixel by pixel.
#ifndef CHALCEDONY_CORE_PIXEL_LABEL_H_
#define CHALCEDONY_CORE_PIXEL_LABEL_H_

#include <cstddef>
#include <cstdint>
#include <limits>

#include "core/pixel/raster.h"

namespace chalcedony {

/// The number of a class at a pixel: 1 is the first, 0 is no class. Groups of colors, of which
/// there are few, are numbered in bytes.
using Label = std::uint16_t;

/// How many labels there are.
inline constexpr std::size_t kLabels = std::size_t{std::numeric_limits<Label>::max()} + 1;
/// The last number is never a class of ours, for work that needs one.
inline constexpr std::size_t kMostClasses = kLabels - 2;

/// How a picture with numbers up to `largest` is stored: in bytes where they do.
inline SampleType sample_for_labels(std::size_t largest) {
  return largest <= std::numeric_limits<std::uint8_t>::max() ? SampleType::kU8 : SampleType::kU16;
}

/// Writes n labels as samples of 8 bits, which must do for them, or of 16.
void store_labels(const Label* labels, std::size_t n, SampleType sample, std::byte* stored);
/// Reads n samples of 8 or 16 bits as labels.
void read_labels(const std::byte* stored, std::size_t n, SampleType sample, Label* labels);

/// Flags (flags.h) of the n pixels that have a class.
void flag_labels(const Label* labels, std::size_t n, std::uint8_t* flags);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_LABEL_H_
