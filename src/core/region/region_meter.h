// Measures of connected regions: size, place, shape.
#ifndef CHALCEDONY_CORE_REGION_REGION_METER_H_
#define CHALCEDONY_CORE_REGION_REGION_METER_H_

#include <cstdint>
#include <deque>
#include <vector>

#include "core/region/run_linker.h"

namespace chalcedony {

/// The diameter of the circle of an area.
double diameter_of_area(double area);

/// Lengths in pixels, positions with (0.5, 0.5) as the center of the first pixel; docs/regions.md
/// has the formulas.
struct RegionMeasures {
  Label label = 0;
  std::uint64_t pixels = 0;
  double center_x = 0, center_y = 0;
  std::uint32_t left = 0, top = 0, width = 0, height = 0;  // the bounding box
  double perimeter = 0;                   // by Crofton's formula in four directions
  double equivalent_diameter = 0;         // of the circle of the same area
  double roundness = 0;                   // 4 pi area / perimeter^2, at most 1
  double major_axis = 0, minor_axis = 0;  // of the ellipse with the same second moments
  double orientation = 0;  // of the major axis, degrees in [0, 180) counterclockwise from across
  std::uint64_t holes = 0;
  bool at_edge = false;  // touches the edge of the picture
};

/// Takes the rows of a picture of labels from top to bottom. Memory grows with the number of
/// regions, not with the picture.
class RegionMeter {
 public:
  RegionMeter(std::uint32_t width, std::uint32_t height, Connectivity connectivity);

  void add_row(const Label* labels);

  /// The measures of every region, in the order of their first pixels. Call once, after the last
  /// row.
  std::vector<RegionMeasures> finish();

  /// After finish(): the number of the region of each part, for a second pass of a RunLinker of the
  /// same kind over the same rows.
  const std::vector<std::uint32_t>& region_of_part() const { return region_of_part_; }

 private:
  /// What adds up over the parts of a region.
  struct Sums {
    Label label = 0;
    std::uint64_t pixels = 0, runs = 0, links = 0;
    double x = 0, y = 0, xx = 0, yy = 0, xy = 0;       // of the centers of pixels
    std::uint64_t below = 0, falling = 0, rising = 0;  // pairs of pixels one below the other
    std::uint32_t left = ~0u, top = ~0u, right = 0,
                  bottom = 0;  // right and bottom are past the end

    void add(const RegionRun& run);
    void add_link(const RegionRun& above, const RegionRun& run);
    Sums& operator+=(const Sums& other);
    RegionMeasures measures(std::uint32_t picture_width, std::uint32_t picture_height) const;
  };

  std::uint32_t width_, height_;
  RunLinker linker_;
  std::deque<Sums> sums_;  // of each part; grows without moving what is there
  std::vector<std::uint32_t> region_of_part_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REGION_REGION_METER_H_
