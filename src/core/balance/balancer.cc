#include "core/balance/balancer.h"

#include <algorithm>

#include "core/color/srgb.h"

namespace chalcedony {

bool can_balance(const Space& space) {
  return &space == &spaces::kSrgb || &space == &spaces::kDisplayP3;
}

Balancer::Balancer(const PictureInfo& info, const Balance& balance)
    : balance_(balance),
      to_lab_(*info.space, spaces::kLab),
      from_lab_(spaces::kLab, *info.space),
      scratch_(1) {}

ConstPlanes Balancer::evened(const Block& block) {
  if (!balance_.light) return block.color;
  const Planes light = evened_.planes();
  decode_srgb(block.color, light, block.size);
  balance_.light->run(block, light, scratch_);
  encode_srgb(read_only(light), light, block.size);
  return read_only(light);
}

ConstPlanes Balancer::channels(const ConstPlanes& rgb, std::size_t n) {
  if (!balance_.on_lightness) return rgb;
  const Planes lab = bent_.planes();
  to_lab_.run(rgb, lab, n);
  return {lab[0], lab[0], lab[0]};
}

/// A pixel that gets darker loses chroma in the same proportion, as it would in less light.
void Balancer::bend_lightness(const Planes& lab, std::size_t n) {
  float* const before = scratch_.plane(0);
  std::copy_n(lab[0], n, before);
  balance_.curves.front().apply(lab[0], lab[0], n);
  for (std::size_t i = 0; i < n; ++i) {
    const float darker = lab[0][i] < before[i] ? lab[0][i] / before[i] : 1.0f;
    lab[1][i] *= darker;
    lab[2][i] *= darker;
  }
}

ConstPlanes Balancer::balanced(const Block& block) {
  const ConstPlanes rgb = evened(block);
  if (balance_.curves.empty()) return rgb;
  const Planes bent = bent_.planes();
  if (balance_.on_lightness) {
    to_lab_.run(rgb, bent, block.size);
    bend_lightness(bent, block.size);
    from_lab_.run(read_only(bent), bent, block.size);
  } else if (balance_.curves.size() == 1) {
    balance_.curves.front().apply(rgb[0], bent[0], block.size);
    return {bent[0], bent[0], bent[0]};
  } else {
    for (std::size_t c = 0; c < balance_.curves.size(); ++c)
      balance_.curves[c].apply(rgb[c], bent[c], block.size);
  }
  return read_only(bent);
}

}  // namespace chalcedony
