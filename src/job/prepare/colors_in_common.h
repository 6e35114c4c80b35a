// How many of its colors a picture has in common with another.
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

/// Gathers the colors of a picture as they are written.
class WrittenColors {
 public:
  /// `info` must outlive this. Nothing is gathered when it is not wanted.
  WrittenColors(const PictureInfo& info, bool wanted);

  /// One for each thread.
  class Collector {
   public:
    explicit Collector(WrittenColors& all);

    /// A Block as it was read, and its channels as they are written.
    void add(const Block& block, const ConstPlanes& written);

   private:
    WrittenColors& all_;
    ColorCubeCounter counter_;
  };

  /// When all Blocks have been added.
  const CubeHistogram& colors();

 private:
  const PictureInfo& info_;
  bool wanted_;
  Tallies<CubeHistogram> cubes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_COLORS_IN_COMMON_H_
