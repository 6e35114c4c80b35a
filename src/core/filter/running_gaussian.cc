#include "core/filter/running_gaussian.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/filter/running_gaussian.cc"
#include <hwy/foreach_target.h>
#include <hwy/highway.h>

#ifndef CHALCEDONY_CORE_FILTER_RUNNING_GAUSSIAN_CC_
#define CHALCEDONY_CORE_FILTER_RUNNING_GAUSSIAN_CC_
namespace chalcedony {
/// Lines that are worked on together: a strip holds a value of each, then the next of each.
inline constexpr std::size_t kStripLines = 8;
}  // namespace chalcedony
#endif

HWY_BEFORE_NAMESPACE();
namespace chalcedony {
namespace HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

// Sums along the lines of a strip of n values each; n - 2 reach of them are written.
void run_along(const float* strip, std::size_t n, std::size_t reach, double level,
               const RunningGaussian::Cosine* cosines, float* out) {
  constexpr std::size_t kCosines = RunningGaussian::kCosines;
  const hn::CappedTag<double, kStripLines> d;
  const hn::Rebind<float, decltype(d)> df;
  using V = hn::Vec<decltype(d)>;
  const std::size_t window = 2 * reach + 1;
  for (std::size_t line = 0; line < kStripLines; line += hn::Lanes(d)) {
    V flat = hn::Zero(d), x[kCosines], y[kCosines];
    for (std::size_t k = 0; k < kCosines; ++k) x[k] = y[k] = hn::Zero(d);
    for (std::size_t i = 0; i < n; ++i) {
      V change = hn::PromoteTo(d, hn::LoadU(df, strip + i * kStripLines + line));
      if (i >= window)
        change = hn::Sub(
            change, hn::PromoteTo(d, hn::LoadU(df, strip + (i - window) * kStripLines + line)));
      flat = hn::Add(flat, change);
      V sum = hn::Mul(flat, hn::Set(d, level));
      for (std::size_t k = 0; k < kCosines; ++k) {
        const RunningGaussian::Cosine& c = cosines[k];
        const V turn_x = hn::Set(d, c.turn_x), turn_y = hn::Set(d, c.turn_y);
        const V next_x = hn::Add(hn::Add(hn::Mul(x[k], turn_x), hn::Mul(y[k], turn_y)),
                                 hn::Mul(change, hn::Set(d, c.edge_x)));
        y[k] = hn::Add(hn::Sub(hn::Mul(y[k], turn_x), hn::Mul(x[k], turn_y)),
                       hn::Mul(change, hn::Set(d, c.edge_y)));
        x[k] = next_x;
        sum = hn::Add(sum, hn::Mul(next_x, hn::Set(d, c.share)));
      }
      if (i + 1 >= window)
        hn::StoreU(hn::DemoteTo(df, sum), df, out + (i + 1 - window) * kStripLines + line);
    }
  }
}

}  // namespace HWY_NAMESPACE
}  // namespace chalcedony
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace chalcedony {
namespace {

HWY_EXPORT(run_along);

}  // namespace

RunningGaussian::RunningGaussian(const std::vector<float>& weights) : reach_(weights.size() - 1) {
  const double window = 2 * static_cast<double>(reach_) + 1;
  // As a Fourier series over the reach: the cosines are whole waves of it.
  const auto share = [&](double angle) {
    double sum = static_cast<double>(weights[0]);
    for (std::size_t i = 1; i <= reach_; ++i)
      sum += 2 * static_cast<double>(weights[i]) * std::cos(angle * static_cast<double>(i));
    return sum / window;
  };
  level_ = share(0);
  for (std::size_t k = 0; k < kCosines; ++k) {
    const double angle = 2 * std::numbers::pi * static_cast<double>(k + 1) / window;
    const double edge = angle * static_cast<double>(reach_);
    cosines_[k] = {2 * share(angle), std::cos(angle), std::sin(angle), std::cos(edge),
                   std::sin(edge)};
  }
}

void RunningGaussian::run(const std::vector<float>& strip, std::vector<float>& out) const {
  HWY_DYNAMIC_DISPATCH(run_along)
  (strip.data(), strip.size() / kStripLines, reach_, level_, cosines_.data(), out.data());
}

void RunningGaussian::sums(const Tile& values, Tile& out) const {
  Tile across(out.width(), values.height());
  std::vector<float> strip(values.width() * kStripLines), summed(out.width() * kStripLines);
  for (std::size_t top = 0; top < values.height(); top += kStripLines) {
    const std::size_t lines = std::min(kStripLines, values.height() - top);
    for (std::size_t l = 0; l < lines; ++l)
      for (std::size_t x = 0; x < values.width(); ++x)
        strip[x * kStripLines + l] = values.row(top + l)[x];
    run(strip, summed);
    for (std::size_t l = 0; l < lines; ++l)
      for (std::size_t x = 0; x < out.width(); ++x)
        across.row(top + l)[x] = summed[x * kStripLines + l];
  }
  strip.assign(values.height() * kStripLines, 0.0f);
  summed.resize(out.height() * kStripLines);
  for (std::size_t left = 0; left < out.width(); left += kStripLines) {
    const std::size_t lines = std::min(kStripLines, out.width() - left);
    for (std::size_t y = 0; y < values.height(); ++y)
      std::copy_n(across.row(y) + left, lines, strip.data() + y * kStripLines);
    run(strip, summed);
    for (std::size_t y = 0; y < out.height(); ++y)
      std::copy_n(summed.data() + y * kStripLines, lines, out.row(y) + left);
  }
}

}  // namespace chalcedony
#endif
