#include "job/assess/assessed_labels.h"

#include <algorithm>

#include "core/error.h"
#include "core/learn/sample_labels.h"
#include "core/letter_case.h"
#include "io/document/model_file.h"
#include "io/document/sample_file.h"
#include "io/document/truth_table.h"
#include "io/picture/label_file.h"
#include "job/learn/point_samples.h"
#include "job/picture/inputs.h"
#include "job/picture/same_size.h"
#include "job/run/input_list.h"

namespace chalcedony {

std::string assessed_picture(const std::filesystem::path& map) {
  const std::string stem = map.stem().string();
  const std::string_view thing = ".classes";
  return stem.ends_with(thing) ? stem.substr(0, stem.size() - thing.size()) : stem;
}

AssessedLabels::AssessedLabels(const AssessedFiles& files, const AssessOptions& options,
                               const Context& context) {
  add(files.map, options.shared.max_pixels);
  width_ = sources_.front()->shape().width;
  const std::uint32_t height = sources_.front()->shape().height;
  if (is_sample_file(files.reference)) {
    add_samples(files.reference, options, context);
  } else if (is_table_name(files.reference)) {
    add_truth(files.reference, context);
  } else {
    add(files.reference, options.shared.max_pixels);
  }
  name_by_color(legends_[kOfReference], legends_[kOfMap]);
  name_by_color(legends_[kOfMap], legends_[kOfReference]);
  for (const std::filesystem::path& other : files.versus) {
    add(other, options.shared.max_pixels);
    name_by_color(legends_.back(), legends_[kOfReference]);
  }
  rows_ = SideBySide::of_labels(std::move(sources_));
  counting_ = counting_for(options.shared, files.map, width_, height, context);
  if (options.model) leave_out_training(files.map, *options.model);
  everywhere_ = counting_.everywhere() && !training_;
}

void AssessedLabels::add(const std::filesystem::path& path, std::uint64_t max_pixels) {
  LabelFile file = open_labels(path, max_pixels);
  if (!sources_.empty())
    require_same_size(path, file.rows->shape(), "the map", sources_.front()->shape(),
                      "give labels of the same picture");
  sources_.push_back(std::move(file.rows));
  // Names that are colors are found again by name_by_color.
  legends_.push_back({std::move(file.classes), file.legend_from != LegendFrom::kNumbers});
}

void AssessedLabels::add_samples(const std::filesystem::path& path, const AssessOptions& options,
                                 const Context& context) {
  const RasterShape& shape = sources_.front()->shape();
  add_regions(read_samples(path, shape.width, shape.height, options.shared.samples_of_other_size),
              path, context);
}

/// Pixels of which nobody has said what they are stay without a label.
void AssessedLabels::add_truth(const std::filesystem::path& path, const Context& context) {
  const RasterShape shape = sources_.front()->shape();
  const TruthTable table = read_truth_table(path);
  const SampleSet samples = samples_of_points(table, path, shape, "map", context);
  for (const TruthPixel& pixel : table.pixels)
    if (pixel.stratum)
      strata_.emplace(std::uint64_t{pixel.y} * shape.width + pixel.x, *pixel.stratum);
  drawn_ = table.drawn;
  add_regions(samples, path, context);
}

void AssessedLabels::add_regions(const SampleSet& samples, const std::filesystem::path& path,
                                 const Context& context) {
  const RasterShape shape = sources_.front()->shape();
  std::vector<SampleRun> runs =
      errors_at(path.string(), [&] { return sample_runs(samples, shape.width, shape.height); });
  if (const std::uint64_t shared = shared_pixels(runs); shared > 0)
    context.warn(path.string() + ": " + std::to_string(shared) +
                 " pixels belong to samples of two classes and are not assessed");
  Legend legend;
  unsigned code = 0;
  for (const SampleClass& c : samples.classes) legend.entries.push_back({++code, c.name, c.color});
  legends_.push_back(std::move(legend));
  sources_.push_back(std::make_unique<SampleLabels>(std::move(runs), shape.width, shape.height));
}

/// Classes of a picture of flat colors are called like the other picture's classes of that color.
void AssessedLabels::name_by_color(Legend& colored, const Legend& named) {
  for (LegendEntry& mine : colored.entries) {
    if (mine.name != mine.color) continue;
    for (const LegendEntry& other : named.entries)
      if (same_letters(other.color, mine.color)) mine.name = other.name;
  }
}

void AssessedLabels::leave_out_training(const std::filesystem::path& map,
                                        const std::filesystem::path& model) {
  const std::string mapped = assessed_picture(map);
  const std::uint32_t height = rows_->shape().height;
  training_.emplace(width_, height);
  trained_on_ = "";
  for (const TrainingPicture& picture : read_model(model).trained_on) {
    const std::string trained = std::filesystem::path(picture.name).stem().string();
    if (mapped != trained && !mapped.starts_with(trained + ".")) continue;
    if (picture.width != width_ || picture.height != height) continue;
    for (const SampleRun& run : sample_runs(picture.samples, width_, height))
      for (std::uint64_t p = run.begin; p < run.end; ++p) training_->set(p);
    trained_on_ = picture.name;
  }
}

LabelledClasses AssessedLabels::classes(std::size_t p, const std::vector<unsigned>& found) const {
  LabelledClasses out;
  out.named = legends_[p].named;
  for (const LegendEntry& entry : legends_[p].entries)
    out.classes.push_back({entry.index, entry.name});
  for (const unsigned code : found) {
    const bool listed = std::any_of(out.classes.begin(), out.classes.end(),
                                    [&](const LabelledClass& c) { return c.code == code; });
    if (!listed) out.classes.push_back({code, "class " + std::to_string(code)});
  }
  return out;
}

std::optional<std::string> AssessedLabels::color_of(const std::string& name) const {
  for (const Legend& legend : legends_)
    for (const LegendEntry& entry : legend.entries)
      if (entry.name == name && !entry.color.empty()) return entry.color;
  return std::nullopt;
}

}  // namespace chalcedony
