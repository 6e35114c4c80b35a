#include "core/filter/ranked_tile.h"

#include <algorithm>
#include <cmath>
#include <iterator>

namespace chalcedony {

RankedTile ranked_codes(const Tile& tile) {
  RankedTile out;
  out.width = tile.width();
  for (std::size_t code = 0; code < kCodes; ++code) out.values.push_back(static_cast<float>(code));
  const float* const first = tile.row(0);
  const std::size_t size = tile.width() * tile.height();
  out.ranks.resize(size);
  std::transform(first, first + size, out.ranks.begin(),
                 [](float v) { return std::isnan(v) ? kCodes : static_cast<std::size_t>(v); });
  return out;
}

RankedTile ranked(const Tile& tile) {
  RankedTile out;
  out.width = tile.width();
  const float* const first = tile.row(0);
  const float* const last = first + tile.width() * tile.height();
  out.ranks.reserve(static_cast<std::size_t>(last - first));
  std::copy_if(first, last, std::back_inserter(out.values), [](float v) { return !std::isnan(v); });
  std::sort(out.values.begin(), out.values.end());
  out.values.erase(std::unique(out.values.begin(), out.values.end()), out.values.end());
  for (const float* v = first; v != last; ++v)
    out.ranks.push_back(
        std::isnan(*v)
            ? static_cast<std::uint32_t>(out.values.size())
            : static_cast<std::uint32_t>(
                  std::lower_bound(out.values.begin(), out.values.end(), *v) - out.values.begin()));
  return out;
}

}  // namespace chalcedony
