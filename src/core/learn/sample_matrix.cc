#include "core/learn/sample_matrix.h"

#include <vector>

namespace chalcedony {

ErrorMatrix sample_matrix(const Classifier& classifier, const Model& model,
                          const SampleTable& samples) {
  const std::size_t classes = model.classes.size();
  ErrorMatrix matrix(classes + 1, classes);
  std::vector<Label> labels(kBlockPixels + kPlanePadding);
  for (std::size_t c = 0; c < classes; ++c) {
    const ClassSamples& own = samples.of(c);
    for_each_sample_block(
        own, model.divisors,
        [&](std::size_t first, std::size_t n, const std::vector<const float*>& planes) {
          classifier.classify(planes, n, labels.data());
          for (std::size_t i = 0; i < n; ++i)
            matrix.add(labels[i] == 0 ? classes : labels[i] - 1u, c, own.counts[first + i]);
        });
  }
  return matrix;
}

}  // namespace chalcedony
