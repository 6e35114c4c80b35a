#include "figure/map_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/plot/axis.h"
#include "figure/plot/picture_pair.h"
#include "figure/plot/text_lines.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostTextRows = 6;
constexpr std::size_t kMostPlaces = 3000;  // of a kind, on a map

}  // namespace

void add_mask_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& selection, double covered_percent, const Thumbnail& picture,
                     const Thumbnail& mask, const Thumbnail& cutout) {
  const auto lines = text_lines(selection, 120);
  const std::size_t shown = std::min(lines.size(), kMostTextRows);
  const double below = kTextRow * static_cast<double>(shown + 1) + Plot::kGap;
  const double wide = (Plot::kBodyWidth - 2 * Plot::kGap) / 3;
  const double high = Plot::kPanelTitle + wide / picture.width * picture.height;
  Box body = plot.begin(path, "Selection in " + name,
                        fmt::format("{:.2f} % of the counted pixels are selected", covered_percent),
                        std::min(Plot::kHeight, Plot::page_height(high + below)));
  const auto thirds = columns_of(body.cut_top(body.height() - below), 3, Plot::kGap);
  plot.show(thirds[0], "picture", picture);
  plot.show(thirds[1], "mask", mask);
  body.top = plot.show(thirds[2], "cut-out", cutout).bottom + Plot::kGap;
  plot.label(body.left, body.cut_top(kTextRow).middle(), "selection", 11, Ink::kFaint);
  for (std::size_t i = 0; i < shown; ++i)
    plot.label(body.left, body.cut_top(kTextRow).middle(),
               lines[i] + (i + 1 < lines.size() && i + 1 == shown ? " ..." : ""), 12);
}

void add_class_map_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& legend, const Thumbnail& picture,
                          const Thumbnail& map) {
  draw_pair(plot, path, "Class map of " + name, "shares are percent of the counted pixels",
            {"picture", picture, "class map", map}, legend);
}

void add_tidy_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& steps, const std::vector<LegendLine>& legend,
                     const Thumbnail& before, const Thumbnail& after) {
  draw_pair(plot, path, name + ", cleaned",
            "steps: " + steps + "; shares are percent of all pixels",
            {"before", before, "after", after}, legend);
}

void add_error_map_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& legend, const Thumbnail& map,
                          const Thumbnail& errors) {
  draw_pair(plot, path, "Errors of " + name,
            "wrong pixels are shown in the class they should have been; white is not assessed",
            {"class map", map, "errors", errors}, legend);
}

void add_right_maps_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                           std::size_t others, const std::vector<LegendLine>& legend,
                           const Thumbnail& map, const Thumbnail& right) {
  draw_pair(
      plot, path,
      others == 1 ? name + " and another map" : fmt::format("{} and {} other maps", name, others),
      "shares are percent of the assessed pixels; white is not assessed",
      {"class map, the first", map, "which are right", right}, legend);
}

void add_sampled_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const Places& right, const Places& wrong, const Thumbnail& map) {
  std::string over;
  const auto add = [&](const Places& places, const char* wide, const char* narrow) {
    if (places.empty()) return;
    // Evenly thinned out when there are too many to be told apart.
    const std::size_t step = places.size() / kMostPlaces + 1;
    std::string data;
    for (std::size_t i = 0; i < places.size(); i += step)
      data += fmt::format("{:.7g} {:.7g}\n", places[i][0], places[i][1]);
    const std::string file = plot.store(data);
    for (const char* style : {wide, narrow})
      over += fmt::format("{}{} using 1:2 with points {} notitle", over.empty() ? "" : ", ", file,
                          style);
  };
  add(right, "pt 6 ps 0.9 lw 3 lc rgb '#2b3440'", "pt 6 ps 0.9 lw 1.4 lc rgb '#fcfbf8'");
  add(wrong, "pt 2 ps 1.4 lw 6 lc rgb '#fcfbf8'", "pt 2 ps 1.4 lw 2.4 lc rgb '#14202c'");
  const Box body =
      plot.begin(path, "Assessed pixels of " + name,
                 fmt::format("{} right (rings), {} wrong (crosses); coordinates are pixels",
                             grouped(static_cast<double>(right.size())),
                             grouped(static_cast<double>(wrong.size()))));
  plot.show(body, "", map, {over, {}, true});
}

}  // namespace chalcedony
