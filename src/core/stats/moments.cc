#include "core/stats/moments.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/degrees.h"
#include "core/stats/apart_sums.h"

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/stats/moments.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#include "core/double_math-inl.h"

#ifndef CHALCEDONY_CORE_STATS_MOMENTS_CC_
#define CHALCEDONY_CORE_STATS_MOMENTS_CC_
namespace chalcedony {

/// The figures of Moments, in parts.
struct ApartMoments {
  ApartSums count, at_low, at_high, sum, sum_of_squares, smallest, largest;
};
/// The figures of HueMoments, in parts.
struct ApartDirections {
  ApartSums count, sine, cosine;
};

}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

/// Of n values, a multiple of kSumsApart, of which each counts `weights` times.
void gather_moments(const float* HWY_RESTRICT values, const double* HWY_RESTRICT weights,
                    std::size_t n, double low, double high, ApartMoments& out) {
  using D = hn::CappedTag<double, kSumsApart>;
  const D d;
  const hn::Rebind<float, D> df;
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  const auto lowest = hn::Set(d, low), highest = hn::Set(d, high);
  for (std::size_t k = 0; k < kSumsApart; k += hn::Lanes(d)) {
    auto count = hn::Zero(d), at_low = count, at_high = count, sum = count, squares = count;
    auto smallest = hn::Set(d, kInfinity), largest = hn::Set(d, -kInfinity);
    for (std::size_t i = k; i < n; i += kSumsApart) {
      const auto value = hn::PromoteTo(d, hn::LoadU(df, values + i));
      const auto weight = hn::IfThenElseZero(hn::Eq(value, value), hn::LoadU(d, weights + i));
      const auto counts = hn::Gt(weight, hn::Zero(d));
      const auto v = hn::IfThenElseZero(counts, value);  // else an infinite one would be heard
      count = hn::Add(count, weight);
      at_low = hn::Add(at_low, hn::IfThenElseZero(hn::Le(v, lowest), weight));
      at_high = hn::Add(at_high, hn::IfThenElseZero(hn::Ge(v, highest), weight));
      const auto weighted = hn::Mul(weight, v);
      sum = hn::Add(sum, weighted);
      squares = hn::Add(squares, hn::Mul(weighted, v));
      smallest = hn::Min(smallest, hn::IfThenElse(counts, v, smallest));
      largest = hn::Max(largest, hn::IfThenElse(counts, v, largest));
    }
    hn::StoreU(count, d, out.count.data() + k);
    hn::StoreU(at_low, d, out.at_low.data() + k);
    hn::StoreU(at_high, d, out.at_high.data() + k);
    hn::StoreU(sum, d, out.sum.data() + k);
    hn::StoreU(squares, d, out.sum_of_squares.data() + k);
    hn::StoreU(smallest, d, out.smallest.data() + k);
    hn::StoreU(largest, d, out.largest.data() + k);
  }
}

/// As gather_moments, of directions. In double, since the spread of like hues hangs on how little
/// their mean direction is shorter than 1.
void gather_directions(const float* HWY_RESTRICT degrees, const double* HWY_RESTRICT weights,
                       std::size_t n, ApartDirections& out) {
  using D = hn::CappedTag<double, kSumsApart>;
  const D d;
  const hn::Rebind<float, D> df;
  for (std::size_t k = 0; k < kSumsApart; k += hn::Lanes(d)) {
    auto count = hn::Zero(d), sines = count, cosines = count;
    for (std::size_t i = k; i < n; i += kSumsApart) {
      const auto value = hn::PromoteTo(d, hn::LoadU(df, degrees + i));
      const auto weight = hn::IfThenElseZero(hn::Eq(value, value), hn::LoadU(d, weights + i));
      auto sine = count, cosine = count;
      sine_cosine_of_degrees(d, hn::IfThenElseZero(hn::Gt(weight, hn::Zero(d)), value), sine,
                             cosine);
      count = hn::Add(count, weight);
      sines = hn::Add(sines, hn::Mul(weight, sine));
      cosines = hn::Add(cosines, hn::Mul(weight, cosine));
    }
    hn::StoreU(count, d, out.count.data() + k);
    hn::StoreU(sines, d, out.sine.data() + k);
    hn::StoreU(cosines, d, out.cosine.data() + k);
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(gather_moments);
HWY_EXPORT(gather_directions);

namespace {

using Weights = std::array<double, kBlockPixels + kPlanePadding>;

/// How many pixels each one of a Block stands for; 0 for those that fill up the last vector.
Weights weights_of(const Block& block) {
  Weights weights;
  if (block.weights) {
    for (std::size_t i = 0; i < block.size; ++i) weights[i] = block.weight(i);
  } else if (block.counted) {
    for (std::size_t i = 0; i < block.size; ++i) weights[i] = block.counted[i];
  } else {
    std::fill_n(weights.begin(), block.size, 1.0);
  }
  std::fill(weights.begin() + static_cast<std::ptrdiff_t>(block.size),
            weights.begin() + static_cast<std::ptrdiff_t>(whole_sums(block.size)), 0.0);
  return weights;
}

}  // namespace

void Moments::add(const Block& block, const float* values, double low, double high) {
  const Weights weights = weights_of(block);
  ApartMoments apart;
  // The ends of a range are those of the floats that are held against them.
  HWY_DYNAMIC_DISPATCH(gather_moments)
  (values, weights.data(), whole_sums(block.size), static_cast<double>(static_cast<float>(low)),
   static_cast<double>(static_cast<float>(high)), apart);
  Moments here;
  here.count = static_cast<std::uint64_t>(total(apart.count));
  here.at_low = static_cast<std::uint64_t>(total(apart.at_low));
  here.at_high = static_cast<std::uint64_t>(total(apart.at_high));
  here.sum = total(apart.sum);
  here.sum_of_squares = total(apart.sum_of_squares);
  here.smallest =
      static_cast<float>(*std::min_element(apart.smallest.begin(), apart.smallest.end()));
  here.largest = static_cast<float>(*std::max_element(apart.largest.begin(), apart.largest.end()));
  *this += here;
}

Moments& Moments::operator+=(const Moments& later) {
  count += later.count;
  at_low += later.at_low;
  at_high += later.at_high;
  sum += later.sum;
  sum_of_squares += later.sum_of_squares;
  smallest = std::min(smallest, later.smallest);
  largest = std::max(largest, later.largest);
  return *this;
}

double Moments::mean() const { return sum / static_cast<double>(count); }

double Moments::standard_deviation() const {
  const double m = mean();
  return std::sqrt(std::max(0.0, sum_of_squares / static_cast<double>(count) - m * m));
}

void HueMoments::add(const Block& block, const float* degrees) {
  const Weights weights = weights_of(block);
  ApartDirections apart;
  HWY_DYNAMIC_DISPATCH(gather_directions)
  (degrees, weights.data(), whole_sums(block.size), apart);
  HueMoments here;
  here.count = static_cast<std::uint64_t>(total(apart.count));
  here.sine = total(apart.sine);
  here.cosine = total(apart.cosine);
  *this += here;
}

HueMoments& HueMoments::operator+=(const HueMoments& later) {
  count += later.count;
  sine += later.sine;
  cosine += later.cosine;
  return *this;
}

double HueMoments::mean() const { return direction(sine, cosine); }

double HueMoments::spread() const {
  const double length = std::hypot(sine, cosine) / static_cast<double>(count);
  return std::sqrt(std::max(0.0, -2.0 * std::log(length))) * (180.0 / std::numbers::pi);
}

}  // namespace chalcedony
#endif
