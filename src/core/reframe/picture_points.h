// A picture held in memory, seen at places between its pixels.
#ifndef CHALCEDONY_CORE_REFRAME_PICTURE_POINTS_H_
#define CHALCEDONY_CORE_REFRAME_PICTURE_POINTS_H_

#include <array>
#include <cstddef>
#include <memory>
#include <optional>

#include "core/channel/channel.h"
#include "core/pixel/large_vector.h"
#include "core/pixel/row_source.h"

namespace chalcedony {

/// How places are seen.
struct PointLook {
  bool nearest = false;  // by the nearest pixel, for labels; else bicubic
  /// What shows beside the picture, in the contract's units of its space; null for transparent.
  std::optional<std::array<double, 3>> fill = {};
  bool beside = true;  // whether places beside the picture are seen: transparent ones need alpha
};

/// Pixels lend as much as their alpha says; edges blend into the fill.
class PicturePoints {
 public:
  /// `info` is what the source's samples mean.
  PicturePoints(std::unique_ptr<RowSource> source, const PictureInfo& info, const PointLook& look);

  /// What the samples of a place mean: as the picture's, with straight alpha where it has some or
  /// where places beside it are transparent. The size is the picture's.
  const PictureInfo& info() const { return to_; }
  /// What the picture's own samples mean.
  const PictureInfo& picture() const { return from_; }

  /// Holds the whole picture from here on. The rest can be asked by all threads then.
  void load();
  const std::byte* samples() const { return samples_.data(); }

  /// The samples at a place: whole numbers are the centers of pixels, 0 that of the first.
  ///
  /// Shape     `out`: a pixel of info()'s shape
  /// Source    Keys (1981), a = -1/2, unless nearest
  template <class Sample>
  void take(double x, double y, Sample* out) const;

  /// What is seen where nothing of the picture is.
  template <class Sample>
  void take_beside(Sample* out) const;

 private:
  template <class Sample>
  void take_nearest(double x, double y, Sample* out) const;
  template <class Sample>
  void take_bicubic(double x, double y, Sample* out) const;

  std::unique_ptr<RowSource> source_;
  PictureInfo from_, to_;
  PointLook look_;
  std::array<float, 3> fill_{};  // as stored
  LargeVector<std::byte> samples_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_REFRAME_PICTURE_POINTS_H_
