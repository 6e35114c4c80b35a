#include "figure/palette_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/picture_pair.h"

namespace chalcedony {
namespace {

constexpr std::size_t kRowsWithDetails = 14;  // more colors than this are listed in columns

std::vector<LegendLine> legend_of(const Palette& palette) {
  std::vector<LegendLine> legend;
  for (const PaletteColor& one : palette)
    legend.push_back({one.name, css_hex(one.color()), one.percent});
  return legend;
}

/// What is known of each color, one below the other.
void draw_details(Plot& plot, const Palette& palette, double left) {
  const double top = 0.84, row = std::min(0.1, 0.62 / static_cast<double>(palette.size()));
  const std::vector<std::pair<double, const char*>> columns{{0.03, "color"},
                                                            {0.16, "share"},
                                                            {0.23, "L  C  h"},
                                                            {0.33, "typical"},
                                                            {0.40, "on black, white"}};
  for (const auto& [x, title] : columns) plot.label(left + x, 0.87, title, 10, Ink::kFaint);
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const PaletteColor& one = palette[i];
    const double y = top - row * static_cast<double>(i) - row / 2;
    const auto [l, c, h] = one.color().in(spaces::kLch);
    plot.swatch({left, left + 0.022, y - 0.42 * row, y + 0.42 * row}, css_hex(one.color()));
    plot.label(left + 0.03, y + 0.011, css_hex(one.color()), 11);
    plot.label(left + 0.03, y - 0.012, one.name, 9, Ink::kFaint);
    plot.label(left + 0.16, y, fmt::format("{:.1f} %", one.percent), 10);
    plot.label(left + 0.23, y, fmt::format("{:.0f}  {:.0f}  {:.0f}°", l, c, h), 10);
    plot.swatch({left + 0.33, left + 0.352, y - 0.42 * row, y + 0.42 * row},
                css_hex(one.typical()));
    plot.label(left + 0.40, y,
               fmt::format("{:.1f}   {:.1f}", one.contrast_black, one.contrast_white), 10);
  }
}

/// Swatches with their values in three columns.
void draw_list(Plot& plot, const Palette& palette, double left) {
  constexpr std::size_t kColumns = 3;
  const std::size_t rows = (palette.size() + kColumns - 1) / kColumns;
  const double row = std::min(0.04, 0.64 / static_cast<double>(rows));
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const double x = left + 0.165 * static_cast<double>(i / rows);
    const double y = 0.86 - row * (static_cast<double>(i % rows) + 0.5);
    plot.swatch({x, x + 0.02, y - 0.42 * row, y + 0.42 * row}, css_hex(palette[i].color()));
    plot.label(x + 0.025, y,
               fmt::format("{}  {:.1f} %", css_hex(palette[i].color()), palette[i].percent),
               rows > 30 ? 7 : 9);
  }
}

/// The upright strip of a palette between two x, and where each color ends, from the top.
std::vector<double> draw_strip(Plot& plot, const Palette& palette, double left, double right) {
  constexpr double kTop = 0.84, kBottom = 0.08;
  std::vector<double> ends;
  double top = kTop;
  for (const PaletteColor& one : palette) {
    const double bottom = top - (kTop - kBottom) * one.percent / 100;
    plot.swatch({left, right, bottom, top}, css_hex(one.color()));
    ends.push_back(top);
    top = bottom;
  }
  return ends;
}

/// Names of the colors beside a strip, where they do not cover each other.
void draw_names(Plot& plot, const Palette& palette, const std::vector<double>& tops, double x,
                const char* align) {
  double last = 1;
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const double y = tops[i] - 0.38 * palette[i].percent / 100;
    if (last - y < 0.025) continue;
    last = y;
    plot.label(x, y,
               fmt::format("{}  {}  {:.1f} %", css_hex(palette[i].color()), palette[i].name,
                           palette[i].percent),
               10, Ink::kText, align);
  }
}

/// A band from one height on the left to another on the right, as an outline to be filled.
std::string band_outline(double left, double right, double from, double to, double height) {
  constexpr int kSteps = 24;
  std::string points;
  const auto add = [&](double t, double below) {
    const double s = t * t * (3 - 2 * t);
    points +=
        fmt::format("{:.5f} {:.5f}\n", left + (right - left) * t, from + (to - from) * s - below);
  };
  for (int i = 0; i <= kSteps; ++i) add(double(i) / kSteps, 0);
  for (int i = kSteps; i >= 0; --i) add(double(i) / kSteps, height);
  return points;
}

}  // namespace

void add_palette_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const Palette& palette, const Thumbnail& picture) {
  plot.begin(
      path,
      fmt::format("{} main color{} of {}", palette.size(), palette.size() == 1 ? "" : "s", name),
      "share of the counted pixels; L C h of CIE LCh, white D50; contrast ratios of WCAG 2");
  plot.show({0.02, 0.45, 0.2, 0.88}, "", picture);
  if (palette.size() <= kRowsWithDetails) {
    draw_details(plot, palette, 0.48);
  } else {
    draw_list(plot, palette, 0.48);
  }
  draw_share_bar(plot, {0.02, 0.98, 0.04, 0.15}, legend_of(palette));
}

void add_repainted_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& colors, const std::string& sentence,
                          const Thumbnail& picture, const Thumbnail& repainted) {
  draw_pair(plot, path, name + " in the colors of a palette", sentence,
            {"picture", picture, "repainted", repainted}, colors, PairBar::kShares);
}

void add_matching_figure(Plot& plot, const std::filesystem::path& path,
                         const std::vector<std::string>& names,
                         const std::vector<Palette>& palettes, const TransportPlan& plan) {
  plot.begin(path, "Palettes of " + names[0] + " and " + names[1],
             fmt::format("earth mover's distance {:.2f} delta E: how far colors move on average to "
                         "make one of the other",
                         plan.cost));
  constexpr double kLeft = 0.36, kRight = 0.64, kHeight = 0.76;
  const std::vector<double> first = draw_strip(plot, palettes[0], kLeft - 0.06, kLeft);
  const std::vector<double> second = draw_strip(plot, palettes[1], kRight, kRight + 0.06);
  plot.label(kLeft - 0.06, 0.865, names[0], 12);
  plot.label(kRight + 0.06, 0.865, names[1], 12, Ink::kText, "right");
  draw_names(plot, palettes[0], first, kLeft - 0.07, "right");
  draw_names(plot, palettes[1], second, kRight + 0.07, "left");
  plot.panel({0, 1, 0, 1});
  plot.line("unset border; unset tics; unset grid");
  plot.line("set xrange [0:1]; set yrange [0:1]");
  std::vector<double> from = first, to = second;
  std::string drawing;
  for (const Flow& flow : plan.flows) {
    const double height = kHeight * flow.amount;
    drawing += (drawing.empty() ? "plot " : ", ") +
               fmt::format(
                   "{} using 1:2 with filledcurves closed fs transparent solid 0.45 noborder "
                   "lc rgb '{}' notitle",
                   plot.store(band_outline(kLeft, kRight, from[flow.from], to[flow.to], height)),
                   css_hex(palettes[0][flow.from].color()));
    from[flow.from] -= height;
    to[flow.to] -= height;
  }
  plot.line(drawing);
}

}  // namespace chalcedony
