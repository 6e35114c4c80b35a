// Points that come as arrays of features, on vectors of double; every instruction set gives the
// same bits. Included once for each instruction set.
#if defined(CHALCEDONY_CORE_CLUSTER_POINT_MATH_INL_H_) == defined(HWY_TARGET_TOGGLE)
#ifdef CHALCEDONY_CORE_CLUSTER_POINT_MATH_INL_H_
#undef CHALCEDONY_CORE_CLUSTER_POINT_MATH_INL_H_
#else
#define CHALCEDONY_CORE_CLUSTER_POINT_MATH_INL_H_
#endif

#include <hwy/highway.h>

#include <cmath>
#include <cstddef>
#include <cstdint>

#include "core/multiply_add-inl.h"

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Feature f of points i, i + 1, ...
template <class D>
HWY_INLINE hn::Vec<D> feature_of(D d, const float* const* features, std::size_t f, std::size_t i) {
  return hn::PromoteTo(d, hn::LoadU(hn::Rebind<float, D>(), features[f] + i));
}

// The squared distances of points i, i + 1, ... to a center; features are arrays of float.
template <class D>
HWY_INLINE hn::Vec<D> squared_distances(D d, const float* const* features, std::size_t dimensions,
                                        const double* center, std::size_t i) {
  auto sum = hn::Zero(d);
  for (std::size_t f = 0; f < dimensions; ++f) {
    const auto step = hn::Sub(feature_of(d, features, f, i), hn::Set(d, center[f]));
    sum = multiply_add(step, step, sum);
  }
  return sum;
}

// The same of point i alone.
HWY_INLINE double squared_distance(const float* const* features, std::size_t dimensions,
                                   const double* center, std::size_t i) {
  double sum = 0;
  for (std::size_t f = 0; f < dimensions; ++f) {
    const double step = static_cast<double>(features[f][i]) - center[f];
    sum = std::fma(step, step, sum);
  }
  return sum;
}

// The sum of n numbers, in eight parts that are the same for every width of vectors.
template <class Number>
HWY_INLINE double sum_in_parts(std::size_t n, const Number& number) {
  constexpr std::size_t kParts = 8;
  double parts[kParts] = {};
  std::size_t i = 0;
  for (; i + kParts <= n; i += kParts)
    for (std::size_t p = 0; p < kParts; ++p) parts[p] += number(i + p);
  for (; i < n; ++i) parts[i % kParts] += number(i);
  return ((parts[0] + parts[4]) + (parts[2] + parts[6])) +
         ((parts[1] + parts[5]) + (parts[3] + parts[7]));
}

// The weights of n points, 0 for those of other labels; `own` is aligned.
HWY_INLINE void weights_of_label(const double* weights, const std::uint8_t* labels,
                                 std::uint8_t label, std::size_t n, double* own) {
  const hn::CappedTag<double, 8> d;
  const hn::Rebind<std::int32_t, decltype(d)> di;
  const hn::Rebind<std::uint8_t, decltype(d)> d8;
  const auto wanted = hn::Set(d, static_cast<double>(label));
  std::size_t i = 0;
  for (; i + hn::Lanes(d) <= n; i += hn::Lanes(d)) {
    const auto found = hn::PromoteTo(d, hn::PromoteTo(di, hn::LoadU(d8, labels + i)));
    hn::Store(hn::IfThenElseZero(hn::Eq(found, wanted), hn::LoadU(d, weights + i)), d, own + i);
  }
  for (; i < n; ++i) own[i] = labels[i] == label ? weights[i] : 0;
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#endif
