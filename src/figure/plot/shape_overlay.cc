#include "figure/plot/shape_overlay.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/degrees.h"
#include "figure/plot/cased_line.h"

namespace chalcedony {
namespace {

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
  return cased_line(stored, {color, 2.4}, {Ink::kPaper, 6});
}

/// The widest stretch inside the rings, of some rows between top and bottom; of equals the one that
/// is nearest to the middle.
RowStretch widest_stretch(const std::vector<std::vector<Position>>& rings, double top,
                          double bottom) {
  constexpr int kRows = 9;
  RowStretch widest{0, 0, 0};
  std::vector<double> at;
  for (int row = 0; row < kRows; ++row) {
    const int from_middle = row % 2 == 0 ? row / 2 : -(row + 1) / 2;
    const double y = (top + bottom) / 2 + from_middle * (bottom - top) / (kRows + 1);
    find_crossings(rings, y, at);
    for (std::size_t i = 0; i + 1 < at.size(); i += 2)
      if (at[i + 1] - at[i] > widest.wide) widest = {(at[i] + at[i + 1]) / 2, y, at[i + 1] - at[i]};
  }
  return widest;
}

/// Inside the rings, or above or below the middle of the outer one.
PictureLabel name_beside(const std::vector<std::vector<Position>>& rings, const std::string& name) {
  const std::vector<Position>& outer = rings.front();
  const auto by_x = [](const Position& a, const Position& b) { return a.x < b.x; };
  const auto by_y = [](const Position& a, const Position& b) { return a.y < b.y; };
  const auto [left, right] = std::minmax_element(outer.begin(), outer.end(), by_x);
  const auto [top, bottom] = std::minmax_element(outer.begin(), outer.end(), by_y);
  return {(left->x + right->x) / 2, top->y, name, bottom->y,
          widest_stretch(rings, top->y, bottom->y)};
}

std::vector<Position> ring_around(const PixelRect& rect) {
  return rectangle_ring(rect.x, rect.y, rect.width, rect.height);
}

}  // namespace

Overlay outlined_samples(Plot& plot, const SampleSet& samples,
                         const std::vector<std::string>& colors) {
  std::vector<std::string> outlines(samples.classes.size());
  Overlay over{.coordinates = true};
  for (const SampleShape& shape : samples.shapes) {
    const auto rings = outlines_of(shape);
    std::string& data = outlines[shape.sample_class];
    for (const auto& ring : rings) data += line_through(ring);
    over.labels.push_back(name_beside(rings, samples.classes[shape.sample_class].name));
  }
  for (std::size_t c = 0; c < outlines.size(); ++c) {
    if (!over.plots.empty()) over.plots += ", ";
    over.plots += outlined(plot.store(outlines[c]), colors[c]);
  }
  return over;
}

std::string outlined(Plot& plot, const PixelRect& rect, const std::string& color) {
  return outlined(plot.store(line_through(closed_line(ring_around(rect)))), color);
}

PictureLabel name_beside(const PixelRect& rect, const std::string& name) {
  return {rect.x + rect.width / 2.0, static_cast<double>(rect.y), name,
          static_cast<double>(rect.y + rect.height)};
}

}  // namespace chalcedony
