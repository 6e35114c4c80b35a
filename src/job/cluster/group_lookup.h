// The class of every color of a job's pictures, found once and then looked up pixel by pixel.
#ifndef CHALCEDONY_JOB_CLUSTER_GROUP_LOOKUP_H_
#define CHALCEDONY_JOB_CLUSTER_GROUP_LOOKUP_H_

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "job/cluster/grouping.h"

namespace chalcedony {

/// Of one grouping the class lies at the color itself; of several, the color's place among the
/// points does, and at that place the class by each. Threads share it.
class GroupLookup {
 public:
  /// Takes the counted colors of `colors`. Classes are those of the maps: entries of a model that
  /// were merged have one number.
  GroupLookup(ColorPoints& colors, const std::vector<Grouping>& groupings);

  /// Whether colors can be looked up at all; else every pixel has to be classified.
  bool knows_colors() const { return class_of_color_ || place_of_color_; }

  /// What labels() needs to know of n stored pixels of these pictures.
  void find_places(const std::byte* stored, std::uint32_t channels, std::size_t n,
                   std::uint32_t* places) const;

  /// Their classes by grouping g. Of a pixel that does not count, and whose color was not counted,
  /// the class is of no meaning.
  void labels(std::size_t g, const std::byte* stored, std::uint32_t channels, std::size_t n,
              const std::uint32_t* places, std::uint8_t* labels) const;

 private:
  std::optional<ColorLookup<std::uint8_t>> class_of_color_;
  std::optional<ColorLookup<std::uint32_t>> place_of_color_;
  // The classes at one place by all groupings lie together: most of a picture's Block is in the
  // cache when the next grouping looks at it.
  std::size_t groupings_ = 0;
  std::vector<std::uint8_t> classes_;  // place by place, by each grouping
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CLUSTER_GROUP_LOOKUP_H_
