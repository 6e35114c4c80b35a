// How many pixels are drawn, and from which classes of a map.
#ifndef CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
#define CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "core/assess/sample_draw.h"
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

/// Draws by a plan: `candidates_of(draw)` collects, pool by pool, the pixels that the draw may
/// take.
template <class CandidatesOf>
std::vector<DrawnPixel> drawn_by(const DrawPlan& plan, std::uint64_t seed,
                                 const CandidatesOf& candidates_of) {
  SampleDraw draw(seed, plan.pools, plan.wanted);
  std::vector<DrawnPixel> drawn;
  while (drawn.empty()) {
    drawn = draw.drawn(candidates_of(draw));
    draw.widen();
  }
  return drawn;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
