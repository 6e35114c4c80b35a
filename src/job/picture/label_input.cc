#include "job/picture/label_input.h"

#include <cmath>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "core/error.h"
#include "core/learn/checked_guesses.h"
#include "core/learn/sample_labels.h"
#include "core/palette/figure_colors.h"
#include "io/document/sample_file.h"
#include "io/picture/picture_codec.h"

namespace chalcedony {
namespace {

/// The size of the picture that regions were drawn on.
RasterShape shape_of(const DrawnSamples& drawn, const SharedOptions& options) {
  constexpr double kMostSide = 1e6;
  const auto is_side = [](double side) {
    return side >= 1 && side <= kMostSide && std::floor(side) == side;
  };
  if (!drawn.size || !is_side(drawn.size->width) || !is_side(drawn.size->height))
    throw InputError("does not say the size of the picture that its regions were drawn on",
                     "draw them on a page of outline, or write its width and height into the file");
  const RasterShape shape{static_cast<std::uint32_t>(drawn.size->width),
                          static_cast<std::uint32_t>(drawn.size->height), 1, SampleType::kU16};
  ReadOptions read;
  read.max_pixels = options.max_pixels;
  check_size(shape.width, shape.height, read);
  return shape;
}

void warn_of_guesses(std::size_t guesses, const std::filesystem::path& file,
                     const Context& context) {
  if (guesses == 0) return;
  context.warn(file.string() + ": " + std::to_string(guesses) +
               (guesses == 1 ? " region is a guess" : " regions are guesses") +
               ", and left out; confirm them on a page of outline");
}

LabelFile drawn_labels(const std::filesystem::path& path, const SharedOptions& options,
                       const Context& context) {
  const DrawnSamples drawn = read_drawn(path);
  return errors_at(path.string(), [&] {
    const RasterShape shape = shape_of(drawn, options);
    const SampleSet regions = checked_samples(drawn.samples, {});
    if (regions.shapes.empty())
      throw InputError("all of its regions are guesses", "confirm them on a page of outline");
    warn_of_guesses(drawn.samples.shapes.size() - regions.shapes.size(), path, context);
    std::vector<SampleRun> runs = sample_runs(regions, shape.width, shape.height);
    if (const std::uint64_t shared = shared_pixels(runs); shared > 0)
      context.warn(path.string() + ": " + std::to_string(shared) +
                   " pixels lie in regions of two classes, and have none");
    LabelFile file;
    file.path = path;
    for (const SampleClass& one : regions.classes) {
      const std::size_t number = file.classes.size() + 1;
      file.classes.push_back({static_cast<unsigned>(number), one.name,
                              one.color.empty() ? css_hex(class_color(number - 1)) : one.color});
    }
    file.rows = std::make_unique<SampleLabels>(std::move(runs), shape.width, shape.height);
    return file;
  });
}

}  // namespace

SampleSet without_guesses(const SampleSet& regions, const std::filesystem::path& file,
                          const Context& context) {
  SampleSet sure = checked_samples(regions, {});
  warn_of_guesses(regions.shapes.size() - sure.shapes.size(), file, context);
  return sure;
}

LabelFile open_label_input(const std::filesystem::path& path, const SharedOptions& options,
                           const Context& context) {
  if (is_sample_file(path)) return drawn_labels(path, options, context);
  return open_labels(path, options.max_pixels);
}

LabelPicture read_label_input(const std::filesystem::path& path, const SharedOptions& options,
                              const Context& context) {
  LabelFile file = open_label_input(path, options, context);
  return read_label_picture(file);
}

}  // namespace chalcedony
