#include "core/learn/minimum_distance.h"

#include <cmath>

#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/minimum_distance.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/learn/best_class-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

template <class Size, class D>
HWY_INLINE hn::Vec<D> squared_distance(Size, D d, const float* const* features, std::size_t count,
                                       const float* mean, std::size_t i) {
  auto distance = hn::Zero(d);
  for (std::size_t f = 0; f < Size::of(count); ++f) {
    const auto step = hn::Sub(hn::LoadU(d, features[f] + i), hn::Set(d, mean[f]));
    distance = hn::Add(distance, hn::Mul(step, step));
  }
  return distance;
}

// `means` holds the means of class 1, then of class 2, ...
void nearest_means(const std::vector<const float*>& features, const std::vector<float>& means,
                   const ScoreLimits& limits, std::size_t n, Label* labels,
                   const PixelFlags& flags) {
  const float* const* planes = features.data();
  const std::size_t count = features.size();
  const float* const first = means.data();
  with_dimensions(count, [&](auto size) {
    best_classes(limits, n, labels, flags, [=](auto d, std::size_t c, std::size_t i) {
      return hn::Neg(squared_distance(size, d, planes, count, first + c * size.of(count), i));
    });
  });
}

void distances_from_means(const std::vector<const float*>& features,
                          const std::vector<float>& means, std::size_t n,
                          const std::vector<float*>& planes) {
  distances_to_classes(n, planes, [&](auto d, std::size_t c, std::size_t i) {
    return hn::Sqrt(squared_distance(Dimensions<0>(), d, features.data(), features.size(),
                                     means.data() + c * features.size(), i));
  });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearest_means);
HWY_EXPORT(distances_from_means);

class MinimumDistance : public Classifier {
 public:
  MinimumDistance(const Model& model, const ClassLimits& limits)
      : limits_(score_limits(limits, model.classes.size(),
                             [](std::size_t, double distance) { return -distance * distance; })) {
    for (const ModelClass& c : model.classes)
      for (const double mean : c.statistics.mean) means_.push_back(static_cast<float>(mean));
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    HWY_DYNAMIC_DISPATCH(nearest_means)(features, means_, limits_, n, labels, flags);
  }

  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    HWY_DYNAMIC_DISPATCH(distances_from_means)(features, means_, n, planes);
  }

  std::size_t classes() const override { return limits_.accepted.size(); }

 private:
  ScoreLimits limits_;
  std::vector<float> means_;
};

}  // namespace

std::unique_ptr<Classifier> make_minimum_distance(const Model& model, const ClassLimits& limits) {
  return std::make_unique<MinimumDistance>(model, limits);
}

Explanation explain_minimum_distance(const Model& model, const std::vector<double>& features) {
  Explanation out;
  for (const ModelClass& c : model.classes) {
    ClassExplanation& one = out.classes.emplace_back();
    for (std::size_t f = 0; f < features.size(); ++f) {
      const double middle = c.statistics.mean[static_cast<Eigen::Index>(f)];
      const double step = features[f] - middle;
      one.terms.push_back({middle, step, step, step * step});
      one.sum += step * step;
    }
    one.distance = std::sqrt(one.sum);
    one.score = -one.sum;
  }
  return out;
}

}  // namespace chalcedony
#endif
