// Masks that a selection is combined with.
#ifndef CHALCEDONY_CORE_SELECT_MASK_COMBINATION_H_
#define CHALCEDONY_CORE_SELECT_MASK_COMBINATION_H_

#include <cstdint>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/mask.h"

namespace chalcedony {

/// Masks of the size of the picture. What they say holds in this order, so that `not_in` has the
/// last word.
struct MaskCombination {
  std::vector<Mask> only_in = {};  // a pixel must be in all of them
  std::vector<Mask> also_in = {};  // a pixel of one of them is taken, whatever was selected
  std::vector<Mask> not_in = {};   // a pixel of one of them is left out

  /// Changes the flags (flags.h) of the selected pixels of a Block.
  void apply(const Block& block, std::uint8_t* flags) const;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_MASK_COMBINATION_H_
