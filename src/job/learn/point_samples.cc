#include "job/learn/point_samples.h"

#include <cstddef>

#include "core/error.h"

namespace chalcedony {

SampleSet samples_of_points(const TruthTable& table, const std::filesystem::path& file,
                            const RasterShape& picture, const std::string& what,
                            const Context& context) {
  SampleSet samples;
  for (const TruthPixel& pixel : table.pixels) {
    if (pixel.x >= picture.width || pixel.y >= picture.height)
      throw InputError("has the pixel " + std::to_string(pixel.x) + "," + std::to_string(pixel.y) +
                           ", and the " + what + " is " + picture.size_text(),
                       "give the table of this " + what, file.string());
    if (!pixel.name.empty())
      samples.shapes.push_back(
          {samples.class_named(pixel.name), {}, {pixel.x + 0.5, pixel.y + 0.5}});
  }
  if (samples.shapes.empty())
    throw InputError("says of no pixel what it is", "fill in the column class", file.string());
  if (const std::size_t untold = table.pixels.size() - samples.shapes.size(); untold > 0)
    context.warn(file.string() + ": " + std::to_string(untold) + " of " +
                 std::to_string(table.pixels.size()) + " pixels have no class and are left out");
  return samples;
}

}  // namespace chalcedony
