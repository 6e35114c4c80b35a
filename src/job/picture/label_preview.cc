#include "job/picture/label_preview.h"

#include <algorithm>
#include <string>
#include <vector>

#include "core/palette/class_painter.h"

namespace chalcedony {

Thumbnail label_thumbnail(const LabelPicture& picture, std::uint32_t most_width,
                          std::uint32_t most_height) {
  const LabelGrid& grid = picture.grid;
  std::vector<std::string> colors;
  for (const LegendEntry& entry : picture.classes) {
    if (colors.size() < entry.index) colors.resize(entry.index, "#000000");
    colors[entry.index - 1] = entry.color;
  }
  ClassPainter painter(colors);
  ThumbnailSums sums(grid.width, grid.height, most_width, most_height);
  Block block;
  block.picture_width = grid.width;
  for (std::size_t at = 0; at < grid.labels.size(); at += kBlockPixels) {
    block.first_pixel = at;
    block.size = std::min(kBlockPixels, grid.labels.size() - at);
    sums.add(block, painter.paint(grid.labels.data() + at, block.size));
  }
  return sums.thumbnail();
}

}  // namespace chalcedony
