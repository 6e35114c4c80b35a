// Small models for tests, trained on two clouds of samples.
#ifndef CHALCEDONY_TESTS_SUPPORT_TRAINED_MODELS_H_
#define CHALCEDONY_TESTS_SUPPORT_TRAINED_MODELS_H_

#include <random>
#include <string>

#include "core/learn/model.h"
#include "core/learn/reach.h"
#include "core/learn/sample_table.h"

namespace chalcedony::test {

/// Two clouds of samples in lab.a, lab.b.
inline SampleTable clouds(int samples = 2000) {
  std::mt19937 random(5);
  std::normal_distribution<float> spread(0, 4);
  SampleTable table(2);
  for (int i = 0; i < samples; ++i) {
    const float first[] = {20 + spread(random), 10 + spread(random)};
    const float second[] = {-15 + 2 * spread(random), spread(random)};
    table.add(0, first);
    table.add(1, second);
  }
  table.join_equal_rows();
  return table;
}

inline Model trained(const std::string& method, const SampleTable& samples) {
  Model model;
  model.method = method;
  model.features = channels_named("lab.a,lab.b");
  model.box_spread = 2.5;
  model.neighbors = method == "nearest-neighbor" ? 5 : 0;
  for (std::size_t c = 0; c < samples.classes(); ++c) {
    ModelClass one{c == 0 ? "warm" : "cool", "#808080", samples.statistics(c), 0.5};
    if (model.neighbors > 0) one.samples = samples.of(c);
    model.classes.push_back(one);
  }
  measure_reach(model, samples);
  return model;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_TRAINED_MODELS_H_
