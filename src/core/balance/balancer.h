// Evens out the light of a picture and bends its channels, Block by Block.
#ifndef CHALCEDONY_CORE_BALANCE_BALANCER_H_
#define CHALCEDONY_CORE_BALANCE_BALANCER_H_

#include <cstddef>
#include <optional>
#include <vector>

#include "core/balance/light_field.h"
#include "core/color/conversion.h"
#include "core/color/curve_table.h"
#include "core/pixel/block.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// What is done to a picture, in this order.
struct Balance {
  std::optional<LightCorrection> light;
  bool on_lightness = false;       // bend Lab lightness, keep the hue
  std::vector<CurveTable> curves;  // of r, g, b; of lightness or a gray one; none: no bending
};

/// Whether pictures of a space can be balanced: those whose samples sRGB's transfer function
/// encodes.
bool can_balance(const Space& space);

/// One for each thread.
class Balancer {
 public:
  /// Range     a picture whose space can_balance(); `balance` is looked at in every call
  Balancer(const PictureInfo& info, const Balance& balance);

  /// r g b in 0-255 with the light evened out, or as they are.
  ConstPlanes evened(const Block& block);

  /// The channels that the curves are for: r g b, or three times lightness.
  ConstPlanes channels(const ConstPlanes& rgb, std::size_t n);

  /// r g b after all of it.
  ConstPlanes balanced(const Block& block);

 private:
  void bend_lightness(const Planes& lab, std::size_t n);

  const Balance& balance_;
  Conversion to_lab_, from_lab_;
  PlaneBuffer evened_, bent_, scratch_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_BALANCE_BALANCER_H_
