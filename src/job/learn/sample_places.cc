#include "job/learn/sample_places.h"

#include <charconv>
#include <utility>
#include <vector>

#include "core/error.h"
#include "io/document/sample_file.h"

namespace chalcedony {
namespace {

/// The numbers of a list; empty when it is none.
std::vector<double> numbers_of(const std::string& text) {
  std::vector<double> numbers;
  const char *at = text.data(), *const end = text.data() + text.size();
  while (true) {
    double value = 0;
    const auto [next, error] = std::from_chars(at, end, value);
    if (error != std::errc()) return {};
    numbers.push_back(value);
    if (next == end) return numbers;
    if (*next != ',') return {};
    at = next + 1;
  }
}

void add_file(const std::string& path, const std::string& name, std::size_t sample_class,
              const RasterShape& picture, const SharedOptions& options, SampleSet& samples) {
  SampleSet file = read_samples(path, picture.width, picture.height, options.samples_of_other_size);
  if (!name.empty())
    file = errors_at(path, [&] { return samples_of_classes(std::move(file), {name}); });
  for (SampleShape& shape : file.shapes) {
    shape.sample_class = sample_class;
    samples.shapes.push_back(std::move(shape));
  }
}

}  // namespace

void add_places(const std::string& text, std::size_t sample_class, const RasterShape& picture,
                const SharedOptions& options, SampleSet& samples) {
  if (const auto named = sample_file_part(text))
    return add_file(named->file, named->part, sample_class, picture, options, samples);
  const std::vector<double> n = numbers_of(text);
  SampleShape shape;
  shape.sample_class = sample_class;
  if (n.size() == 2 || n.size() == 3) {
    shape.point = {n[0], n[1]};
    shape.radius = n.size() == 3 ? n[2] : 0;
  } else if (n.size() == 4 && n[2] > 0 && n[3] > 0) {
    shape.rings = {rectangle_ring(n[0], n[1], n[2], n[3])};
  } else {
    throw UsageError(
        "'" + text + "' is no place on the picture",
        "write x,y or x,y,radius or x,y,w,h, or name a sample file as FILE.geojson:CLASS");
  }
  samples.shapes.push_back(shape);
}

}  // namespace chalcedony
