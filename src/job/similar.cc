#include "job/similar.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <mutex>

#include "figure/sheet_figure.h"
#include "io/csv.h"
#include "job/color_descriptor.h"
#include "job/each_input.h"
#include "job/inputs.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostRanksShown = 40;

struct Ranked {
  std::filesystem::path path;
  double distance = 0;
  Thumbnail thumbnail;
};

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
  const auto read = [&](const std::filesystem::path& path, Thumbnail& thumbnail) {
    CountedPicture picture = open_counted(path, options.shared, context);
    Preview preview(picture.file.info, figure);
    ColorDescriptor descriptor = describe(picture, options, context, preview);
    if (figure) thumbnail = preview.thumbnail();
    return descriptor;
  };
  Thumbnail query_thumbnail;
  const ColorDescriptor query = read(options.query, query_thumbnail);
  Json summary = summary_frame("similar");
  summary["query"] = options.query.string();
  summary["distance"] = options.distance_name;
  std::mutex shown_mutex;
  std::map<std::filesystem::path, Thumbnail> shown;
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    Thumbnail thumbnail;
    const double distance = distance_between(query, read(input, thumbnail), options);
    const std::lock_guard lock(shown_mutex);
    shown[input] = std::move(thumbnail);
    return Json{{"file", input.string()}, {"distance", distance}};
  });
  std::vector<Ranked> ranked;
  for (const Json& one : summary["inputs"]) {
    const std::filesystem::path input = one["file"].get<std::string>();
    ranked.push_back({input, one["distance"].get<double>(), shown[input]});
  }
  std::stable_sort(ranked.begin(), ranked.end(),
                   [](const Ranked& a, const Ranked& b) { return a.distance < b.distance; });
  summary["ranking"] = Json::array();
  CsvTable table({"rank", "picture", "distance"});
  for (std::size_t r = 0; r < ranked.size(); ++r) {
    summary["ranking"].push_back(
        {{"rank", r + 1}, {"file", ranked[r].path.string()}, {"distance", ranked[r].distance}});
    table.add({std::uint64_t{r + 1}, ranked[r].path.string(), ranked[r].distance});
  }
  if (results.wants("ranking")) table.write(results.path("similar.csv"));
  if (figure && !ranked.empty()) {
    const FigureFormat format = options.shared.figures.value_or(FigureFormat::kPng);
    std::vector<SheetCell> cells{{"query: " + options.query.filename().string(), query_thumbnail}};
    for (std::size_t r = 0; r < std::min(kMostRanksShown, ranked.size()); ++r)
      cells.push_back({fmt::format("{}. {}  {:.3f}", r + 1, ranked[r].path.filename().string(),
                                   ranked[r].distance),
                       ranked[r].thumbnail});
    Plot plot(format);
    add_sheet(plot, results.path("similar.figure." + extension_of(format)),
              "Pictures like " + options.query.filename().string(),
              "in order of their distance, " + options.distance_name, cells);
    draw_figures(plot, context);
  }
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
