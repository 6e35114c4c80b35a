#include "job/learn/sample_source.h"

#include "core/error.h"
#include "io/document/sample_file.h"
#include "io/document/truth_table.h"
#include "io/picture/label_picture.h"
#include "job/learn/painted_samples.h"
#include "job/learn/point_samples.h"
#include "job/learn/region_samples.h"
#include "job/learn/sample_places.h"
#include "job/picture/same_size.h"
#include "job/run/input_list.h"

namespace chalcedony {
namespace {

constexpr const char* kCheckThem =
    "say behind the file which are right, as in --samples FILE:1,3,8=lead";

/// The samples of a file without guesses that were not checked.
SampleSet checked_samples_of(const std::filesystem::path& path, const SampleSet& read,
                             const SampleSources& sources, const Context& context) {
  const auto named = sources.checked.find(path);
  const bool said = named != sources.checked.end();
  SampleSet right = errors_at(path.string(), [&] {
    return checked_samples(read, said ? named->second : CheckedGuesses{});
  });
  if (right.shapes.empty())
    throw InputError("all of its samples are guesses that are not checked", kCheckThem,
                     path.string());
  const std::size_t left_out = read.shapes.size() - right.shapes.size();
  if (left_out > 0 && !said)
    context.warn(path.string() + ": " + std::to_string(left_out) +
                 (left_out == 1 ? " sample is a guess that is" : " samples are guesses that are") +
                 " not checked, and left out; " + kCheckThem);
  return right;
}

/// What a sample file says: regions, points, or labels for every pixel. Classes of a picture of
/// flat colors are called as `colors` says.
SampleSet samples_of_file(const std::filesystem::path& path, const RasterShape& shape,
                          const SampleSources& sources, const SharedOptions& options,
                          const Context& context) {
  if (is_sample_file(path))
    return checked_samples_of(
        path, read_samples(path, shape.width, shape.height, options.samples_of_other_size), sources,
        context);
  if (is_table_name(path))
    return samples_of_points(read_truth_table(path), path, shape, "picture", context);
  LabelPicture labels = read_label_picture(path, options.max_pixels);
  require_same_size(path, {labels.grid.width, labels.grid.height}, "the picture", shape,
                    "give labels of the same picture");
  for (LegendEntry& entry : labels.classes)
    for (const auto& [name, color] : sources.colors)
      if (entry.name == entry.color && entry.color == color) entry.name = name;
  return samples_of_labels(labels);
}

/// The samples of an earlier training, on a picture that may have another size by now.
SampleSet on_picture(const TrainingPicture& earlier, const RasterShape& shape,
                     const SharedOptions& options) {
  const DrawnSize from{static_cast<double>(earlier.width), static_cast<double>(earlier.height)};
  return fitted_samples(earlier.samples, from, shape.width, shape.height,
                        options.samples_of_other_size);
}

void warn_of_repeats(const NamedSamples& named, const Context& context) {
  const std::vector<std::size_t> repeats = repeated_shapes(named.samples);
  for (std::size_t c = 0; c < repeats.size(); ++c)
    if (repeats[c] > 0)
      context.warn(named.from + ": class '" + named.samples.classes[c].name + "' has " +
                   std::to_string(repeats[c]) +
                   (repeats[c] == 1 ? " region twice" : " regions twice") +
                   "; their pixels count once");
}

}  // namespace

NamedSamples samples_of_input(const SampleSources& sources, std::size_t i, CountedPicture& picture,
                              const SharedOptions& options, const Context& context) {
  NamedSamples out;
  const auto add_from = [&](const std::string& from) {
    out.from += (out.from.empty() ? "" : ", ") + from;
  };
  const RasterShape& shape = picture.shape();
  for (const TrainingPicture& earlier : sources.earlier)
    if (earlier.name == picture.name()) {
      out.samples.add(on_picture(earlier, shape, options));
      add_from(sources.model.string());
    }
  if (!sources.files.empty())
    for (const std::filesystem::path& file : sources.files[i]) {
      out.samples.add(samples_of_file(file, shape, sources, options, context));
      add_from(file.string());
    }
  if (!sources.painted.empty()) {
    out.samples.add(painted_samples(sources.painted[i], picture, sources.colors, options));
    add_from(sources.painted[i].string());
  }
  for (const auto& [name, place] : sources.places)
    add_places(place, out.samples.class_named(name), shape, options, out.samples);
  if (out.from.empty()) out.from = "--sample";
  if (out.samples.shapes.empty())
    throw InputError("has no samples", "give a --samples that is called after it",
                     picture.file.path.string());
  for (SampleClass& c : out.samples.classes)
    for (const auto& [name, color] : sources.colors)
      if (c.name == name) c.color = color;
  warn_of_repeats(out, context);
  return out;
}

std::vector<SampleRun> runs_of(const NamedSamples& named, const RasterShape& shape,
                               const Context& context) {
  std::vector<SampleRun> runs =
      errors_at(named.from, [&] { return sample_runs(named.samples, shape.width, shape.height); });
  for (const SharedPixels& shared : pixels_shared_by_pairs(runs))
    context.warn(named.from + ": " + std::to_string(shared.pixels) +
                 (shared.pixels == 1 ? " pixel belongs" : " pixels belong") +
                 " to samples of both '" + named.samples.classes[shared.first].name + "' and '" +
                 named.samples.classes[shared.second].name + "' and " +
                 (shared.pixels == 1 ? "trains" : "train") + " both");
  return runs;
}

}  // namespace chalcedony
