#include "job/palette/main_colors.h"

#include <algorithm>
#include <array>
#include <map>

#include "core/arena.h"
#include "core/error.h"
#include "core/palette/color_merging.h"
#include "job/cluster/grouping.h"

namespace chalcedony {
namespace {

constexpr std::size_t kGroupsPerColor = 3;
constexpr std::size_t kMostGroups = 192;
constexpr unsigned kRestarts = 3;

}  // namespace

Palette main_colors(const ColorPoints& colors, std::size_t most, double apart,
                    const SharedOptions& options) {
  const Points points = colors.points();
  KMeansOptions groups;
  groups.k = differing_points(points, std::min(kGroupsPerColor * most, kMostGroups));
  groups.restarts = kRestarts;
  groups.seed = options.seed;
  GroupingFrame frame;
  frame.features = channels_of(spaces::kOklab);
  Palette palette;
  in_arena(options.threads, [&] {
    const DrawnPoints drawn(points, options.seed, points_for_groups(groups.k));
    const Grouping fine = grouping_of(k_means(drawn, groups), colors, frame);
    const auto numbers = merged_groups(fine.looks, most, apart);
    std::vector<std::uint8_t> labels(points.size);
    for (std::size_t i = 0; i < points.size; ++i) labels[i] = numbers[fine.labels[i] - 1u];
    std::vector<GroupLook> looks =
        group_looks(colors.oklab(), labels, *std::max_element(numbers.begin(), numbers.end()));
    find_typical(colors.oklab(), labels, looks);
    palette = make_palette(looks);
  });
  return palette;
}

Palette unique_colors(const ColorPoints& colors, std::size_t most, const std::string& remedy) {
  const Points oklab = colors.oklab();
  std::map<std::array<float, 3>, double> pixels;
  for (std::size_t i = 0; i < oklab.size; ++i) {
    pixels[{oklab.features[0][i], oklab.features[1][i], oklab.features[2][i]}] += oklab.weights[i];
    if (pixels.size() > most)
      throw InputError("has more than " + std::to_string(most) + " colors", remedy);
  }
  std::vector<GroupLook> looks;
  for (const auto& [color, count] : pixels) {
    GroupLook& look = looks.emplace_back();
    look.pixels = count;
    for (std::size_t c = 0; c < 3; ++c) look.oklab[c] = static_cast<double>(color[c]);
    look.typical = look.oklab;
  }
  return make_palette(looks);
}

}  // namespace chalcedony
