#include "job/outline/outline.h"

#include <algorithm>
#include <cstddef>
#include <string>
#include <utility>

#include "core/error.h"
#include "core/learn/checked_guesses.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"
#include "io/picture/label_file.h"
#include "io/picture/label_picture.h"
#include "job/outline/outline_page.h"
#include "job/picture/inputs.h"
#include "job/picture/label_preview.h"
#include "job/picture/reduced_picture.h"
#include "job/picture/same_size.h"
#include "job/picture/thumbnail_url.h"
#include "job/repeat/picture_run.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// What a page begins with, and where its regions are from.
struct BegunWith {
  SampleSet samples;
  std::optional<path> file;
};

Json classes_json(const SampleSet& samples) {
  std::vector<std::uint64_t> regions(samples.classes.size());
  for (const SampleShape& shape : samples.shapes) ++regions[shape.sample_class];
  Json json = Json::array();
  for (std::size_t c = 0; c < regions.size(); ++c)
    json.push_back({{"name", samples.classes[c].name}, {"regions", regions[c]}});
  return json;
}

SampleSet classes_alone(const std::vector<LegendEntry>& classes) {
  SampleSet set;
  for (const LegendEntry& one : classes) set.classes.push_back({one.name, one.color});
  return set;
}

class OutlineJob {
 public:
  OutlineJob(const OutlineOptions& options, const Results& results)
      : options_(options), results_(results) {
    if (options.samples)
      files_.emplace(*options.samples, is_sample_file, "samples", NameCuts::kPoints);
    if (options.map)
      maps_.emplace(*options.map, is_picture_name, "classes", NameCuts::kPoints, is_class_map_file);
  }

  Json do_one(const path& input, const Context& context) const {
    CountedPicture picture = open_color(input, options_.shared, context);
    const RasterShape& shape = picture.shape();
    const std::optional<LabelPicture> map = map_of(input, shape, context);
    const BegunWith begun = begun_with(input, shape, map, context);
    const Thumbnail seen =
        reduced_picture(picture, options_.shared, context, options_.view, options_.view);
    if (results_.wants("page"))
      write_text_file(results_.path(input, "outline", "html"),
                      outline_page({picture.name(), shape.width, shape.height,
                                    thumbnail_url(seen, ThumbnailColors::kExact), url_of(map),
                                    begun.samples, input.stem().string() + ".samples.geojson"}));
    const auto guesses = static_cast<std::size_t>(std::count_if(
        begun.samples.shapes.begin(), begun.samples.shapes.end(), [&](const SampleShape& one) {
          return is_guess(begun.samples.classes[one.sample_class].name);
        }));
    Json json{{"file", input.string()},
              {"width", shape.width},
              {"height", shape.height},
              {"pixels_per_cell", seen.pixels_per_cell},
              {"regions", begun.samples.shapes.size()},
              {"guesses", guesses},
              {"classes", classes_json(begun.samples)}};
    if (begun.file) json["samples"] = begun.file->string();
    if (map) json["map"] = map->path.string();
    return json;
  }

  /// The sample files that go with pictures, or null.
  const PartnerFiles* files() const { return files_ ? &*files_ : nullptr; }

 private:
  std::optional<LabelPicture> map_of(const path& input, const RasterShape& shape,
                                     const Context& context) const {
    if (!maps_) return std::nullopt;
    LabelPicture map =
        read_label_picture(maps_->of(input, *context.ledger), options_.shared.max_pixels);
    require_same_size(map.path, {map.grid.width, map.grid.height}, "the picture", shape,
                      "give the class map of this picture");
    return map;
  }

  /// The map as it lies over the picture.
  std::string url_of(const std::optional<LabelPicture>& map) const {
    if (!map) return "";
    return thumbnail_url(label_thumbnail(*map, options_.view, options_.view),
                         ThumbnailColors::kExact);
  }

  BegunWith begun_with(const path& input, const RasterShape& shape,
                       const std::optional<LabelPicture>& map, const Context& context) const {
    BegunWith begun;
    begun.samples.classes = options_.classes;
    if (map) begun.samples.add(classes_alone(map->classes));
    if (!files_ || !files_->find(input)) return begun;
    begun.file = files_->of(input, *context.ledger);
    SampleSet read =
        read_samples(*begun.file, shape.width, shape.height, options_.shared.samples_of_other_size);
    // None may reach outside.
    errors_at(begun.file->string(), [&] { sample_runs(read, shape.width, shape.height); });
    begun.samples.add(read);
    return begun;
  }

  const OutlineOptions& options_;
  const Results& results_;
  std::optional<PartnerFiles> files_, maps_;
};

}  // namespace

const std::vector<ResultKind>& outline_results() {
  static const std::vector<ResultKind> kinds{
      {"page",
       "<stem>.outline.html: a page for a browser on which regions of the picture are drawn and "
       "named; it saves <stem>.samples.geojson"}};
  return kinds;
}

Json run_outline(const OutlineOptions& options, const Context& context) {
  PictureRun run("outline", options.shared, context, outline_results());
  const OutlineJob job(options, run.results());
  return run.do_each([&](const path& input, const Context& its) { return job.do_one(input, its); },
                     {}, job.files());
}

}  // namespace chalcedony
