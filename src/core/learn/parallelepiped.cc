#include "core/learn/parallelepiped.h"

#include <algorithm>
#include <cmath>

#include "core/pixel/planes.h"

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
template <class D>
HWY_INLINE hn::Vec<D> out_of_middle(D d, const std::vector<const float*>& features,
                                    const std::vector<float>& boxes, std::size_t c, std::size_t i) {
  const std::size_t dimensions = features.size();
  const float* const middle = boxes.data() + 2 * dimensions * c;
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
                   std::size_t n, std::uint8_t* labels) {
  best_classes(
      boxes.size() / features.size() / 2, n, labels, [&](auto d, std::size_t c, std::size_t i) {
        const auto out = out_of_middle(d, features, boxes, c, i);
        // Below what best_classes() begins with: no class.
        return hn::IfThenElse(hn::Le(out, hn::Set(d, 1.0f)), hn::Neg(out), hn::Set(d, -3.4e38f));
      });
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(nearest_boxes);

// What rounding to float may move an end by, so that the samples at the ends stay inside.
constexpr double kRoom = 1 + 1e-5;

class Parallelepiped : public Classifier {
 public:
  explicit Parallelepiped(const Model& model) {
    const Eigen::VectorXd floor = smallest_spread(model);
    for (const ModelClass& c : model.classes) add(c.statistics, model.box_spread, floor);
  }

  void classify(const std::vector<const float*>& features, std::size_t n,
                std::uint8_t* labels) const override {
    HWY_DYNAMIC_DISPATCH(nearest_boxes)(features, boxes_, n, labels);
  }

  bool contested(const std::vector<const float*>& features, std::size_t n,
                 std::uint8_t* flags) const override {
    const std::size_t dimensions = features.size();
    for (std::size_t i = 0; i < n; ++i) {
      std::size_t claims = 0;
      for (const float* box = boxes_.data(); box != boxes_.data() + boxes_.size();
           box += 2 * dimensions) {
        bool inside = true;
        for (std::size_t f = 0; f < dimensions; ++f)
          inside = inside && std::abs(features[f][i] - box[f]) * box[dimensions + f] <= 1.0f;
        claims += inside;
      }
      flags[i] = claims > 1;
    }
    return true;
  }

 private:
  void add(const ClassStatistics& s, double spread, const Eigen::VectorXd& floor) {
    std::vector<float> per_half;
    for (Eigen::Index f = 0; f < s.mean.size(); ++f) {
      const double deviation = spread * std::sqrt(s.covariance(f, f));
      const double low = spread > 0 ? s.mean[f] - deviation : s.smallest[f];
      const double high = spread > 0 ? s.mean[f] + deviation : s.largest[f];
      const double half = std::max((high - low) / 2, floor[f]) * kRoom;
      boxes_.push_back(static_cast<float>((low + high) / 2));
      per_half.push_back(static_cast<float>(1 / half));
    }
    boxes_.insert(boxes_.end(), per_half.begin(), per_half.end());
  }

  std::vector<float> boxes_;
};

}  // namespace

std::unique_ptr<Classifier> make_parallelepiped(const Model& model) {
  return std::make_unique<Parallelepiped>(model);
}

}  // namespace chalcedony
#endif
