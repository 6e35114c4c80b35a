#include "core/pixel/code_dither.h"

#include "core/pixel/pixel_hash.h"

namespace chalcedony {

CodeDither::CodeDither(std::uint64_t seed, const std::array<SampleScale, 3>& scales) : seed_(seed) {
  for (std::size_t c = 0; c < 3; ++c) steps_[c] = static_cast<float>(scales[c].factor);
}

void CodeDither::add(const Block& block, const Planes& color) const {
  constexpr std::uint64_t kMask = (1u << 21) - 1;
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint64_t bits = pixel_hash(seed_, block.pixel(i));
    for (std::size_t c = 0; c < 3; ++c) {
      const auto drawn = static_cast<float>(bits >> (21 * c) & kMask) / float{kMask + 1};
      color[c][i] += (drawn - 0.5f) * steps_[c];
    }
  }
}

}  // namespace chalcedony
