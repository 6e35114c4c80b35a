// The way from one color space to another through the tree of spaces.
#ifndef CHALCEDONY_CORE_COLOR_CONVERSION_H_
#define CHALCEDONY_CORE_COLOR_CONVERSION_H_

#include <cstddef>
#include <vector>

#include "core/color/space.h"
#include "core/planes.h"

namespace chalcedony {

/// The spaces passed on the way from `from` to `to`, both included: up to the common ancestor,
/// then down.
std::vector<const Space*> conversion_path(const Space& from, const Space& to);

/// What is known of the values a conversion begins with.
enum class KnownValues {
  kAny,
  kInRange,  // sRGB values on the way lie in 0-255: no clip is needed before hsv and its kin
};

/// A conversion ready to run: affine steps that follow one another are multiplied together.
class Conversion {
 public:
  Conversion(const Space& from, const Space& to, KnownValues known = KnownValues::kAny);

  /// From one space to another, or back to the same, by way of `middle`, where `map` is applied.
  static Conversion mapped_in(const Space& from, const Space& middle, const Affine& map,
                              const Space& to);

  /// True when the values of both spaces are the same numbers.
  bool is_identity() const { return steps_.empty(); }

  /// Converts n pixels.
  ///
  /// Units     the contract's, on both sides (ChannelInfo)
  /// Shape     planes padded as in planes.h; `out` may be `in`
  /// Accuracy  1e-3 in units of 0-255, percent and Lab; 1e-5 in oklab, XYZ, xyY
  ///           (conversion_test.cc, against the formulas in double)
  void run(const ConstPlanes& in, const Planes& out, std::size_t n) const;

 private:
  Conversion() = default;
  void add_way(const Space& from, const Space& to, KnownValues known);
  void add(const Steps& steps);
  void run_steps(const ConstPlanes& in, const Planes& out, std::size_t n) const;

  std::vector<Step> steps_;
};

/// One color, for places where speed does not matter.
std::array<double, 3> convert_color(const Space& from, const Space& to,
                                    const std::array<double, 3>& color);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_COLOR_CONVERSION_H_
