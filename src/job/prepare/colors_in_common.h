// How many of its colors a picture has in common with another, before and after it was balanced.
#ifndef CHALCEDONY_JOB_PREPARE_COLORS_IN_COMMON_H_
#define CHALCEDONY_JOB_PREPARE_COLORS_IN_COMMON_H_

#include "core/color/conversion.h"
#include "core/pixel/raster.h"
#include "core/planes.h"
#include "core/stats/cube.h"
#include "core/stats/histogram_distance.h"
#include "job/picture/tallies.h"

namespace chalcedony {

/// A coarse cube of oklab without counts, in which colors are held against each other.
CubeHistogram empty_color_cube();

/// Counts the colors of Blocks in such a cube. One for each thread.
class ColorCubeCounter {
 public:
  explicit ColorCubeCounter(const PictureInfo& info);

  /// `rgb`: the channels of the picture's space, of all pixels of the Block.
  void add(const Block& block, const ConstPlanes& rgb, CubeHistogram& cube);

 private:
  Conversion to_oklab_;
  PlaneBuffer oklab_{3};
};

/// The shares of the counted pixels whose colors two cubes have in common, 0 to 100.
double percent_in_common(const CubeHistogram& a, const CubeHistogram& b);

class ColorsInCommon {
 public:
  /// `other`: the colors of the other picture; null where nothing is asked. Both must outlive this.
  ColorsInCommon(const PictureInfo& info, const CubeHistogram* other);

  /// One for each thread.
  class Collector {
   public:
    explicit Collector(ColorsInCommon& all);

    /// A Block as it was read, and its channels as they are written.
    void add(const Block& block, const ConstPlanes& balanced);

   private:
    ColorsInCommon& all_;
    ColorCubeCounter counter_;
  };

  /// Percent of the counted pixels, when all Blocks have been added.
  struct Found {
    double before = 0, after = 0;
  };
  Found found();

 private:
  struct Cubes {
    CubeHistogram before, after;
  };

  const PictureInfo& info_;
  const CubeHistogram* other_;
  Tallies<Cubes> cubes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_COLORS_IN_COMMON_H_
