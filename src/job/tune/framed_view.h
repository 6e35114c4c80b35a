// The pictures of a page, each in its frame.
#ifndef CHALCEDONY_JOB_TUNE_FRAMED_VIEW_H_
#define CHALCEDONY_JOB_TUNE_FRAMED_VIEW_H_

#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "core/pixel/raster.h"
#include "job/tune/picture_view.h"

namespace chalcedony {

/// Where a picture stands in a view.
struct PictureFrame {
  std::string name;
  std::uint32_t left = 0, top = 0, width = 0, height = 0;  // in pixels of the view
  std::uint32_t step = 1;  // pixels of the picture from one to the next
};

struct FramedView {
  PictureView view;
  std::vector<PictureFrame> frames;  // one at least
};

/// A picture by itself.
FramedView framed(PictureView view, const std::string& name);

/// A picture that is put beside others.
struct PictureBeside {
  std::string name;
  PictureView view;
  std::vector<std::size_t> class_here;  // for each of its classes which one it is on the page
};

/// Pictures side by side, row by row in their order, with gaps between them that do not count. All
/// are of the same channels, and pixels that are alike are of one kind, in whichever they are.
///
/// Range     one picture at least
FramedView side_by_side(const std::vector<PictureBeside>& pictures, std::size_t channels);

/// How many pixels may be seen along the longest side of each of these pictures, at most `of_one`,
/// that there are no more in all than in a square of that side, or one picture is as small as a
/// dot.
std::uint32_t seen_of_each(std::uint32_t of_one, const std::vector<RasterShape>& pictures);

/// How many stand in a row, so that all together have about the shape of a screen.
std::size_t pictures_in_row(std::size_t pictures, std::uint32_t width, std::uint32_t height);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_FRAMED_VIEW_H_
