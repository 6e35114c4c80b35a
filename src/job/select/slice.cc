#include "job/select/slice.h"

#include <cmath>
#include <utility>

#include "core/error.h"
#include "core/palette/example_color.h"
#include "core/palette/figure_colors.h"
#include "io/text/number_text.h"
#include "job/histogram/channel_histogram.h"
#include "job/map/class_map.h"
#include "job/map/picture_shares.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/picture_run.h"
#include "job/select/limit_warnings.h"

namespace chalcedony {
namespace {

constexpr std::size_t kQuantileBins = 4096;

constexpr double kFullCircle = 360;

std::string short_text(double value) { return number_text(std::round(value * 1e4) / 1e4); }

/// Slices that hold as many counted pixels of this picture each.
std::vector<Slice> quantile_slices(CountedPicture& picture, const SliceOptions& options,
                                   const Context& context) {
  const auto [binning, counts] =
      channel_counts(picture, options.channel, kQuantileBins, options.shared, context);
  std::vector<double> edges;
  for (std::size_t b = 0; b <= binning.bins(); ++b) edges.push_back(binning.edge(b));
  const auto ends = quantile_ends(counts, edges, options.quantiles);
  if (ends.size() != options.quantiles + 1)
    throw InputError("has too few different values of " + options.channel.name() + " for " +
                         std::to_string(options.quantiles) + " parts of as many pixels",
                     "ask for fewer --quantiles", picture.file.path.string());
  return slices_between(options.channel, ends);
}

void warn_of_faults(const SliceOptions& options, const Context& context) {
  for (const SelectedClass& one : options.selected) warn_of_limits(one.where, context);
  if (!options.selected.empty()) return;
  const SliceFaults faults = faults_of(options.channel, options.slices);
  for (const auto& [a, b] : faults.overlaps)
    context.warn("'" + options.slices[a].name + "' and '" + options.slices[b].name +
                 "' overlap; what is in both is '" + options.slices[a].name + "'");
  for (const auto& [low, high] : faults.gaps)
    context.warn("values from " + short_text(low) + " to " + short_text(high) + " are in no slice");
  std::vector<Limits> all;
  for (const Slice& slice : options.slices) all.push_back({slice.low, slice.high});
  // One is enough: the others are counted as it is.
  for (std::size_t i = 0; i < all.size(); ++i)
    if (warn_of_limits(options.slices[i].name, options.channel, all[i], all, context)) break;
}

Json slices_json(const std::vector<Slice>& slices) {
  Json list = Json::array();
  for (const Slice& slice : slices)
    list.push_back(
        {{"name", slice.name}, {"color", slice.color}, {"from", slice.low}, {"to", slice.high}});
  return list;
}

Json selections_json(const std::vector<SelectedClass>& selected) {
  Json list = Json::array();
  for (const SelectedClass& one : selected) {
    Json channels = Json::array();
    for (const Channel& channel : one.where.channels) channels.push_back(channel.name());
    list.push_back({{"name", one.name},
                    {"color", one.color},
                    {"where", one.where.text},
                    {"channels", std::move(channels)}});
  }
  return list;
}

/// How maps of slices are called.
const ClassMapOptions kSliceMap{.thing = "slices", .table = "slices"};

Json write_selected(CountedPicture picture, const SliceOptions& options, const Context& context,
                    Results& results, FigureFormat figures) {
  SelectionLabeling labeling(picture.file.info, options.selected, options.shared.hue_floor);
  return write_class_map(std::move(picture), map_classes(options.selected), labeling, kSliceMap,
                         options.shared, context, results, figures);
}

Json write_slices(CountedPicture picture, const SliceOptions& options, const Context& context,
                  Results& results, FigureFormat figures) {
  std::vector<Slice> slices = options.slices;
  if (options.quantiles > 0) {
    keep_rows(picture);
    slices = quantile_slices(picture, options, context);
  }
  Json json = write_class_map(std::move(picture), slice_model(options.channel, slices),
                              *make_slicer(options.channel, slices), kSliceMap, options.shared,
                              context, results, figures);
  json["slices"] = slices_json(slices);
  return json;
}

}  // namespace

std::vector<double> round_the_circle(const Channel& channel, std::vector<double> cuts) {
  const double again = cuts.front() + kFullCircle;
  if (channel.is_hue() && cuts.back() < again) cuts.push_back(again);
  return cuts;
}

std::vector<Slice> slices_between(const Channel& channel, const std::vector<double>& ends) {
  std::vector<Slice> slices;
  const auto on_scale = [&](double end) {
    return channel.is_hue() && end > kFullCircle ? end - kFullCircle : end;
  };
  const std::vector<Color> ramp = heat_ramp(ends.size() > 2 ? ends.size() - 1 : 2);
  for (std::size_t s = 0; s + 1 < ends.size(); ++s) {
    const double from = ends[s], to = on_scale(ends[s + 1]);
    slices.push_back({channel.name() + " " + short_text(from) + ".." + short_text(to),
                      slice_color(channel, from, to, ramp[s]), from, to});
  }
  return slices;
}

std::string slice_color(const Channel& channel, double low, double high, const Color& otherwise) {
  if (!channel.is_hue()) return css_hex(otherwise);
  const double middle = (low + high + (high > low ? 0 : kFullCircle)) / 2;
  return css_hex(*example_color(channel, std::fmod(middle, kFullCircle)));
}

const std::vector<ResultKind>& slice_results() {
  static const std::vector<ResultKind> kinds{
      {"slices", "<stem>.slices.png: the class map, with names and colors inside"},
      {"areas",
       "<stem>.slices.csv: pixels and share of every slice; of several pictures also slices.csv"},
      {"figure",
       "<stem>.slices.figure.png: picture, class map and legend; of several pictures also "
       "slices.figure.png: the shares of all"}};
  return kinds;
}

Json run_slice(const SliceOptions& options, const Context& context) {
  PictureRun run("slice", options.shared, context, slice_results());
  warn_of_faults(options, context);
  const bool by_selections = !options.selected.empty();
  if (by_selections)
    run.summary()["selections"] = selections_json(options.selected);
  else
    run.summary()["channel"] = options.channel.name();
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return (by_selections ? write_selected : write_slices)(
        open_counted(input, options.shared, its_context), options, its_context, run.results(),
        run.figures().of_each);
  };
  return run.do_each(do_one, report_sliced);
}

void report_sliced(Json& summary, Plot& plot, Results& results) {
  report_class_shares(summary, summary["inputs"], {"slices", "slices.figure"}, plot, results);
}

}  // namespace chalcedony
