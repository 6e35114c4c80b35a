#include "core/learn/reach.h"

#include <algorithm>
#include <cmath>

#include "core/learn/classifier.h"

namespace chalcedony {

std::vector<double> reach_of(std::vector<std::pair<float, std::uint64_t>> distances) {
  std::sort(distances.begin(), distances.end());
  std::uint64_t all = 0;
  for (const auto& [distance, pixels] : distances) all += pixels;
  std::vector<double> reach;
  std::size_t at = 0;
  std::uint64_t within = distances.front().second;
  for (const double percent : kReachPercents) {
    const double needed = std::ceil(static_cast<double>(all) * percent / 100);
    while (static_cast<double>(within) < needed) within += distances[++at].second;
    reach.push_back(distances[at].first);
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
    model.classes[c].reach = reach_of(std::move(found));
  }
}

}  // namespace chalcedony
