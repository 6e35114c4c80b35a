// The silhouette: how much nearer points are to their own group than to the next one.
#ifndef CHALCEDONY_CORE_CLUSTER_SILHOUETTE_H_
#define CHALCEDONY_CORE_CLUSTER_SILHOUETTE_H_

#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Judges several groupings of the same points, each of which stands for one pixel. Holds the
/// distances between all of them, so give some thousand at most.
class Silhouette {
 public:
  /// `points` one after the other, `dimensions` numbers each.
  Silhouette(const std::vector<float>& points, std::size_t dimensions);

  std::size_t points() const { return count_; }

  /// The mean over all points of (b - a) / max(a, b): a is the mean distance to the other points of
  /// its group, b the smallest mean distance to those of another one. From -1 to 1; a point alone
  /// in its group counts 0, and so does everything when there is one group only.
  ///
  /// Source    Rousseeuw (1987), Journal of Computational and Applied Mathematics 20, 53-65
  double mean(const std::vector<std::uint8_t>& labels) const;

 private:
  std::size_t count_;
  std::vector<float> distances_;  // count x count
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_SILHOUETTE_H_
