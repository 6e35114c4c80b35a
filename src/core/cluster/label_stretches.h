// Labels of points in stretches. When points are in the order of their colors, a label mostly stays
// the same for many.
#ifndef CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_
#define CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstring>

namespace chalcedony {

/// Labels that are looked at together.
inline constexpr std::size_t kLabelsAtOnce = sizeof(std::uint64_t);

/// kLabelsAtOnce of them, the same each.
inline std::uint64_t label_word(std::uint8_t label) { return label * 0x0101010101010101ull; }

/// Calls use(first, last, label) for every stretch of equal labels from `begin` to `end`, in order;
/// `last` is behind it.
template <class Use>
void for_each_stretch(const std::uint8_t* labels, std::size_t begin, std::size_t end, Use use) {
  while (begin < end) {
    const std::uint8_t label = labels[begin];
    const std::uint64_t word = label_word(label);
    std::size_t last = begin + 1;
    while (last + kLabelsAtOnce <= end && std::memcmp(labels + last, &word, kLabelsAtOnce) == 0)
      last += kLabelsAtOnce;
    while (last < end && labels[last] == label) ++last;
    use(begin, last, label);
    begin = last;
  }
}

/// Writes the places of a label among n into `members`, in order, which has room for n. Returns how
/// many there are.
inline std::size_t list_members(const std::uint8_t* labels, std::size_t n, std::uint8_t label,
                                std::uint32_t* members) {
  const std::uint64_t word = label_word(label);
  std::size_t size = 0;
  for (std::size_t first = 0; first < n; first += kLabelsAtOnce) {
    const std::size_t last = std::min(n, first + kLabelsAtOnce);
    if (last == first + kLabelsAtOnce) {
      std::uint64_t own;
      std::memcpy(&own, labels + first, kLabelsAtOnce);
      // No byte of their difference is 0: none is the label.
      const std::uint64_t apart = own ^ word;
      if (((apart - 0x0101010101010101) & ~apart & 0x8080808080808080) == 0) continue;
    }
    // Without branches: which point is a member cannot be guessed where labels meet.
    for (std::size_t i = first; i < last; ++i) {
      members[size] = static_cast<std::uint32_t>(i);
      size += labels[i] == label ? 1 : 0;
    }
  }
  return size;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_
