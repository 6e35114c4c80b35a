#include "core/select/mask_combination.h"

namespace chalcedony {

void MaskCombination::apply(const Block& block, std::uint8_t* flags) const {
  const auto change = [&](const std::vector<Mask>& masks, const auto& combined) {
    for (const Mask& mask : masks)
      for (std::size_t i = 0; i < block.size; ++i)
        flags[i] = combined(flags[i] != 0, mask.at(block.pixel(i)));
  };
  change(only_in, [](bool selected, bool in) { return selected && in; });
  change(also_in, [](bool selected, bool in) { return selected || in; });
  change(not_in, [](bool selected, bool in) { return selected && !in; });
}

}  // namespace chalcedony
