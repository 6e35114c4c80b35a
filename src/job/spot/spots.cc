#include "job/spot/spots.h"

#include <algorithm>
#include <map>
#include <utility>

#include "core/channel/quoted_channel.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "figure/spots_figure.h"
#include "io/document/known_colors_file.h"
#include "io/document/sample_file.h"
#include "io/file/whole_file.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/picture/short_names.h"
#include "job/repeat/picture_run.h"
#include "job/spot/spots_report.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr std::size_t kMostSpots = 10000;  // each has sums of its own in every band on its way

/// A class for each shape; those of a class that has several are numbered.
SampleSet shapes_apart(const SampleSet& samples) {
  std::vector<std::size_t> shapes(samples.classes.size()), seen(samples.classes.size());
  for (const SampleShape& shape : samples.shapes) ++shapes[shape.sample_class];
  SampleSet apart;
  for (SampleShape shape : samples.shapes) {
    SampleClass own = samples.classes[shape.sample_class];
    const std::size_t number = ++seen[shape.sample_class];
    if (shapes[shape.sample_class] > 1) own.name += " " + std::to_string(number);
    shape.sample_class = apart.classes.size();
    apart.classes.push_back(std::move(own));
    apart.shapes.push_back(std::move(shape));
  }
  return apart;
}

/// Reads the spots of one picture after the other.
class SpotReader {
 public:
  SpotReader(const SpotsOptions& options, Results& results, FigureFormat format)
      : options_(options), results_(results), format_(format) {
    if (options_.to || options_.known) {
      to_ = options_.to ? *options_.to : *options_.known;
    } else if (options_.shared.inputs.size() > 1) {
      to_ = options_.shared.inputs.front();
    }
  }

  /// Reads what the spots are held against, if there is something.
  void read_reference(const Context& context) {
    if (to_.empty()) return;
    if (options_.known) {
      for (const KnownColor& known : read_known_colors(to_))
        reference_.push_back({known.name, known.color.in(spaces::kLab)});
    } else {
      const bool is_input = place_of(to_) < options_.shared.inputs.size();
      Read other = read(to_, is_input && format_ != FigureFormat::kNone, context);
      for (const SpotColor& spot : other.colors) reference_.push_back({spot.name, spot.lab});
      if (is_input) read_before_ = std::move(other);
    }
    const std::vector<std::string> names = reference_names();
    for (const std::string& name : options_.limits.steady)
      if (std::find(names.begin(), names.end(), name) == names.end())
        throw InputError("has no spot '" + name + "' to be steady", suggest_name(name, names),
                         to_.string());
  }

  const path& to() const { return to_; }

  Json run(const path& input, const Context& context) {
    Read one = read_before_ && input == to_ ? *read_before_
                                            : read(input, format_ != FigureFormat::kNone, context);
    const HeldSpots held =
        to_.empty() ? not_held(std::move(one.colors)) : errors_at(input.string(), [&] {
          return held_against(reference_, std::move(one.colors), options_.limits);
        });
    if (results_.wants("spots"))
      write_spots(results_.path(input, "spots", "csv"), held,
                  {one.channels, !to_.empty(), !options_.limits.steady.empty(),
                   options_.limits.tolerance.has_value()});
    if (options_.outlines && results_.wants("outlines")) write_outlines(input, held, one);
    if (one.thumbnail) draw(input, held, one, context);
    Json json{{"file", input.string()}};
    if (!to_.empty()) json["to"] = to_.string();
    report_held(held, one.channels, json);
    return json;
  }

 private:
  struct Read {
    SampleSet places;
    std::vector<Channel> channels;  // in the units asked for
    std::vector<SpotColor> colors;
    RasterShape shape;
    std::optional<Thumbnail> thumbnail;
  };

  std::vector<std::string> reference_names() const {
    std::vector<std::string> names;
    for (const NamedLab& color : reference_) names.push_back(color.name);
    return names;
  }

  /// Of known colors, where there is one for each cell, in their order.
  std::vector<std::string> layout_names() const {
    if (!options_.places.layout) return {};
    std::vector<std::string> names = cell_names(*options_.places.layout);
    return options_.known && reference_.size() == names.size() ? reference_names() : names;
  }

  Read read(const path& input, bool wants_preview, const Context& context) const {
    CountedPicture picture = open_counted(input, options_.shared, context);
    refuse_labels(picture);
    errors_at(input.string(), [&] { require_color(picture.file.info); });
    NamedSamples spots = patches_of_input(options_.places, layout_names(), place_of(input), picture,
                                          options_.shared, context);
    // An option is of all pictures, so its name does not say where.
    if (spots.from.starts_with("--")) spots.from = input.string() + ", " + spots.from;
    if (options_.apart) spots.samples = shapes_apart(spots.samples);
    if (spots.samples.classes.size() > kMostSpots)
      throw InputError("has " + std::to_string(spots.samples.classes.size()) +
                           " spots, more than are read at once",
                       "give up to 10000, or have the regions of a map measured by 'measure'",
                       spots.from);
    Preview preview(picture.file.info, wants_preview);
    Read one;
    one.shape = picture.shape();
    one.channels = quoted_channels(options_.channels, options_.shared.units, codes_of(picture));
    one.colors = errors_at(input.string(), [&] {
      return read_spots(picture, spots, one.channels, preview, options_.shared, context);
    });
    if (preview.wanted()) one.thumbnail = preview.thumbnail();
    one.places = std::move(spots.samples);
    return one;
  }

  /// The spots in their colors.
  void write_outlines(const path& input, const HeldSpots& held, const Read& one) const {
    SampleSet spots = one.places;
    for (std::size_t s = 0; s < held.spots.size(); ++s)
      spots.classes[s].color = held.spots[s].color.css;
    write_text_file(results_.path(input, "spots", "geojson"),
                    samples_text(spots, one.shape.width, one.shape.height));
  }

  /// Among the inputs; behind them where it is none.
  std::size_t place_of(const path& input) const {
    const auto& inputs = options_.shared.inputs;
    return static_cast<std::size_t>(std::find(inputs.begin(), inputs.end(), input) -
                                    inputs.begin());
  }

  void draw(const path& input, const HeldSpots& held, const Read& one, const Context& context) {
    const bool is_held = !to_.empty() && input != to_;
    std::vector<ShownSpot> shown;
    for (const HeldSpot& spot : held.spots) {
      ShownSpot& out = shown.emplace_back(
          ShownSpot{spot.color.name, spot.color.css, spot.color.lab, spot.color.spread, {}, {}});
      if (!is_held || !spot.change) continue;
      out.other = css_hex({&spaces::kLab, *spot.other});
      out.delta_e = spot.change->delta_e;
    }
    std::string subtitle =
        "Lab of the mean light (D50), and how far pixels spread about their mean";
    if (is_held)
      subtitle += "; left halves are of " + to_.filename().string() + ", delta E 2000 is to them";
    Plot plot(format_);
    add_spots_figure(plot, results_.path(input, "spots.figure", extension_of(format_)),
                     input.filename().string(), subtitle, one.places, shown, *one.thumbnail);
    draw_figures(plot, context);
  }

  const SpotsOptions& options_;
  Results& results_;
  FigureFormat format_;
  path to_;  // empty: the spots are held against none
  std::vector<NamedLab> reference_;
  std::optional<Read> read_before_;  // of that picture, where it is an input
};

/// A spot of each picture by its name.
SpotSeries series_of(const Json& pictures) {
  SpotSeries series;
  std::vector<path> files;
  std::map<std::string, std::size_t> rows;
  for (const Json& picture : pictures) {
    const std::size_t column = files.size();
    files.emplace_back(picture["file"].get<std::string>());
    for (const Json& spot : picture["spots"]) {
      const auto name = spot["name"].get<std::string>();
      const auto [row, is_new] = rows.emplace(name, series.spots.size());
      if (is_new) {
        series.spots.push_back(name);
        series.seen.emplace_back(pictures.size());
      }
      SeenSpot& seen = series.seen[row->second][column];
      seen.color = spot["color"].get<std::string>();
      if (spot.contains("change") && picture["file"] != picture["to"])
        seen.delta_e = spot["change"]["delta_e"].get<double>();
    }
    const bool has_steady = picture.contains("steady") && picture["file"] != picture["to"];
    series.steady.push_back(has_steady ? std::optional(picture["steady"].get<double>())
                                       : std::nullopt);
  }
  series.pictures = short_names(files);
  series.to = path(pictures.front()["to"].get<std::string>()).filename().string();
  return series;
}

}  // namespace

const std::vector<ResultKind>& spots_results() {
  static const std::vector<ResultKind> kinds{
      {"spots",
       "<stem>.spots.csv: the color of every spot, its spread and its change; of several pictures "
       "also spots.csv"},
      {"outlines", "<stem>.spots.geojson: the spots as sample regions, in their colors",
       "outlines"},
      {"figure",
       "<stem>.spots.figure.png: the spots on the picture, and their colors; of several pictures "
       "also spots.figure.png: their colors side by side"}};
  return kinds;
}

Json run_spots(const SpotsOptions& options, const Context& context) {
  PictureRun run("spots", options.shared, context, spots_results());
  SpotReader reader(options, run.results(), run.figures().of_each);
  reader.read_reference(context);
  if (!reader.to().empty()) run.summary()["to"] = reader.to().string();
  if (options.limits.tolerance) run.summary()["tolerance"] = *options.limits.tolerance;
  const auto do_one = [&](const path& input, const Context& its_context) {
    return reader.run(input, its_context);
  };
  return run.do_each(do_one, report_spots);
}

void report_spots(Json& summary, Plot& plot, Results& results) {
  const Json& pictures = summary["inputs"];
  if (pictures.size() < 2 || plot.format() == FigureFormat::kNone) return;
  add_spot_series_figure(plot, results.path("spots.figure." + extension_of(plot.format())),
                         series_of(pictures));
}

}  // namespace chalcedony
