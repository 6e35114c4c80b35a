#include "job/histogram/class_source.h"

#include <set>
#include <utility>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/learn/sample_labels.h"
#include "core/palette/figure_colors.h"
#include "core/pixel/seen_labels.h"
#include "io/document/sample_file.h"
#include "io/picture/label_picture.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostCounted = 255;  // classes are numbered in bytes

void add_class(ClassSource& source, Label label, CountedClass added,
               const std::filesystem::path& path) {
  if (source.classes.size() == kMostCounted)
    throw InputError("has more than 255 classes", "give a map with fewer", path.string());
  source.classes.push_back(std::move(added));
  source.class_of[label] = static_cast<std::uint8_t>(source.classes.size());
}

ClassSource of_samples(const std::filesystem::path& path, const RasterShape& picture,
                       const SharedOptions& options) {
  const SampleSet samples =
      read_samples(path, picture.width, picture.height, options.samples_of_other_size);
  std::vector<SampleRun> runs =
      errors_at(path.string(), [&] { return sample_runs(samples, picture.width, picture.height); });
  ClassSource source{{}, nullptr, std::vector<std::uint8_t>(kLabels)};
  for (std::size_t c = 0; c < samples.classes.size(); ++c) {
    const auto& [name, color] = samples.classes[c];
    add_class(source, static_cast<Label>(c + 1),
              {name, color.empty() ? css_hex(class_color(c)) : color}, path);
  }
  source.rows = std::make_unique<SampleLabels>(std::move(runs), picture.width, picture.height);
  return source;
}

/// The numbers of a picture that lists no classes.
std::vector<Label> labels_found(LabelFile& file) {
  const RasterShape shape = file.rows->shape();
  SeenLabels seen;
  LabelRows rows(file);
  for (std::uint32_t y = 0; y < shape.height; ++y) seen.add(rows.next(), shape.width);
  file.rows->rewind();
  return seen.labels();
}

ClassSource of_labels(const std::filesystem::path& path, std::uint64_t max_pixels) {
  LabelFile file = open_labels(path, max_pixels);
  ClassSource source{{}, nullptr, std::vector<std::uint8_t>(kLabels)};
  const FoundClasses found = classes_found(
      file, file.legend_from == LegendFrom::kNumbers ? labels_found(file) : std::vector<Label>{});
  for (const LegendEntry& entry : found.classes)
    add_class(source, static_cast<Label>(entry.index),
              {entry.name, color_on_paper(found.is_mask, entry.color)}, path);
  if (found.is_mask) add_class(source, 0, {"the rest", "#a0a4a8"}, path);
  source.rows = std::move(file.rows);
  return source;
}

}  // namespace

std::vector<std::size_t> add_classes(const std::vector<CountedClass>& classes, ClassList& list) {
  std::vector<std::size_t> places;
  for (const CountedClass& one : classes) places.push_back(list.add(one.name, one.color));
  return places;
}

std::vector<CountedClass> classes_of(const ClassList& list) {
  std::vector<CountedClass> classes;
  for (std::size_t c = 0; c < list.size(); ++c)
    classes.push_back({list.names()[c], list.colors()[c]});
  return classes;
}

ClassSource open_classes(const std::filesystem::path& path, const RasterShape& picture,
                         const SharedOptions& options) {
  if (is_sample_file(path)) return of_samples(path, picture, options);
  ClassSource source = of_labels(path, options.max_pixels);
  require_same_size(path, source.rows->shape(), "the picture", picture,
                    "give classes of the same picture");
  return source;
}

}  // namespace chalcedony
