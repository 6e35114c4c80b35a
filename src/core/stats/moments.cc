#include "core/stats/moments.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace chalcedony {

void Moments::add(const Block& block, const float* values, double low, double high) {
  const float lowest = static_cast<float>(low), highest = static_cast<float>(high);
  Moments here;
  for (std::size_t i = 0; i < block.size; ++i) {
    const float v = values[i];
    if (!block.counts(i) || v != v) continue;
    const std::uint32_t pixels = block.weight(i);
    if (pixels == 0) continue;
    const double weight = pixels;
    here.count += pixels;
    here.at_low += v <= lowest ? pixels : 0;
    here.at_high += v >= highest ? pixels : 0;
    here.sum += weight * v;
    here.sum_of_squares += weight * v * v;
    here.smallest = std::min(here.smallest, v);
    here.largest = std::max(here.largest, v);
  }
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
