// How many pixels are drawn, and from which classes of a map.
#ifndef CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
#define CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "job/assess/draw_design.h"

namespace chalcedony {

struct DrawPlan {
  bool by_class = false;              // a pool for each class; else one for all pixels
  std::vector<std::uint64_t> pools;   // pixels there are
  std::vector<std::uint64_t> wanted;  // pixels to draw from each
  std::uint64_t asked = 0;            // by the user; more than wanted when pools are too small

  std::uint64_t total() const;
};

/// The plan for the random designs. `classes` are those of the map, and what pixels without one are
/// called; `pixels` says how many can be drawn from each. When some of them have too few, `warn` is
/// told.
///
/// Errors    InputError when a number is given for a class the map does not have, or none would be
///           drawn
DrawPlan plan_draw(const DrawDesign& design, const std::vector<std::string>& classes,
                   const std::vector<std::uint64_t>& pixels,
                   const std::function<void(const std::string&)>& warn);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
