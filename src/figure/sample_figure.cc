#include "figure/sample_figure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <utility>

#include "core/degrees.h"
#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "figure/plot/legend.h"
#include "figure/plot/sheet_grid.h"
#include "figure/sheet_figure.h"

namespace chalcedony {
namespace {

constexpr double kLegendWide = 308, kCloseUpsWide = 500;  // of the page, in pixels

/// The corners of a circle.
std::vector<Position> circle_about(const Position& center, double radius) {
  constexpr int kCorners = 24;
  std::vector<Position> circle;
  for (int corner = 0; corner < kCorners; ++corner) {
    const double angle = radians(360.0 * corner / kCorners);
    circle.push_back({center.x + radius * std::cos(angle), center.y + radius * std::sin(angle)});
  }
  return circle;
}

/// A ring as a line that comes back to where it began: in the middle of an edge, since its two ends
/// are not joined as other corners are.
std::vector<Position> closed_line(std::vector<Position> ring) {
  if (ring.size() > 1 && ring.front() == ring.back()) ring.pop_back();
  const Position& last = ring.back();
  const Position begin{(last.x + ring.front().x) / 2, (last.y + ring.front().y) / 2};
  ring.insert(ring.begin(), begin);
  ring.push_back(begin);
  return ring;
}

/// The outlines of a shape; a circle for a point.
std::vector<std::vector<Position>> outlines_of(const SampleShape& shape) {
  std::vector<std::vector<Position>> rings = shape.rings;
  if (rings.empty()) rings.push_back(circle_about(shape.point, std::max(shape.radius, 0.5)));
  for (auto& ring : rings) ring = closed_line(std::move(ring));
  return rings;
}

std::string line_through(const std::vector<Position>& ring) {
  std::string data;
  for (const Position& p : ring) data += fmt::format("{:.6g} {:.6g}\n", p.x, p.y);
  return data + "\n";
}

/// Stored lines in a color, between two lines of paper that part it from a picture of that color.
std::string outlined(const std::string& stored, const std::string& color) {
  return fmt::format(
      "{0} using 1:2 with lines lw 6 lc rgb '{1}' notitle, {0} using 1:2 with lines lw 2.4 lc rgb "
      "'{2}' notitle",
      stored, Ink::kPaper, color);
}

/// Above or below the middle of the outer ring.
PictureLabel name_beside(const std::vector<Position>& ring, const std::string& name) {
  const auto by_x = [](const Position& a, const Position& b) { return a.x < b.x; };
  const auto by_y = [](const Position& a, const Position& b) { return a.y < b.y; };
  const auto [left, right] = std::minmax_element(ring.begin(), ring.end(), by_x);
  const auto [top, bottom] = std::minmax_element(ring.begin(), ring.end(), by_y);
  return {(left->x + right->x) / 2, top->y, name, bottom->y};
}

std::vector<Position> ring_around(const PixelRect& rect) {
  return rectangle_ring(rect.x, rect.y, rect.width, rect.height);
}

/// The outline of a rectangle in a color, as outlined() draws it.
std::string outlined(Plot& plot, const PixelRect& rect, const std::string& color) {
  return outlined(plot.store(line_through(closed_line(ring_around(rect)))), color);
}

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
  std::vector<std::string> outlines(samples.classes.size());
  Overlay over{.coordinates = true};
  for (const SampleShape& shape : samples.shapes) {
    const auto rings = outlines_of(shape);
    std::string& data = outlines[shape.sample_class];
    for (const auto& ring : rings) data += line_through(ring);
    over.labels.push_back(name_beside(rings.front(), samples.classes[shape.sample_class].name));
  }
  for (std::size_t c = 0; c < outlines.size(); ++c) {
    if (!over.plots.empty()) over.plots += ", ";
    over.plots += outlined(plot.store(outlines[c]), colors[c]);
  }
  const std::uint64_t all = std::accumulate(counts.begin(), counts.end(), std::uint64_t{0});
  Box body = plot.begin(path, "Samples on " + name,
                        fmt::format("{} sample pixels in {} regions; coordinates are pixels",
                                    grouped(static_cast<double>(all)), samples.shapes.size()));
  const Box legend = body.cut_right(kLegendWide, Plot::kGap);
  plot.show(body, "", picture, over);
  std::vector<LegendLine> classes;
  for (std::size_t c = 0; c < colors.size(); ++c)
    classes.push_back({fmt::format("{}   {} pixels", samples.classes[c].name,
                                   grouped(static_cast<double>(counts[c]))),
                       colors[c]});
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
    over.labels.push_back(name_beside(ring_around(sample.square), number));
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
    const std::string title = fmt::format("{} {}  {:.1f} %", picture, number, sample.percent);
    SheetCell& cell = near.emplace_back(seen_from_near(plot, title, sample));
    cell.over.labels.push_back(name_beside(ring_around(sample.close_up.place), sample.guess));
  }
  add_sheet(plot, path, fmt::format("Where samples would help in {} pictures", pictures),
            "the places to check first, with guesses; shares are percent of the counted pixels of "
            "all pictures that a sample stands for",
            near);
}

}  // namespace chalcedony
