#include "core/stats/moments.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/stats/moments.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#ifndef CHALCEDONY_CORE_STATS_MOMENTS_CC_
#define CHALCEDONY_CORE_STATS_MOMENTS_CC_
namespace chalcedony {

/// Neighbors whose sums are kept apart, so that vectors of any length add in one order.
constexpr std::size_t kMomentsApart = 8;

using MomentParts = std::array<double, kMomentsApart>;
/// The figures of Moments, in parts.
struct ApartMoments {
  MomentParts count, at_low, at_high, sum, sum_of_squares, smallest, largest;
};

}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

/// Of n values, a multiple of kMomentsApart, of which each counts `weights` times.
void gather_moments(const float* HWY_RESTRICT values, const double* HWY_RESTRICT weights,
                    std::size_t n, double low, double high, ApartMoments& out) {
  using D = hn::CappedTag<double, kMomentsApart>;
  const D d;
  const hn::Rebind<float, D> df;
  constexpr double kInfinity = std::numeric_limits<double>::infinity();
  const auto lowest = hn::Set(d, low), highest = hn::Set(d, high);
  for (std::size_t k = 0; k < kMomentsApart; k += hn::Lanes(d)) {
    auto count = hn::Zero(d), at_low = count, at_high = count, sum = count, squares = count;
    auto smallest = hn::Set(d, kInfinity), largest = hn::Set(d, -kInfinity);
    for (std::size_t i = k; i < n; i += kMomentsApart) {
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

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {

HWY_EXPORT(gather_moments);

namespace {

double total(const MomentParts& parts) {
  double sum = 0;
  for (const double part : parts) sum += part;
  return sum;
}

}  // namespace

void Moments::add(const Block& block, const float* values, double low, double high) {
  std::array<double, kBlockPixels + kPlanePadding> weights;
  if (block.weights) {
    for (std::size_t i = 0; i < block.size; ++i) weights[i] = block.weight(i);
  } else if (block.counted) {
    for (std::size_t i = 0; i < block.size; ++i) weights[i] = block.counted[i];
  } else {
    std::fill_n(weights.begin(), block.size, 1.0);
  }
  const std::size_t n = (block.size + kMomentsApart - 1) / kMomentsApart * kMomentsApart;
  std::fill(weights.begin() + static_cast<std::ptrdiff_t>(block.size),
            weights.begin() + static_cast<std::ptrdiff_t>(n), 0.0);
  ApartMoments apart;
  // The ends of a range are those of the floats that are held against them.
  HWY_DYNAMIC_DISPATCH(gather_moments)
  (values, weights.data(), n, static_cast<double>(static_cast<float>(low)),
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
  HueMoments here;
  for (std::size_t i = 0; i < block.size; ++i) {
    const std::uint32_t pixels = block.weight(i);
    if (pixels == 0 || degrees[i] != degrees[i]) continue;
    const double radians = degrees[i] * (std::numbers::pi / 180.0);
    here.sine += pixels * std::sin(radians);
    here.cosine += pixels * std::cos(radians);
    here.count += pixels;
  }
  *this += here;
}

HueMoments& HueMoments::operator+=(const HueMoments& later) {
  count += later.count;
  sine += later.sine;
  cosine += later.cosine;
  return *this;
}

double HueMoments::mean() const {
  const double degrees = std::atan2(sine, cosine) * (180.0 / std::numbers::pi);
  return degrees < 0 ? degrees + 360.0 : degrees;
}

double HueMoments::spread() const {
  const double length = std::hypot(sine, cosine) / static_cast<double>(count);
  return std::sqrt(std::max(0.0, -2.0 * std::log(length))) * (180.0 / std::numbers::pi);
}

}  // namespace chalcedony
#endif
