// Labels of points in stretches. When points are in the order of their colors, a label mostly stays
// the same for many.
#ifndef CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_
#define CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_

#include <cstddef>
#include <cstdint>

#include "core/pixel/byte_word.h"

namespace chalcedony {

/// Calls use(first, last, label) for every stretch of equal labels from `begin` to `end`, in order;
/// `last` is behind it.
template <class Use>
void for_each_stretch(const std::uint8_t* labels, std::size_t begin, std::size_t end, Use use) {
  while (begin < end) {
    const std::uint8_t label = labels[begin];
    const std::uint64_t word = word_of(label);
    std::size_t last = begin + 1;
    while (last + kWordBytes <= end && word_at(labels + last) == word) last += kWordBytes;
    while (last < end && labels[last] == label) ++last;
    use(begin, last, label);
    begin = last;
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_LABEL_STRETCHES_H_
