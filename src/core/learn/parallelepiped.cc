#include "core/learn/parallelepiped.h"

#include <algorithm>
#include <cmath>

#include "core/planes.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/learn/parallelepiped.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/learn/best_class-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {

// How far out of the middle of box c the pixels from i on lie, in half-widths; a feature that is
// not a number gives one that is none. `boxes` holds for each class the middles, then one over the
// half-widths.
template <class Size, class D>
HWY_INLINE hn::Vec<D> out_of_middle(Size, D d, const float* const* features, std::size_t count,
                                    const float* boxes, std::size_t c, std::size_t i) {
  const std::size_t dimensions = Size::of(count);
  const float* const middle = boxes + 2 * dimensions * c;
  const float* const per_half = middle + dimensions;
  auto most = hn::Zero(d);
  for (std::size_t f = 0; f < dimensions; ++f) {
    const auto step = hn::Sub(hn::LoadU(d, features[f] + i), hn::Set(d, middle[f]));
    const auto out = hn::Mul(hn::Abs(step), hn::Set(d, per_half[f]));
    // Not Max, which may lose what is not a number.
    most = hn::IfThenElse(hn::Lt(out, most), most, out);
    most = hn::IfThenElse(hn::Eq(out, out), most, hn::Set(d, 3.4e38f));
  }
  return most;
}

void nearest_boxes(const std::vector<const float*>& features, const std::vector<float>& boxes,
                   const ScoreLimits& limits, std::size_t n, Label* labels,
                   const PixelFlags& flags) {
  const float* const* planes = features.data();
  const std::size_t count = features.size();
  const float* const first = boxes.data();
  with_dimensions(count, [&](auto size) {
    const auto score = [=](auto d, std::size_t c, std::size_t i) {
      return hn::Neg(out_of_middle(size, d, planes, count, first, c, i));
    };
    if (flags.contested) {
      best_classes_of_kind<true, true>(limits, n, labels, flags, score);
    } else {
      best_classes_of_kind<true, false>(limits, n, labels, flags, score);
    }
  });
}

void distances_from_middles(const std::vector<const float*>& features,
                            const std::vector<float>& boxes, std::size_t n,
                            const std::vector<float*>& planes) {
  distances_to_classes(n, planes, [&](auto d, std::size_t c, std::size_t i) {
    return out_of_middle(Dimensions<0>(), d, features.data(), features.size(), boxes.data(), c, i);
  });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearest_boxes);
HWY_EXPORT(distances_from_middles);

// What rounding to float may move an end by, so that the samples at the ends stay inside.
constexpr double kRoom = 1 + 1e-5;

/// The box of a class in one feature.
struct Side {
  double low = 0, high = 0;
  double middle() const { return (low + high) / 2; }
};

Side side_of(const ClassStatistics& s, Eigen::Index f, double spread,
             const Eigen::VectorXd& floor) {
  const double deviation = spread * std::sqrt(s.covariance(f, f));
  const double low = spread > 0 ? s.mean[f] - deviation : s.smallest[f];
  const double high = spread > 0 ? s.mean[f] + deviation : s.largest[f];
  const double middle = (low + high) / 2, half = std::max((high - low) / 2, floor[f]) * kRoom;
  return {middle - half, middle + half};
}

class Parallelepiped : public Classifier {
 public:
  Parallelepiped(const Model& model, const ClassLimits& limits)
      : limits_(score_limits(limits, model.classes.size(),
                             [](std::size_t, double distance) { return -distance; })) {
    const Eigen::VectorXd floor = smallest_spread(model);
    for (const ModelClass& c : model.classes) add(c.statistics, model.box_spread, floor);
    // Whatever the limits, a pixel outside the box has no class.
    for (float& accepted : limits_.accepted) accepted = std::max(accepted, -1.0f);
  }

  void classify(const std::vector<const float*>& features, std::size_t n, Label* labels,
                const PixelFlags& flags) const override {
    HWY_DYNAMIC_DISPATCH(nearest_boxes)(features, boxes_, limits_, n, labels, flags);
  }

  void distances(const std::vector<const float*>& features, std::size_t n,
                 const std::vector<float*>& planes) const override {
    HWY_DYNAMIC_DISPATCH(distances_from_middles)(features, boxes_, n, planes);
  }

  std::size_t classes() const override { return limits_.accepted.size(); }

 private:
  void add(const ClassStatistics& s, double spread, const Eigen::VectorXd& floor) {
    std::vector<float> per_half;
    for (Eigen::Index f = 0; f < s.mean.size(); ++f) {
      const Side side = side_of(s, f, spread, floor);
      boxes_.push_back(static_cast<float>(side.middle()));
      per_half.push_back(static_cast<float>(2 / (side.high - side.low)));
    }
    boxes_.insert(boxes_.end(), per_half.begin(), per_half.end());
  }

  ScoreLimits limits_;
  std::vector<float> boxes_;
};

}  // namespace

std::unique_ptr<Classifier> make_parallelepiped(const Model& model, const ClassLimits& limits) {
  return std::make_unique<Parallelepiped>(model, limits);
}

Explanation explain_parallelepiped(const Model& model, const std::vector<double>& features) {
  Explanation out;
  const Eigen::VectorXd floor = smallest_spread(model);
  for (const ModelClass& c : model.classes) {
    ClassExplanation& one = out.classes.emplace_back();
    for (std::size_t f = 0; f < features.size(); ++f) {
      const Side side =
          side_of(c.statistics, static_cast<Eigen::Index>(f), model.box_spread, floor);
      const double step = features[f] - side.middle();
      const double halves = std::abs(step) * 2 / (side.high - side.low);
      one.terms.push_back({side.middle(), step, step, halves, side.low, side.high});
      one.sum = std::max(one.sum, halves);
    }
    one.distance = one.sum;
    one.score = -one.sum;
    one.inside = one.sum <= 1;
  }
  return out;
}

}  // namespace chalcedony
#endif
