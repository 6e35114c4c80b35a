// Sample regions: points and polygons in pixel coordinates, and the pixels that lie in them.
#ifndef CHALCEDONY_CORE_LEARN_SAMPLE_SHAPE_H_
#define CHALCEDONY_CORE_LEARN_SAMPLE_SHAPE_H_

#include <algorithm>
#include <compare>
#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "core/pixel/mask.h"

namespace chalcedony {

/// A position in the picture: x to the right, y down, (0.5, 0.5) the center of the first pixel.
struct Position {
  double x = 0;
  double y = 0;

  friend auto operator<=>(const Position&, const Position&) = default;
};

/// A polygon by its rings (even-odd, so later rings are holes), or a point when there are none.
struct SampleShape {
  std::size_t sample_class = 0;  // index in SampleSet::classes
  std::vector<std::vector<Position>> rings;
  Position point;
  double radius = 0;  // of a point; 0 takes the pixel that holds it

  friend auto operator<=>(const SampleShape&, const SampleShape&) = default;
};

/// Finds where the edges of rings cross a row at y, from left to right: between the first and the
/// second, the third and the fourth and so on lies what the rings enclose. An edge counts where y
/// lies in [y1, y2) of it.
void find_crossings(const std::vector<std::vector<Position>>& rings, double y,
                    std::vector<double>& crossings);

/// The outline of a rectangle, from its upper left corner on and back to it.
std::vector<Position> rectangle_ring(double left, double top, double width, double height);

struct SampleClass {
  std::string name;
  std::string color;  // CSS hexadecimal; empty when the samples give none
};

struct SampleSet {
  std::vector<SampleClass> classes;  // in order of first appearance
  std::vector<SampleShape> shapes;

  /// The class with this name, added when it is new.
  std::size_t class_named(const std::string& name);
  /// Adds the shapes of another set. Classes are one by name; the first color said of one holds.
  void add(const SampleSet& more);
};

/// The samples of these classes.
///
/// Errors    InputError for a class that has none
SampleSet samples_of_classes(SampleSet samples, const std::vector<std::string>& names);

/// Width and height of a picture in pixels.
struct DrawnSize {
  double width = 0, height = 0;
};

/// Samples that were drawn on a picture of one size, on the same picture of another. Where that is
/// not as much wider as it is higher, radii grow by the geometric mean of both.
SampleSet rescaled(SampleSet samples, const DrawnSize& from, const DrawnSize& to);

/// Pixels [begin, end) of one row (never of two), numbered in raster order, that belong to a class.
struct SampleRun {
  std::uint64_t begin = 0;
  std::uint64_t end = 0;
  std::size_t sample_class = 0;
};

/// The pixels whose centers lie in the shapes, as runs in raster order. A pixel in several shapes
/// of one class is taken once; one in shapes of two classes belongs to both.
///
/// Errors    InputError naming the class of a shape that reaches outside the picture
std::vector<SampleRun> sample_runs(const SampleSet& samples, std::uint32_t width,
                                   std::uint32_t height);

/// The pixels of all runs.
Mask mask_of(const std::vector<SampleRun>& runs, std::uint32_t width, std::uint32_t height);

/// The first of the runs that may reach pixel `first` or one behind it.
///
/// Shape     `runs` as sample_runs() gives them for a picture of this width
inline std::vector<SampleRun>::const_iterator first_run_from(const std::vector<SampleRun>& runs,
                                                             std::uint32_t width,
                                                             std::uint64_t first) {
  // Runs are sorted by their begin and none is longer than a row.
  return std::lower_bound(
      runs.begin(), runs.end(), first,
      [&](const SampleRun& r, std::uint64_t pixel) { return r.begin + width < pixel; });
}

/// Calls `use(run, pixel)` for every pixel of the runs in [first, end), run by run.
///
/// Shape     as first_run_from()
template <class Use>
void for_each_sample_pixel(const std::vector<SampleRun>& runs, std::uint32_t width,
                           std::uint64_t first, std::uint64_t end, const Use& use) {
  for (auto run = first_run_from(runs, width, first); run != runs.end() && run->begin < end; ++run)
    for (std::uint64_t p = std::max(run->begin, first); p < std::min(run->end, end); ++p)
      use(*run, p);
}

/// Whether the runs have a pixel in [first, end).
///
/// Shape     as first_run_from()
inline bool has_sample_pixel(const std::vector<SampleRun>& runs, std::uint32_t width,
                             std::uint64_t first, std::uint64_t end) {
  for (auto run = first_run_from(runs, width, first); run != runs.end() && run->begin < end; ++run)
    if (std::max(run->begin, first) < std::min(run->end, end)) return true;
  return false;
}

/// Two classes, the lower first, and the pixels that samples of both hold.
struct SharedPixels {
  std::size_t first = 0, second = 0;
  std::uint64_t pixels = 0;
};

/// The pairs of classes that share pixels, in their order.
std::vector<SharedPixels> pixels_shared_by_pairs(const std::vector<SampleRun>& runs);

/// For each class how many of its shapes are the same as an earlier one of it.
std::vector<std::size_t> repeated_shapes(const SampleSet& samples);

/// Pixels that belong to more than one class.
std::uint64_t shared_pixels(const std::vector<SampleRun>& runs);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_SAMPLE_SHAPE_H_
