#include "figure/class_histogram_figure.h"

#include <fmt/format.h>

#include <algorithm>

#include "figure/plot/axis.h"
#include "figure/plot/cased_line.h"

namespace chalcedony {
namespace {

// Of the page, in pixels.
constexpr double kClassesWide = 190, kShareAxis = 52, kChannelAxis = 34;

/// The curve of a class as steps over its bins.
std::string curve_of(const ClassHistogram& histogram, std::size_t c) {
  const std::vector<double> shares = histogram.shares(c);
  std::string data;
  for (std::size_t b = 0; b < shares.size(); ++b)
    data += fmt::format("{:.9g} {:.6g}\n{:.9g} {:.6g}\n", histogram.binning().edge(b),
                        100 * shares[b], histogram.binning().edge(b + 1), 100 * shares[b]);
  return data;
}

double highest_share(const ClassHistogram& histogram) {
  double highest = 1e-9;
  for (std::size_t c = 0; c < histogram.classes(); ++c)
    for (const double share : histogram.shares(c)) highest = std::max(highest, 100 * share);
  return highest;
}

std::string title_of(const ShownChannel& shown) {
  std::string title =
      fmt::format("{}, overlap {:.1f} %", axis_title(shown.channel), shown.overlap_percent);
  if (shown.of_each_percent) title += fmt::format(", in each {:.1f} %", *shown.of_each_percent);
  return title;
}

void draw_channel(Plot& plot, const Box& box, const ShownChannel& shown,
                  const std::vector<LegendLine>& classes) {
  const Binning& binning = shown.histogram->binning();
  const double top = 1.05 * highest_share(*shown.histogram);
  plot.panel(box, title_of(shown), {.left = kShareAxis, .bottom = kChannelAxis});
  plot.line(fmt::format("set xrange [{:.9g}:{:.9g}]; set yrange [0:{:.6g}]", binning.low(),
                        binning.high(), top));
  plot.line("set xtics " + channel_tics(shown.channel, binning, 5));
  plot.line("set ytics " + tic_list(round_tics(0, top, 4)));
  std::string drawing;
  for (std::size_t c = 0; c < classes.size(); ++c) {
    if (shown.histogram->total(c) == 0) continue;
    drawing +=
        (drawing.empty() ? "plot " : ", ") + cased_line(plot.store(curve_of(*shown.histogram, c)),
                                                        {classes[c].color, 2}, {Ink::kFaint, 3.2});
  }
  plot.line(drawing);
}

/// Few channels stand below each other, more in two or three columns.
std::size_t columns_for(std::size_t channels) { return channels <= 2 ? 1 : channels <= 6 ? 2 : 3; }

}  // namespace

void add_class_histogram_figure(Plot& plot, const std::filesystem::path& path,
                                const std::string& name, const std::vector<ShownChannel>& channels,
                                const std::vector<LegendLine>& classes) {
  const bool of_several = !channels.empty() && channels.front().of_each_percent;
  const std::size_t shown =
      std::min(channels.size(), of_several ? kMostShownOfSeveral : kMostShownChannels);
  std::string subtitle =
      "percent of the class in each bin; overlap: what two classes have in common, on average";
  if (of_several) subtitle += "; in each: of the pictures by themselves";
  if (shown < channels.size())
    subtitle += fmt::format("; the first {} of {} channels", shown, channels.size());
  Box body = plot.begin(path, "Classes of " + name, subtitle);
  draw_legend(plot, classes, body.cut_right(kClassesWide, Plot::kGap));
  const std::size_t across = columns_for(shown), down = (shown + across - 1) / across;
  const std::vector<Box> rows = rows_of(body, down, Plot::kGap / 2);
  for (std::size_t i = 0; i < shown; ++i)
    draw_channel(plot, columns_of(rows[i / across], across, Plot::kGap)[i % across], channels[i],
                 classes);
}

}  // namespace chalcedony
