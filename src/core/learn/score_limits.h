// The limits of a classifier as its scores.
#ifndef CHALCEDONY_CORE_LEARN_SCORE_LIMITS_H_
#define CHALCEDONY_CORE_LEARN_SCORE_LIMITS_H_

#include <cstddef>
#include <vector>

#include "core/learn/classifier.h"

namespace chalcedony {

/// Below every score.
inline constexpr float kNoScore = -3.4e38f;

/// The lowest score that is still within a limit, for each entry of a model.
struct ScoreLimits {
  std::vector<float> accepted, known;
  bool rejects = false;  // whether `accepted` limits anything
};

/// `score_at(entry, distance)`: the score of a pixel of an entry at that distance. A limit is moved
/// out by what rounding to float may take, so that the samples it was measured on stay within.
template <class ScoreAt>
ScoreLimits score_limits(const ClassLimits& limits, std::size_t entries, const ScoreAt& score_at) {
  constexpr double kRoom = 1 + 1e-5;
  ScoreLimits out{std::vector<float>(entries, kNoScore), std::vector<float>(entries, kNoScore),
                  !limits.accepted.empty()};
  for (std::size_t e = 0; e < limits.accepted.size(); ++e)
    out.accepted[e] = static_cast<float>(score_at(e, limits.accepted[e] * kRoom));
  for (std::size_t e = 0; e < limits.known.size(); ++e)
    out.known[e] = static_cast<float>(score_at(e, limits.known[e] * kRoom));
  return out;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SCORE_LIMITS_H_
