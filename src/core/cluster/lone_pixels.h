// Lone pixels of a label picture: those unlike all their neighbors. Many of them look like salt and
// pepper, a sign of too many groups.
#ifndef CHALCEDONY_CORE_CLUSTER_LONE_PIXELS_H_
#define CHALCEDONY_CORE_CLUSTER_LONE_PIXELS_H_

#include <array>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// Counts pixels whose label differs from those of all eight neighbors. Rows come from the top;
/// label 0 does not count, neither as a pixel nor as a neighbor that is alike.
class LonePixels {
 public:
  explicit LonePixels(std::uint32_t width);

  void add_rows(const std::uint8_t* labels, std::size_t rows);
  /// Call once, after the last row.
  std::uint64_t finish();

 private:
  void push(const std::uint8_t* row);

  std::size_t width_;
  std::array<std::vector<std::uint8_t>, 3> rows_;  // with a 0 on either side
  std::uint64_t lone_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_LONE_PIXELS_H_
