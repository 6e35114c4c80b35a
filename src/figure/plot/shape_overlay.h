// Shapes outlined on a shown picture.
#ifndef CHALCEDONY_FIGURE_PLOT_SHAPE_OVERLAY_H_
#define CHALCEDONY_FIGURE_PLOT_SHAPE_OVERLAY_H_

#include <string>
#include <vector>

#include "core/learn/sample_shape.h"
#include "core/pixel/region.h"
#include "figure/plot/plot.h"

namespace chalcedony {

/// Every shape of the samples outlined in the color of its class, with the name of the class in it
/// or beside it, and coordinates along the picture.
///
/// Shape     a color for each class
Overlay outlined_samples(Plot& plot, const SampleSet& samples,
                         const std::vector<std::string>& colors);

/// The outline of a rectangle in a color, between two lines of paper that part it from a picture of
/// that color: what Overlay::plots holds.
std::string outlined(Plot& plot, const PixelRect& rect, const std::string& color);

/// A name above or below the middle of a rectangle.
PictureLabel name_beside(const PixelRect& rect, const std::string& name);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_SHAPE_OVERLAY_H_
