#include "core/learn/minimum_distance.h"

#include "core/pixel/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/minimum_distance.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/learn/best_class-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// `means` holds the means of class 1, then of class 2, ...
void nearest_means(const std::vector<const float*>& features, const std::vector<float>& means,
                   std::size_t n, std::uint8_t* labels) {
  const std::size_t dimensions = features.size();
  best_classes(means.size() / dimensions, n, labels, [&](auto d, std::size_t c, std::size_t i) {
    auto distance = hn::Zero(d);
    for (std::size_t f = 0; f < dimensions; ++f) {
      const auto step =
          hn::Sub(hn::LoadU(d, features[f] + i), hn::Set(d, means[c * dimensions + f]));
      distance = hn::Add(distance, hn::Mul(step, step));
    }
    return hn::Neg(distance);
  });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearest_means);

class MinimumDistance : public Classifier {
 public:
  explicit MinimumDistance(const Model& model) {
    for (const ModelClass& c : model.classes)
      for (const double mean : c.statistics.mean) means_.push_back(static_cast<float>(mean));
  }

  void classify(const std::vector<const float*>& features, std::size_t n,
                std::uint8_t* labels) const override {
    HWY_DYNAMIC_DISPATCH(nearest_means)(features, means_, n, labels);
  }

 private:
  std::vector<float> means_;
};

}  // namespace

std::unique_ptr<Classifier> make_minimum_distance(const Model& model) {
  return std::make_unique<MinimumDistance>(model);
}

}  // namespace chalcedony
#endif
