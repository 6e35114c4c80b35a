// Points in small blocks, label by label.
#ifndef CHALCEDONY_CORE_CLUSTER_LABELED_BLOCKS_H_
#define CHALCEDONY_CORE_CLUSTER_LABELED_BLOCKS_H_

#include <algorithm>
#include <bitset>
#include <cstddef>
#include <cstdint>

#include "core/pixel/byte_word.h"

namespace chalcedony {

inline constexpr std::size_t kLabeledAtOnce = 64;  // points

/// Calls use(label, first, last) for every label of every block of at most kLabeledAtOnce points
/// from `begin` to `end`; blocks in order, and the labels of each as they first come.
template <class Use>
void for_each_labeled_block(const std::uint8_t* labels, std::size_t begin, std::size_t end,
                            const Use& use) {
  for (std::size_t at = begin; at < end; at += kLabeledAtOnce) {
    const std::size_t last = std::min(end, at + kLabeledAtOnce);
    std::bitset<256> seen;
    for (std::size_t i = at; i < last;) {
      const std::uint8_t label = labels[i];
      if (!seen[label]) use(label, at, last);
      seen.set(label);
      const std::uint64_t word = word_of(label);
      for (++i; i + kWordBytes <= last && word_at(labels + i) == word;) i += kWordBytes;
    }
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_LABELED_BLOCKS_H_
