#include "io/picture/picture_spec.h"

#include <algorithm>
#include <utility>

#include "core/pixel/label.h"

namespace chalcedony {

PictureSpec label_spec(const RasterShape& size, SampleType sample) {
  PictureSpec spec;
  spec.shape = {size.width, size.height, 1, sample};
  spec.labels = true;
  return spec;
}

PictureSpec class_map_spec(const RasterShape& size, std::vector<LegendEntry> legend) {
  unsigned largest = 0;
  for (const LegendEntry& entry : legend) largest = std::max(largest, entry.index);
  PictureSpec spec = label_spec(size, sample_for_labels(largest));
  spec.legend = std::move(legend);
  return spec;
}

PictureSpec indexed_spec(const RasterShape& size, std::vector<Color> colors, bool alpha) {
  PictureSpec spec;
  spec.shape = {size.width, size.height, 1, SampleType::kU8};
  spec.alpha = alpha;
  spec.palette = std::move(colors);
  return spec;
}

}  // namespace chalcedony
