#include "figure/palette_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/palette/color_vision.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/flow_bands.h"
#include "figure/plot/picture_pair.h"

namespace chalcedony {
namespace {

constexpr std::size_t kRowsWithDetails = 14;  // more colors than this are listed in columns
// Of the page, in pixels.
constexpr double kPaletteWide = 550, kBarHigh = 88;
// Columns of what is known of a color: a swatch is before its text, a typical color below its
// title.
constexpr double kTextAt = 38, kShareAt = 176, kLchAt = 242, kTypicalAt = 344, kContrastAt = 414,
                 kVisionAt = 528, kVisionStep = 44;
constexpr double kHeadHigh = 36, kMostRow = 80, kHalfLine = 9;
constexpr double kLineApart = 17;
constexpr double kMostListRow = 32, kListGap = 6;
constexpr double kColorWide = 28;
constexpr double kRowGap = 0.08;  // of the height of a row, above and below a swatch
// Two palettes and what moves between them.
constexpr double kColorNamesWide = 358, kStripWide = 77, kTextGap = 13, kNameHigh = 20;

std::vector<LegendLine> legend_of(const Palette& palette) {
  std::vector<LegendLine> legend;
  for (const PaletteColor& one : palette)
    legend.push_back({one.name, css_hex(one.color()), one.percent});
  return legend;
}

/// What is known of each color, one below the other.
void draw_details(Plot& plot, const Palette& palette, Box box) {
  const std::vector<std::pair<double, const char*>> columns{{kTextAt, "color"},
                                                            {kShareAt, "share"},
                                                            {kLchAt, "L  C  h"},
                                                            {kTypicalAt, "typical"},
                                                            {kContrastAt, "on black, white"}};
  const Box head = box.cut_top(kHeadHigh);
  for (const auto& [x, title] : columns)
    plot.label(head.left + x, head.middle(), title, 10, Ink::kFaint);
  plot.label(head.left + kVisionAt, head.middle() - kLineApart, "seen without cones", 10,
             Ink::kFaint);
  const auto vision_at = [](std::size_t v) {
    return kVisionAt + kVisionStep * static_cast<double>(v);
  };
  for (std::size_t v = 0; v < kVisionDeficiencies.size(); ++v)
    plot.label(head.left + vision_at(v), head.middle(),
               std::string(missing_cones(kVisionDeficiencies[v])), 10, Ink::kFaint);
  const double high = std::min(kMostRow, box.height() / static_cast<double>(palette.size()));
  for (const PaletteColor& one : palette) {
    const Box row = box.cut_top(high);
    const auto swatch = [&](double x, const Color& color) {
      const double gap = kRowGap * high;
      plot.swatch({row.left + x, row.top + gap, row.left + x + kColorWide, row.bottom - gap},
                  css_hex(color));
    };
    const auto text = [&](double x, const std::string& what) {
      plot.label(row.left + x, row.middle(), what, 10);
    };
    const auto [l, c, h] = one.color().in(spaces::kLch);
    swatch(0, one.color());
    plot.label(row.left + kTextAt, row.middle() - kHalfLine, css_hex(one.color()), 11);
    plot.label(row.left + kTextAt, row.middle() + kHalfLine, one.name, 9, Ink::kFaint);
    text(kShareAt, fmt::format("{:.1f} %", one.percent));
    text(kLchAt, fmt::format("{:.0f}  {:.0f}  {:.0f}°", l, c, h));
    swatch(kTypicalAt, one.typical());
    text(kContrastAt, fmt::format("{:.1f}   {:.1f}", one.contrast_black, one.contrast_white));
    for (std::size_t v = 0; v < kVisionDeficiencies.size(); ++v)
      swatch(vision_at(v), seen_with(kVisionDeficiencies[v], one.color()));
  }
}

/// Swatches with their values in three columns.
void draw_list(Plot& plot, const Palette& palette, const Box& box) {
  constexpr std::size_t kColumns = 3;
  const auto columns = columns_of(box, kColumns, 0);
  const std::size_t rows = (palette.size() + kColumns - 1) / kColumns;
  const double high = std::min(kMostListRow, box.height() / static_cast<double>(rows));
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const Box& column = columns[i / rows];
    const double top = column.top + high * static_cast<double>(i % rows);
    const Box swatch{column.left, top, column.left + kColorWide, top + high};
    plot.swatch(swatch.inside({.top = kRowGap * high, .bottom = kRowGap * high}),
                css_hex(palette[i].color()));
    plot.label(swatch.right + kListGap, swatch.middle(),
               fmt::format("{}  {:.1f} %", css_hex(palette[i].color()), palette[i].percent),
               rows > 30 ? 7 : 9);
  }
}

/// The upright strip of a palette, and where each color begins, from the top.
std::vector<double> draw_strip(Plot& plot, const Palette& palette, Box strip) {
  const double whole = strip.height();
  std::vector<double> tops;
  for (const PaletteColor& one : palette) {
    tops.push_back(strip.top);
    plot.swatch(strip.cut_top(whole * one.percent / 100), css_hex(one.color()));
  }
  return tops;
}

/// Names of the colors beside a strip so high, where they do not cover each other.
void draw_names(Plot& plot, const Palette& palette, const std::vector<double>& tops, double whole,
                double x, const char* align) {
  double last = 0;
  for (std::size_t i = 0; i < palette.size(); ++i) {
    const double y = tops[i] + whole * palette[i].percent / 200;
    if (y - last < kNameHigh) continue;
    last = y;
    plot.label(x, y,
               fmt::format("{}  {}  {:.1f} %", css_hex(palette[i].color()), palette[i].name,
                           palette[i].percent),
               10, Ink::kText, align);
  }
}

}  // namespace

void add_palette_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const Palette& palette, const Thumbnail& picture) {
  Box body = plot.begin(
      path,
      fmt::format("{} main color{} of {}", palette.size(), palette.size() == 1 ? "" : "s", name),
      "share of the counted pixels; L C h of CIE LCh, white D50; contrast ratios of WCAG 2");
  draw_share_bar(plot, body.cut_bottom(kBarHigh, Plot::kGap), legend_of(palette));
  plot.show(body.cut_left(kPaletteWide, Plot::kGap), "", picture);
  if (palette.size() <= kRowsWithDetails) {
    draw_details(plot, palette, body);
  } else {
    draw_list(plot, palette, body);
  }
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
  Box body = plot.begin(
      path, "Palettes of " + names[0] + " and " + names[1],
      fmt::format("earth mover's distance {:.2f} delta E: how far colors move on average to make "
                  "one of the other",
                  plan.cost));
  const Box titles = body.cut_top(kHeadHigh);
  const Box middle = body.inside({.left = kColorNamesWide, .right = kColorNamesWide});
  Box bands = middle;
  const Box first = bands.cut_left(kStripWide), second = bands.cut_right(kStripWide);
  std::vector<double> from = draw_strip(plot, palettes[0], first);
  std::vector<double> to = draw_strip(plot, palettes[1], second);
  const double name_room = middle.width() / 2 - Plot::kGap;
  plot.label(first.left, titles.middle(), fitted_text(names[0], name_room, 12), 12);
  plot.label(second.right, titles.middle(), fitted_text(names[1], name_room, 12), 12, Ink::kText,
             "right");
  draw_names(plot, palettes[0], from, first.height(), first.left - kTextGap, "right");
  draw_names(plot, palettes[1], to, second.height(), second.right + kTextGap, "left");
  std::vector<FlowBand> flows;
  for (const Flow& flow : plan.flows) {
    const double height = bands.height() * flow.amount;
    flows.push_back({bands.left, bands.right, from[flow.from], to[flow.to], height,
                     css_hex(palettes[0][flow.from].color())});
    from[flow.from] += height;
    to[flow.to] += height;
  }
  draw_flow_bands(plot, bands, flows);
}

}  // namespace chalcedony
