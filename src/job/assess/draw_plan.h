// How many pixels an assessment draws, and from which classes of the map.
#ifndef CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
#define CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_

#include <cstdint>
#include <string>
#include <vector>

#include "job/assess/assess.h"

namespace chalcedony {

struct DrawPlan {
  bool by_class = false;              // a pool for each row of the matrix; else one for all pixels
  std::vector<std::uint64_t> pools;   // pixels there are
  std::vector<std::uint64_t> wanted;  // pixels to draw from each
  std::uint64_t asked = 0;            // by the user; more than wanted when pools are too small

  std::uint64_t total() const;
};

/// The map as the place of an error; nothing when there are several.
inline std::string drawn_from(const AssessOptions& options) {
  return options.shared.inputs.size() == 1 ? options.shared.inputs.front().string() : "";
}

/// The plan for the random designs. `rows` names the rows of the matrix, `pixels` says how many
/// pixels can be drawn from each.
///
/// Errors    InputError when a number is given for a class the map does not have
DrawPlan plan_draw(const AssessOptions& options, const std::vector<std::string>& rows,
                   const std::vector<std::uint64_t>& pixels);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_DRAW_PLAN_H_
