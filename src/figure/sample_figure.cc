#include "figure/sample_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/legend.h"
#include "figure/plot/shape_overlay.h"
#include "figure/plot/sheet_grid.h"
#include "figure/sheet_figure.h"

namespace chalcedony {
namespace {

constexpr double kLegendWide = 308, kCloseUpsWide = 500;  // of the page, in pixels

/// A close-up of a sample, which is outlined in it.
SheetCell seen_from_near(Plot& plot, const std::string& title, const NumberedSample& sample) {
  const auto& [picture, place] = sample.close_up;
  return {title, picture, {.plots = outlined(plot, place, sample.color)}};
}

/// Adds what each stands for to its title, where there is room for all of them; false where not.
bool add_shares(std::vector<SheetCell>& cells, const std::vector<NumberedSample>& samples,
                double room) {
  std::vector<std::string> titles;
  for (std::size_t i = 0; i < cells.size(); ++i)
    titles.push_back(fmt::format("{} {:.1f} %", cells[i].title, samples[i].percent));
  if (std::any_of(titles.begin(), titles.end(), [&](const std::string& title) {
        return text_width(title, Plot::kPanelTitlePoints) > room;
      }))
    return false;
  for (std::size_t i = 0; i < cells.size(); ++i) cells[i].title = titles[i];
  return true;
}

}  // namespace

void add_samples_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                        const SampleSet& samples, const std::vector<std::string>& colors,
                        const std::vector<std::uint64_t>& counts, const Thumbnail& picture) {
  const Overlay over = outlined_samples(plot, samples, colors);
  const std::uint64_t all = std::accumulate(counts.begin(), counts.end(), std::uint64_t{0});
  Box body = plot.begin(path, "Samples on " + name,
                        fmt::format("{} sample pixels in {} regions; coordinates are pixels",
                                    grouped(static_cast<double>(all)), samples.shapes.size()));
  const Box legend = body.cut_right(kLegendWide, Plot::kGap);
  plot.show(body, "", picture, over);
  std::vector<LegendLine> classes;
  for (std::size_t c = 0; c < colors.size(); ++c)
    classes.push_back({.name = samples.classes[c].name,
                       .color = colors[c],
                       .count = grouped(static_cast<double>(counts[c])) + " pixels"});
  draw_legend(plot, classes, legend);
}

void add_suggestions_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                            const std::vector<NumberedSample>& samples, const Thumbnail& picture) {
  Overlay over{.coordinates = true};
  std::vector<SheetCell> near;
  for (const NumberedSample& sample : samples) {
    const std::string number = std::to_string(near.size() + 1);
    if (!over.plots.empty()) over.plots += ", ";
    over.plots += outlined(plot, sample.square, sample.color);
    over.labels.push_back(name_beside(sample.square, number));
    near.push_back(seen_from_near(plot, number + " " + sample.guess, sample));
  }
  const SheetGrid grid = SheetGrid::best(near, kCloseUpsWide, Plot::kBodyHeight);
  const bool shares = add_shares(near, samples, grid.cell_width());
  Box body = plot.begin(
      path, "Where samples would help: " + name,
      std::string("guesses to be checked; ") +
          (shares ? "shares are percent of the counted pixels that a sample stands for; " : "") +
          "coordinates are pixels");
  const Box beside = body.cut_right(kCloseUpsWide, Plot::kGap);
  plot.show(body, "", picture, over);
  grid.show(plot, beside, near, row_by_row(near.size()));
}

void add_places_to_check_figure(Plot& plot, const std::filesystem::path& path, std::size_t pictures,
                                const std::vector<PlaceToCheck>& places) {
  std::vector<SheetCell> near;
  for (const auto& [number, picture, sample] : places) {
    SheetCell& cell = near.emplace_back(seen_from_near(plot, {}, sample));
    cell.name = picture;
    cell.behind = fmt::format(" {}  {:.1f} %", number, sample.percent);
    cell.over.labels.push_back(name_beside(sample.close_up.place, sample.guess));
  }
  add_sheet(plot, path, fmt::format("Where samples would help in {} pictures", pictures),
            "the places to check first, with guesses; shares are percent of the counted pixels of "
            "all pictures that a sample stands for",
            near);
}

}  // namespace chalcedony
