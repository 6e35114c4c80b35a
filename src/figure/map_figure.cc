#include "figure/map_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "figure/axis.h"
#include "figure/legend_room.h"
#include "figure/text_lines.h"

namespace chalcedony {
namespace {

// Of the page, in pixels: what stands around the lines of a legend below pictures.
constexpr double kLegendGapAbove = 20, kLegendRow = 34, kLegendFoot = 10;
constexpr double kSwatchHeight = 20;
constexpr std::size_t kMostLegendColumns = 6;
constexpr double kLegendWidth = 0.96;
constexpr double kLegendSwatch = 0.026;  // with the gap before the text
constexpr double kLegendLetter = 0.006, kLegendGap = 0.012;
constexpr std::size_t kMostPlaces = 3000;  // of a kind, on a map
constexpr std::size_t kMostBeside = 18;    // classes beside a picture of samples

std::string text_of(const LegendLine& line) {
  return line.name + (line.percent ? fmt::format("   {:.1f} %", *line.percent) : "");
}

/// As many columns as the longest text has room in.
std::size_t legend_columns(const std::vector<LegendLine>& legend) {
  std::size_t longest = 0;
  for (const LegendLine& line : legend) longest = std::max(longest, text_of(line).size());
  const double width = kLegendSwatch + kLegendLetter * static_cast<double>(longest) + kLegendGap;
  return std::clamp(static_cast<std::size_t>(kLegendWidth / width), std::size_t{1},
                    kMostLegendColumns);
}

/// So many lines, those with the largest shares, in their order.
std::vector<LegendLine> lines_in(const std::vector<LegendLine>& legend, std::size_t shown) {
  std::vector<std::size_t> order(legend.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    return legend[a].percent.value_or(0) > legend[b].percent.value_or(0);
  });
  order.resize(shown);
  std::sort(order.begin(), order.end());
  std::vector<LegendLine> lines;
  for (const std::size_t i : order) lines.push_back(legend[i]);
  return lines;
}

/// The classes in columns below `top`, on a page of a height in pixels; where they are too many,
/// how many are left out.
void draw_legend(Plot& plot, const std::vector<LegendLine>& legend, double top, double page) {
  const std::size_t columns = legend_columns(legend);
  const double step = kLegendWidth / static_cast<double>(columns);
  const double row = kLegendRow / page, half = kSwatchHeight / 2 / page;
  const std::size_t places = columns * static_cast<std::size_t>(std::max(
                                           1.0, (top * page - kLegendFoot + 0.5) / kLegendRow));
  const std::size_t shown = shown_lines(legend.size(), places);
  const std::vector<LegendLine> lines = lines_in(legend, shown);
  const auto x_of = [&](std::size_t i) { return 0.02 + step * static_cast<double>(i % columns); };
  const auto y_of = [&](std::size_t i) {
    return top - row * (static_cast<double>(i / columns) + 0.5);
  };
  for (std::size_t i = 0; i < shown; ++i) {
    const double x = x_of(i), y = y_of(i);
    plot.swatch({x, x + 0.018, y - half, y + half}, lines[i].color);
    plot.label(x + kLegendSwatch, y, text_of(lines[i]), 11);
  }
  if (shown < legend.size())
    plot.label(x_of(shown), y_of(shown), and_more(legend.size() - shown), 11, Ink::kFaint);
}

/// Two pictures of one size, with their titles.
struct PicturePair {
  const char* left_title;
  const Thumbnail& left;
  const char* right_title;
  const Thumbnail& right;
};

/// A page as high as two pictures side by side and the legend below them need.
void draw_pair(Plot& plot, const std::filesystem::path& path, const std::string& title,
               const std::string& subtitle, const PicturePair& pair,
               const std::vector<LegendLine>& legend) {
  const std::size_t columns = legend_columns(legend);
  const double rows = static_cast<double>((legend.size() + columns - 1) / columns);
  const double below =
      std::min(0.4 * Plot::kHeight, kLegendGapAbove + rows * kLegendRow + kLegendFoot);
  const double wide = 0.47 * Plot::kWidth / pair.left.width * pair.left.height;
  const double page = std::min(Plot::kHeight, Plot::kHeader + wide + below);
  plot.begin(path, title, subtitle, page);
  const double top = 1 - Plot::kHeader / page, bottom = below / page;
  plot.show({0.02, 0.49, bottom, top}, pair.left_title, pair.left);
  const Frame shown = plot.show({0.51, 0.98, bottom, top}, pair.right_title, pair.right);
  draw_legend(plot, legend, shown.bottom - kLegendGapAbove / page, page);
}

}  // namespace

void add_mask_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& selection, double covered_percent, const Thumbnail& picture,
                     const Thumbnail& mask, const Thumbnail& cutout) {
  plot.begin(path, "Selection in " + name,
             fmt::format("{:.2f} % of the counted pixels are selected", covered_percent));
  // Wide pictures stand in two rows, with the selection in the place that is left.
  const bool wide = picture.width > picture.height;
  const auto lines = text_lines(selection, wide ? 58 : 120);
  if (wide) {
    plot.show({0.02, 0.49, 0.49, 0.87}, "picture", picture);
    plot.show({0.51, 0.98, 0.49, 0.87}, "mask", mask);
    plot.show({0.02, 0.49, 0.04, 0.42}, "cut-out", cutout);
  } else {
    plot.show({0.02, 0.325, 0.12, 0.85}, "picture", picture);
    plot.show({0.347, 0.653, 0.12, 0.85}, "mask", mask);
    plot.show({0.675, 0.98, 0.12, 0.85}, "cut-out", cutout);
  }
  const double left = wide ? 0.53 : 0.02;
  double y = wide ? 0.40 : 0.085;
  plot.label(left, y, "selection", 11, Ink::kFaint);
  for (std::size_t i = 0; i < lines.size() && i < (wide ? 9u : 1u); ++i)
    plot.label(left, y -= kLegendRow / Plot::kHeight, lines[i], 12);
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
