// The sample pixels of one class.
#ifndef CHALCEDONY_CORE_LEARN_CLASS_SAMPLES_H_
#define CHALCEDONY_CORE_LEARN_CLASS_SAMPLES_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/planes.h"

namespace chalcedony {

/// Distinct rows of features, each with the pixels it stands for. All numbers are finite.
struct ClassSamples {
  std::size_t features = 0;
  std::vector<float> values;          // a row after the other
  std::vector<std::uint64_t> counts;  // of each row

  std::size_t rows() const { return counts.size(); }
  const float* row(std::size_t i) const { return values.data() + i * features; }
  std::uint64_t pixels() const {
    std::uint64_t sum = 0;
    for (const std::uint64_t count : counts) sum += count;
    return sum;
  }
};

/// Calls `use(first_row, n, planes)` for the rows in order, at most a Block of them at a time, as a
/// plane for each feature, divided by its divisor (empty: by nothing).
template <class Use>
void for_each_sample_block(const ClassSamples& samples, const std::vector<double>& divisors,
                           const Use& use) {
  PlaneBuffer buffer(samples.features);
  std::vector<const float*> planes;
  for (std::size_t f = 0; f < samples.features; ++f) planes.push_back(buffer.plane(f));
  for (std::size_t first = 0; first < samples.rows(); first += kBlockPixels) {
    const std::size_t n = std::min(kBlockPixels, samples.rows() - first);
    for (std::size_t f = 0; f < samples.features; ++f) {
      const float factor = divisors.empty() ? 1.0f : static_cast<float>(1 / divisors[f]);
      float* const plane = buffer.plane(f);
      for (std::size_t i = 0; i < n; ++i) plane[i] = samples.row(first + i)[f] * factor;
    }
    use(first, n, planes);
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_CLASS_SAMPLES_H_
