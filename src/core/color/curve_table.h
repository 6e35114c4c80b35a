// A curve of one channel worked out for every 16-bit code, so that 8-bit and 16-bit values are
// exact.
#ifndef CHALCEDONY_CORE_COLOR_CURVE_TABLE_H_
#define CHALCEDONY_CORE_COLOR_CURVE_TABLE_H_

#include <cstddef>
#include <vector>

namespace chalcedony {

/// A table of values at equal steps from 0 to 1, straight between them; beyond, its ends.
///
/// Shape     two values or more
double table_at(const std::vector<double>& table, double share);

class CurveTable {
 public:
  /// `curve(share)` takes and gives shares of the channel's range, whose ends are `low` and `high`.
  template <class Curve>
  CurveTable(const Curve& curve, double low, double high)
      : low_(static_cast<float>(low)), per_step_(static_cast<float>((kCodes - 1) / (high - low))) {
    values_.reserve(kCodes + 1);
    for (std::size_t i = 0; i < kCodes; ++i)
      values_.push_back(
          static_cast<float>(low + (high - low) * curve(static_cast<double>(i) / (kCodes - 1))));
    values_.push_back(values_.back());
  }

  /// n values of the channel, in its units; `out` may be `in`. Between codes the curve is straight.
  /// Values beyond the range are taken as its ends; NaN stays.
  ///
  /// Shape     planes padded as in planes.h
  void apply(const float* in, float* out, std::size_t n) const;

 private:
  static constexpr std::size_t kCodes = 65536;

  float low_, per_step_;
  std::vector<float> values_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CURVE_TABLE_H_
