// What was found of 8-bit colors, so that work that hangs on the color alone is done once for each.
#ifndef CHALCEDONY_CORE_PIXEL_COLOR_MEMO_H_
#define CHALCEDONY_CORE_PIXEL_COLOR_MEMO_H_

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/byte_places.h"
#include "core/pixel/color_number.h"
#include "core/pixel/color_table.h"
#include "core/pixel/unset_vector.h"
#include "core/pixel/zeroed_array.h"
#include "core/planes.h"

namespace chalcedony {

/// Which colors the pixels of a Block have, and what was noted of them.
struct FoundColors {
  std::vector<std::uint32_t> numbers;
  std::vector<std::uint8_t> notes;     // 0 for none
  UnsetVector<std::uint32_t> unknown;  // places of the pixels of which nothing is noted
};

/// A number for each of 16.7 million 8-bit colors, found by their color_number(); 0 at first.
/// Threads share them; only parts that are used take memory.
template <class Number>
class NumberByColor {
 public:
  NumberByColor() : numbers_(kColorNumbers) {}

  Number get(std::uint32_t color, std::memory_order order = std::memory_order_relaxed) {
    return std::atomic_ref(numbers_[color]).load(order);
  }
  void set(std::uint32_t color, Number number,
           std::memory_order order = std::memory_order_relaxed) {
    std::atomic_ref(numbers_[color]).store(number, order);
  }

 private:
  ZeroedArray<Number> numbers_;
};

/// A note for each of 16.7 million colors; 0 is none. Threads share it: what they write of a color
/// is the same, whoever comes first, and who sees a note sees what was written before it. Similar
/// colors lie close together, and only parts that are used take memory. Notes of a byte are twice
/// as quick to look up as those of two.
class ColorMemo {
 public:
  /// Whether the pixels of such a picture are of colors that can be noted: three 8-bit channels,
  /// whatever alpha beside them.
  static bool fits(const PictureInfo& info) {
    return ColorCounter::fits(info) && info.color_channels() == 3;
  }
  /// Whether that is worth it as well: the picture is no small one.
  static bool pays(const PictureInfo& info) {
    return fits(info) && info.shape.pixels() >= ColorCounter::kFewPixels;
  }

  /// Looks up the colors of a Block whose pixels have so many stored channels.
  void find(const Block& block, std::uint32_t channels, FoundColors& found) {
    found.numbers.resize(block.size);
    found.notes.resize(block.size);
    const std::size_t n = block.size;
    color_numbers(block.stored, channels, n, found.numbers.data());
    const std::uint32_t* const numbers = found.numbers.data();
    std::uint8_t* const __restrict notes = found.notes.data();
    for (std::size_t i = 0; i < n; ++i)
      notes[i] = notes_.get(numbers[i], std::memory_order_acquire);
    list_unknown(found);
  }

  void note(std::uint32_t number, std::uint8_t note) {
    notes_.set(number, note, std::memory_order_release);
  }

 private:
  static void list_unknown(FoundColors& found) {
    const std::vector<std::uint8_t>& notes = found.notes;
    found.unknown.resize(notes.size());
    found.unknown.resize(list_places(notes.data(), notes.size(), 0, found.unknown.data()));
  }

  NumberByColor<std::uint8_t> notes_;
};

/// Some pixels of a Block as a Block of their own, in which nothing but their color is right.
class PickedPixels {
 public:
  PickedPixels() : color_(3) {}

  /// Good until the next call.
  const Block& pick(const Block& block, const UnsetVector<std::uint32_t>& places) {
    picked_ = {};
    picked_.picture_width = block.picture_width;
    picked_.size = picked_.counted_size = places.size();
    for (std::size_t c = 0; c < 3; ++c) {
      float* const plane = color_.plane(c);
      for (std::size_t k = 0; k < places.size(); ++k) plane[k] = block.color[c][places[k]];
      picked_.color[c] = plane;
    }
    return picked_;
  }

 private:
  PlaneBuffer color_;
  Block picked_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_COLOR_MEMO_H_
