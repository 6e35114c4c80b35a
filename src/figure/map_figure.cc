#include "figure/map_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "figure/axis.h"

namespace chalcedony {
namespace {

/// The classes in columns along the lower edge of the page.
void draw_legend(Plot& plot, const std::vector<LegendLine>& legend, double top) {
  constexpr double kRow = 0.042;
  const auto rows = static_cast<std::size_t>(std::max(1.0, (top - 0.02) / kRow));
  const std::size_t columns = std::max<std::size_t>(4, (legend.size() + rows - 1) / rows);
  const double step = 0.95 / static_cast<double>(columns);
  for (std::size_t i = 0; i < legend.size(); ++i) {
    const double x = 0.03 + step * static_cast<double>(i % columns);
    const double y = top - kRow * static_cast<double>(i / columns);
    plot.swatch({x, x + 0.018, y - 0.013, y + 0.013}, legend[i].color);
    plot.label(x + 0.026, y, fmt::format("{}   {:.1f} %", legend[i].name, legend[i].percent), 11);
  }
}

double legend_top(std::size_t entries) {
  return 0.055 + 0.042 * static_cast<double>((entries + 3) / 4 - 1);
}

}  // namespace

void add_mask_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                     const std::string& selection, double covered_percent,
                     const Thumbnail& picture, const Thumbnail& mask, const Thumbnail& cutout) {
  plot.begin(path, "Selection in " + name,
             fmt::format("{}   selects {:.2f} % of the counted pixels", selection, covered_percent));
  plot.show({0.02, 0.325, 0.05, 0.85}, "picture", picture);
  plot.show({0.347, 0.653, 0.05, 0.85}, "mask", mask);
  plot.show({0.675, 0.98, 0.05, 0.85}, "cut-out", cutout);
}

void add_class_map_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                          const std::vector<LegendLine>& legend, const Thumbnail& picture,
                          const Thumbnail& map) {
  const double top = legend_top(legend.size());
  plot.begin(path, "Class map of " + name, "shares are percent of the counted pixels");
  plot.show({0.02, 0.49, top + 0.06, 0.87}, "picture", picture);
  plot.show({0.51, 0.98, top + 0.06, 0.87}, "class map", map);
  draw_legend(plot, legend, top);
}

void add_samples_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const SampleSet& samples, const std::vector<std::string>& colors,
                        const std::vector<std::uint64_t>& counts, const Thumbnail& picture) {
  std::vector<std::string> outlines(samples.classes.size());
  for (const SampleShape& shape : samples.shapes) {
    std::string& data = outlines[shape.sample_class];
    for (const auto& ring : shape.rings) {
      for (const Position& p : ring) data += fmt::format("{:.6g} {:.6g}\n", p.x, p.y);
      data += fmt::format("{:.6g} {:.6g}\n\n", ring.front().x, ring.front().y);
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
    over += fmt::format("{}{} using 1:2 with lines lw 4 lc rgb 'white' notitle, {} using 1:2 with "
                        "lines lw 2 lc rgb '{}' notitle", over.empty() ? "" : ", ", data, data,
                        colors[c]);
    all += counts[c];
  }
  plot.begin(path, "Samples on " + name,
             fmt::format("{} sample pixels in {} regions; coordinates are pixels",
                         grouped(static_cast<double>(all)), samples.shapes.size()));
  plot.show({0.07, 0.70, 0.06, 0.88}, "", picture, over, true);
  for (std::size_t c = 0; c < colors.size() && c < 18; ++c) {
    const double y = 0.86 - 0.045 * static_cast<double>(c);
    plot.swatch({0.74, 0.758, y - 0.013, y + 0.013}, colors[c]);
    plot.label(0.766, y, fmt::format("{}   {} pixels", samples.classes[c].name,
                                     grouped(static_cast<double>(counts[c]))));
  }
}

}  // namespace chalcedony
