#include "core/palette/group_look.h"

#include <algorithm>
#include <cmath>

#include "core/cluster/point_sums.h"
#include "core/color/ciede2000.h"
#include "core/color/conversion.h"
#include "core/color/css_color.h"
#include "core/pixel/byte_places.h"
#include "core/pixel/unset_vector.h"
#include "core/planes.h"
#include "core/stats/distance_sums.h"

namespace chalcedony {
namespace {

/// Pixels and sums of oklab of every group.
struct ColorSums {
  std::vector<std::array<double, 4>> groups;

  ColorSums& operator+=(const ColorSums& later) {
    for (std::size_t g = 0; g < groups.size(); ++g)
      for (std::size_t c = 0; c < 4; ++c) groups[g][c] += later.groups[g][c];
    return *this;
  }
};

/// By label: that of the first group is 1.
ColorSums color_sums(const Points& oklab, const std::vector<std::uint8_t>& labels,
                     std::size_t groups) {
  const ColorSums empty{std::vector<std::array<double, 4>>(groups + 1)};
  return sum_over_chunks(oklab.size, empty, [&](std::size_t begin, std::size_t end) {
    ColorSums all = empty;
    add_weighted_by_label(oklab, labels.data(), begin, end, all.groups[0].data());
    return all;
  });
}

constexpr int kMostMedianSteps = 12;
// Of oklab, where neighboring 8-bit colors are some 0.003 apart: a median that moves less stands
// still, and nearer points weigh no more.
constexpr double kSmallestDistance = 1e-4;

double distance_in_oklab(const Points& oklab, std::size_t i, const std::array<double, 3>& color) {
  double square = 0;
  for (std::size_t c = 0; c < 3; ++c) {
    const double step = static_cast<double>(oklab.features[c][i]) - color[c];
    square += step * step;
  }
  return std::sqrt(square);
}

/// One step of Weiszfeld: means in which near pixels weigh more. Returns the longest way that one
/// went.
double move_medians(const Points& oklab, const std::vector<std::uint8_t>& labels,
                    std::vector<std::array<double, 3>>& medians) {
  const ColorSums empty{std::vector<std::array<double, 4>>(medians.size())};
  const ColorSums sums =
      sum_over_chunks(oklab.size, empty, [&](std::size_t begin, std::size_t end) {
        ColorSums all = empty;
        for (std::size_t i = begin; i < end; ++i) {
          const std::size_t g = labels[i] - 1u;
          const double weight =
              oklab.weights[i] /
              std::max(kSmallestDistance, distance_in_oklab(oklab, i, medians[g]));
          for (std::size_t c = 0; c < 3; ++c)
            all.groups[g][c] += weight * static_cast<double>(oklab.features[c][i]);
          all.groups[g][3] += weight;
        }
        return all;
      });
  double longest = 0;
  for (std::size_t g = 0; g < medians.size(); ++g) {
    if (!(sums.groups[g][3] > 0)) continue;
    double square = 0;
    for (std::size_t c = 0; c < 3; ++c) {
      const double moved = sums.groups[g][c] / sums.groups[g][3];
      square += (moved - medians[g][c]) * (moved - medians[g][c]);
      medians[g][c] = moved;
    }
    longest = std::max(longest, std::sqrt(square));
  }
  return longest;
}

}  // namespace

std::array<double, 3> lab_of(const std::array<double, 3>& oklab) {
  return Color{&spaces::kOklab, oklab}.in(spaces::kLab);
}

namespace {

/// The CIEDE2000 distance of every point to the color of its group, both in oklab.
UnsetVector<float> distances_to_colors(const Points& oklab, const std::vector<std::uint8_t>& labels,
                                       const std::vector<std::array<double, 3>>& colors) {
  std::vector<std::array<double, 3>> labs;
  for (const auto& color : colors) labs.push_back(lab_of(color));
  const Conversion to_lab(spaces::kOklab, spaces::kLab);
  UnsetVector<float> distances(oklab.size);
  for_each_chunk(oklab.size, [&](std::size_t, std::size_t begin, std::size_t end) {
    PlaneBuffer lab(3), own(4);  // of all points, and of one group's
    std::array<std::uint32_t, kBlockPixels> members;
    for (std::size_t at = begin; at < end; at += kBlockPixels) {
      const std::size_t n = std::min(kBlockPixels, end - at);
      to_lab.run({oklab.features[0] + at, oklab.features[1] + at, oklab.features[2] + at},
                 lab.planes(), n);
      // Points are in the order of their colors, so few groups meet in one block.
      std::array<bool, 256> seen{};
      for (std::size_t i = 0; i < n; ++i) seen[labels[at + i]] = true;
      for (std::size_t g = 0; g < colors.size(); ++g) {
        if (!seen[g + 1]) continue;
        const std::size_t size =
            list_places(labels.data() + at, n, static_cast<std::uint8_t>(g + 1), members.data());
        for (std::size_t c = 0; c < 3; ++c)
          for (std::size_t k = 0; k < size; ++k) own.plane(c)[k] = lab.plane(c)[members[k]];
        ciede2000_to(labs[g], read_only(own.planes()), size, own.plane(3));
        for (std::size_t k = 0; k < size; ++k) distances[at + members[k]] = own.plane(3)[k];
      }
    }
  });
  return distances;
}

/// The differences of a group's points from its color.
DistanceSummary spread_of(const Points& points, const std::vector<std::uint8_t>& labels,
                          std::size_t group, const UnsetVector<float>& distances) {
  DistanceSums sums;
  std::array<std::uint32_t, kBlockPixels> members;
  std::array<float, kBlockPixels> own;
  std::array<double, kBlockPixels> weights;
  for (std::size_t at = 0; at < points.size; at += kBlockPixels) {
    const std::size_t n = std::min(kBlockPixels, points.size - at);
    const std::size_t size =
        list_places(labels.data() + at, n, static_cast<std::uint8_t>(group + 1), members.data());
    for (std::size_t k = 0; k < size; ++k) {
      own[k] = distances[at + members[k]];
      weights[k] = points.weights[at + members[k]];
    }
    sums.add(own.data(), size, weights.data());
  }
  return sums.summary();
}

}  // namespace

std::vector<GroupLook> group_looks(const Points& oklab, const std::vector<std::uint8_t>& labels,
                                   std::size_t groups) {
  std::vector<GroupLook> looks(groups);
  std::vector<std::array<double, 3>> colors;
  const ColorSums sums = color_sums(oklab, labels, groups);
  for (std::size_t g = 0; g < groups; ++g) {
    const auto& [l, a, b, pixels] = sums.groups[g + 1];
    looks[g].pixels = pixels;
    const double weight = std::max(1e-300, pixels);
    looks[g].oklab = {l / weight, a / weight, b / weight};
    colors.push_back(looks[g].oklab);
  }
  const UnsetVector<float> distances = distances_to_colors(oklab, labels, colors);
  tbb::parallel_for(std::size_t{0}, groups, [&](std::size_t g) {
    const DistanceSummary spread = spread_of(oklab, labels, g, distances);
    looks[g].spread = spread.root_mean_square;
    looks[g].far_spread = spread.percentile_95;
  });
  return looks;
}

void find_typical(const Points& oklab, const std::vector<std::uint8_t>& labels,
                  std::vector<GroupLook>& looks) {
  std::vector<std::array<double, 3>> medians;
  for (const GroupLook& look : looks) medians.push_back(look.oklab);
  for (int step = 0; step < kMostMedianSteps; ++step)
    if (move_medians(oklab, labels, medians) < kSmallestDistance) break;
  std::vector<double> nearest(looks.size(), 1e300);
  for (std::size_t i = 0; i < oklab.size; ++i) {
    const std::size_t g = labels[i] - 1u;
    const double distance = distance_in_oklab(oklab, i, medians[g]);
    if (distance >= nearest[g]) continue;
    nearest[g] = distance;
    for (std::size_t c = 0; c < 3; ++c)
      looks[g].typical[c] = static_cast<double>(oklab.features[c][i]);
  }
}

void find_neighbors(std::vector<GroupLook>& looks) {
  std::vector<std::array<double, 3>> labs;
  for (const GroupLook& look : looks) labs.push_back(lab_of(look.oklab));
  for (std::size_t g = 0; g < looks.size(); ++g) {
    looks[g].nearest = g;
    looks[g].nearest_distance = 0;
    for (std::size_t other = 0; other < looks.size(); ++other) {
      if (other == g) continue;
      const double distance = ciede2000(labs[g], labs[other]);
      if (looks[g].nearest != g && distance >= looks[g].nearest_distance) continue;
      looks[g].nearest = other;
      looks[g].nearest_distance = distance;
    }
  }
}

}  // namespace chalcedony
