#include "core/learn/reach.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <iterator>

#include "core/learn/classifier.h"

namespace chalcedony {
namespace {

using Distance = std::pair<float, std::uint64_t>;

/// Distances are not negative, so the upper half of their bits is in their order.
std::size_t bucket_of(const Distance& distance) {
  return std::bit_cast<std::uint32_t>(distance.first + 0.0f) >> 16;  // of -0 as of 0
}

/// Sorts the distances of one bucket.
std::vector<Distance> sorted_bucket(const std::vector<Distance>& distances, std::size_t bucket) {
  std::vector<Distance> own;
  std::copy_if(distances.begin(), distances.end(), std::back_inserter(own),
               [&](const Distance& distance) { return bucket_of(distance) == bucket; });
  std::sort(own.begin(), own.end());
  return own;
}

}  // namespace

std::vector<double> reach_of(const std::vector<Distance>& distances) {
  // Only the buckets in which a share of the pixels is reached are sorted.
  std::vector<std::uint64_t> pixels(std::size_t{1} << 16);
  std::uint64_t all = 0;
  for (const Distance& distance : distances) {
    pixels[bucket_of(distance)] += distance.second;
    all += distance.second;
  }
  std::vector<double> reach;
  std::size_t bucket = 0;
  std::uint64_t before = 0;  // pixels in earlier buckets
  for (const double percent : kReachPercents) {
    const double needed = std::ceil(static_cast<double>(all) * percent / 100);
    while (static_cast<double>(before + pixels[bucket]) < needed) before += pixels[bucket++];
    std::uint64_t within = before;
    for (const Distance& distance : sorted_bucket(distances, bucket)) {
      within += distance.second;
      if (static_cast<double>(within) < needed) continue;
      reach.push_back(distance.first);
      break;
    }
  }
  return reach;
}

void measure_reach(Model& model, const SampleTable& samples) {
  const auto classifier = make_classifier(model);
  std::vector<float> distances(kBlockPixels + kPlanePadding);
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    const ClassSamples& own = samples.of(c);
    std::vector<std::pair<float, std::uint64_t>> found;
    for_each_sample_block(
        own, model.divisors,
        [&](std::size_t first, std::size_t n, const std::vector<const float*>& planes) {
          classifier->sample_distances(c, planes, n, distances.data());
          for (std::size_t i = 0; i < n; ++i)
            found.emplace_back(distances[i], own.counts[first + i]);
        });
    model.classes[c].reach = reach_of(found);
  }
}

}  // namespace chalcedony
