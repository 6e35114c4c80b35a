// What was found of 8-bit colors, so that work that hangs on the color alone is done once for each.
#ifndef CHALCEDONY_CORE_PIXEL_COLOR_MEMO_H_
#define CHALCEDONY_CORE_PIXEL_COLOR_MEMO_H_

#include <algorithm>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <cstring>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/color_table.h"
#include "core/pixel/planes.h"
#include "core/pixel/zeroed_array.h"

namespace chalcedony {

/// A note for each of 16.7 million colors; 0 is none. Threads share it: what they write of a color
/// is the same, whoever comes first, and who sees a note sees what was written before it. Similar
/// colors lie close together, and only parts that are used take memory. Notes of a byte are twice
/// as quick to look up as those of two.
class ColorMemo {
 public:
  using Note = std::uint8_t;

  ColorMemo() : notes_(ColorCounter::kColors) {}

  /// Looks up the colors of n stored pixels, of a picture that ColorCounter::fits: their numbers
  /// and what is noted of them.
  void find(const std::byte* stored, std::uint32_t channels, std::size_t n,
            std::uint32_t* __restrict numbers, Note* __restrict notes) {
    if (channels == 3) {
      number<3>(stored, n, numbers);
    } else {
      for (std::size_t i = 0; i < n; ++i)
        numbers[i] = ColorCounter::pack(stored + i * channels, channels);
    }
    Note* const all = notes_.data();
    for (std::size_t i = 0; i < n; ++i)
      notes[i] = std::atomic_ref(all[numbers[i]]).load(std::memory_order_acquire);
  }

  void note(std::uint32_t number, Note note) {
    std::atomic_ref(notes_[number]).store(note, std::memory_order_release);
  }

 private:
  template <std::size_t kChannels>
  void number(const std::byte* stored, std::size_t n, std::uint32_t* __restrict numbers) {
    const Note* const all = notes_.data();
    for (std::size_t i = 0; i < n; ++i) {
      numbers[i] = ColorCounter::pack(stored + i * kChannels);
      __builtin_prefetch(all + numbers[i]);
    }
  }

  ZeroedArray<Note> notes_;
};

/// The places of the notes that are none.
inline void find_unknown(const std::uint8_t* notes, std::size_t n,
                         std::vector<std::uint32_t>& places) {
  constexpr std::size_t kEight = 8;
  places.clear();
  for (std::size_t first = 0; first < n; first += kEight) {
    const std::size_t size = std::min(kEight, n - first);
    std::uint64_t eight = ~std::uint64_t{0};
    std::memcpy(&eight, notes + first, size);
    // Few colors are new: mostly no byte of the eight is 0.
    if (((eight - 0x0101010101010101) & ~eight & 0x8080808080808080) == 0) continue;
    for (std::size_t i = first; i < first + size; ++i)
      if (notes[i] == 0) places.push_back(static_cast<std::uint32_t>(i));
  }
}

/// Some pixels of a Block as a Block of their own, in which nothing but their color is right.
class PickedPixels {
 public:
  PickedPixels() : color_(3) {}

  /// Good until the next call.
  const Block& pick(const Block& block, const std::vector<std::uint32_t>& places) {
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
