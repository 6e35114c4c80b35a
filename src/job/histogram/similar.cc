#include "job/histogram/similar.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <mutex>

#include "figure/sheet_figure.h"
#include "io/text/csv.h"
#include "job/histogram/color_descriptor.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostRanksShown = 40;

struct Ranked {
  std::filesystem::path path;
  double distance = 0;
  Thumbnail thumbnail;
};

/// The inputs of a summary with the pictures that stand for them, the most alike first.
std::vector<Ranked> in_order(const Json& inputs,
                             std::map<std::filesystem::path, Thumbnail>& shown) {
  std::vector<Ranked> ranked;
  for (const Json& one : inputs) {
    const std::filesystem::path input = one["file"].get<std::string>();
    ranked.push_back({input, one["distance"].get<double>(), std::move(shown[input])});
  }
  std::stable_sort(ranked.begin(), ranked.end(),
                   [](const Ranked& a, const Ranked& b) { return a.distance < b.distance; });
  return ranked;
}

Json ranking_json(const std::vector<Ranked>& ranked) {
  Json json = Json::array();
  for (std::size_t r = 0; r < ranked.size(); ++r)
    json.push_back(
        {{"rank", r + 1}, {"file", ranked[r].path.string()}, {"distance", ranked[r].distance}});
  return json;
}

void write_ranking(const std::filesystem::path& path, const std::vector<Ranked>& ranked) {
  CsvTable table({"rank", "picture", "distance"});
  for (std::size_t r = 0; r < ranked.size(); ++r)
    table.add({std::uint64_t{r + 1}, ranked[r].path.string(), ranked[r].distance});
  table.write(path);
}

void add_ranking(Plot& plot, const std::filesystem::path& path, const SimilarOptions& options,
                 const Thumbnail& query, const std::vector<Ranked>& ranked) {
  const std::string name = options.query.filename().string();
  std::vector<SheetCell> cells{{"query: " + name, query}};
  for (std::size_t r = 0; r < std::min(kMostRanksShown, ranked.size()); ++r)
    cells.push_back({.title = fmt::format("{}. ", r + 1),
                     .picture = ranked[r].thumbnail,
                     .name = ranked[r].path.filename().string(),
                     .behind = fmt::format("  {:.3f}", ranked[r].distance)});
  add_sheet(plot, path, "Pictures like " + name,
            "in order of their distance, " + options.distance_name, cells);
}

}  // namespace

const std::vector<ResultKind>& similar_results() {
  static const std::vector<ResultKind> kinds{
      {"ranking", "similar.csv: the pictures in order, with their distances"},
      {"figure", "similar.figure.png: the query and the pictures in order"}};
  return kinds;
}

Json run_similar(const SimilarOptions& options, const Context& context) {
  Results results(options.shared, context, similar_results(), ResultNames::kRun);
  const bool figure = results.wants("figure") && options.shared.figures != FigureFormat::kNone;
  const auto read = [&](const std::filesystem::path& path, Thumbnail& thumbnail,
                        const Context& its_context) {
    CountedPicture picture = open_counted(path, options.shared, its_context);
    Preview preview(picture.file.info, figure);
    ColorDescriptor descriptor = describe(picture, options, its_context, preview);
    if (figure) thumbnail = preview.thumbnail();
    return descriptor;
  };
  Thumbnail query_thumbnail;
  const ColorDescriptor query = read(options.query, query_thumbnail, context);
  Json summary = summary_frame("similar");
  summary["query"] = options.query.string();
  summary["distance"] = options.distance_name;
  std::mutex shown_mutex;
  std::map<std::filesystem::path, Thumbnail> shown;
  const auto rank = [&](const std::filesystem::path& input, const Context& its_context) {
    Thumbnail thumbnail;
    const double distance = distance_between(query, read(input, thumbnail, its_context), options);
    const std::lock_guard lock(shown_mutex);
    shown[input] = std::move(thumbnail);
    return Json{{"file", input.string()}, {"distance", distance}};
  };
  for_each_input(options.shared, context, summary, rank, ResultOf::kAllInputs);
  const std::vector<Ranked> ranked = in_order(summary["inputs"], shown);
  summary["ranking"] = ranking_json(ranked);
  if (!ranked.empty() && results.wants("ranking"))
    write_ranking(results.path("similar.csv"), ranked);
  if (!ranked.empty() && figure) {
    Plot plot(options.shared.figures.value_or(FigureFormat::kPng));
    add_ranking(plot, results.path("similar.figure." + extension_of(plot.format())), options,
                query_thumbnail, ranked);
    draw_figures(plot, context);
  }
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
