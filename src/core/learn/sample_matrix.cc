#include "core/learn/sample_matrix.h"

#include <cstdint>
#include <vector>

#include "core/learn/classifier.h"

namespace chalcedony {

ErrorMatrix sample_matrix(const Model& model, const SampleTable& samples) {
  const std::size_t classes = model.classes.size();
  const auto classifier = make_classifier(model);
  ErrorMatrix matrix(classes + 1, classes);
  std::vector<std::uint8_t> labels(kBlockPixels + kPlanePadding);
  for (std::size_t c = 0; c < classes; ++c) {
    const ClassSamples& own = samples.of(c);
    for_each_sample_block(
        own, model.divisors,
        [&](std::size_t first, std::size_t n, const std::vector<const float*>& planes) {
          classifier->classify(planes, n, labels.data());
          for (std::size_t i = 0; i < n; ++i)
            matrix.add(labels[i] == 0 ? classes : labels[i] - 1u, c, own.counts[first + i]);
        });
  }
  return matrix;
}

}  // namespace chalcedony
