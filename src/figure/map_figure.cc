#include "figure/map_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/axis.h"
#include "figure/picture_pair.h"
#include "figure/text_lines.h"

namespace chalcedony {
namespace {

constexpr double kTextRow = 34;  // of the page, in pixels
constexpr std::size_t kMostTextRows = 6;
constexpr double kThirdWide = 0.31;        // a picture of three side by side
constexpr std::size_t kMostPlaces = 3000;  // of a kind, on a map
constexpr std::size_t kMostBeside = 18;    // classes beside a picture of samples

}  // namespace

void add_mask_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& selection, double covered_percent, const Thumbnail& picture,
                     const Thumbnail& mask, const Thumbnail& cutout) {
  const auto lines = text_lines(selection, 120);
  const std::size_t shown = std::min(lines.size(), kMostTextRows);
  const double below = kTextRow * static_cast<double>(shown + 1) + 24;
  const double high = kThirdWide * Plot::kWidth / picture.width * picture.height;
  const double page = std::min(Plot::kHeight, Plot::kHeader + high + below);
  plot.begin(path, "Selection in " + name,
             fmt::format("{:.2f} % of the counted pixels are selected", covered_percent), page);
  const double top = 1 - Plot::kHeader / page, bottom = below / page;
  const auto show = [&](double left, const char* title, const Thumbnail& one) {
    return plot.show({left, left + kThirdWide, bottom, top}, title, one);
  };
  show(0.02, "picture", picture);
  show(0.345, "mask", mask);
  double y = show(0.67, "cut-out", cutout).bottom - 24 / page;
  plot.label(0.02, y, "selection", 11, Ink::kFaint);
  for (std::size_t i = 0; i < shown; ++i)
    plot.label(0.02, y -= kTextRow / page,
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
  plot.begin(path, "Assessed pixels of " + name,
             fmt::format("{} right (rings), {} wrong (crosses); coordinates are pixels",
                         grouped(static_cast<double>(right.size())),
                         grouped(static_cast<double>(wrong.size()))));
  plot.show({0.06, 0.97, 0.06, 0.88}, "", map, over, true);
}

void add_samples_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const SampleSet& samples, const std::vector<std::string>& colors,
                        const std::vector<std::uint64_t>& counts, const Thumbnail& picture) {
  std::vector<std::string> outlines(samples.classes.size());
  for (const SampleShape& shape : samples.shapes) {
    std::string& data = outlines[shape.sample_class];
    for (const auto& ring : shape.rings) {
      for (const Position& p : ring) data += fmt::format("{:.6g} {:.6g}\n", p.x, p.y);
      // Closed twice, an outline shows a spike where it begins.
      const bool closed = ring.front().x == ring.back().x && ring.front().y == ring.back().y;
      if (!closed) data += fmt::format("{:.6g} {:.6g}\n", ring.front().x, ring.front().y);
      data += "\n";
    }
    if (shape.rings.empty()) {
      const double r = std::max(shape.radius, 0.5);
      for (int degrees = 0; degrees <= 360; degrees += 15) {
        const double a = degrees * 0.017453292519943295;
        data += fmt::format("{:.6g} {:.6g}\n", shape.point.x + r * std::cos(a),
                            shape.point.y + r * std::sin(a));
      }
      data += "\n";
    }
  }
  std::string over;
  std::uint64_t all = 0;
  for (std::size_t c = 0; c < outlines.size(); ++c) {
    const std::string data = plot.store(outlines[c]);
    over += fmt::format(
        "{}{} using 1:2 with lines lw 5 lc rgb 'white' notitle, {} using 1:2 with "
        "lines lw 1.6 lc rgb '{}' notitle",
        over.empty() ? "" : ", ", data, data, Ink::kText);
    all += counts[c];
  }
  plot.begin(path, "Samples on " + name,
             fmt::format("{} sample pixels in {} regions; coordinates are pixels",
                         grouped(static_cast<double>(all)), samples.shapes.size()));
  plot.show({0.07, 0.70, 0.06, 0.88}, "", picture, over, true);
  const auto y_of = [](std::size_t line) { return 0.86 - 0.045 * static_cast<double>(line); };
  const std::size_t named = shown_lines(colors.size(), kMostBeside);
  for (std::size_t c = 0; c < named; ++c) {
    const double y = y_of(c);
    plot.swatch({0.74, 0.758, y - 0.013, y + 0.013}, colors[c]);
    plot.label(0.766, y,
               fmt::format("{}   {} pixels", samples.classes[c].name,
                           grouped(static_cast<double>(counts[c]))));
  }
  if (named < colors.size())
    plot.label(0.766, y_of(named), and_more(colors.size() - named), 11, Ink::kFaint);
}

}  // namespace chalcedony
