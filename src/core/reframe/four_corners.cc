#include "core/reframe/four_corners.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>
#include <vector>

#include "core/error.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

constexpr double kLeastTurn = 1e-6;  // of the sides at a corner, as the sine of its angle

double length(const PicturePoint& a, const PicturePoint& b) {
  return std::hypot(b.x - a.x, b.y - a.y);
}

/// Whether each side turns right into the next one, as seen.
bool goes_round(const FourCorners& corners) {
  for (std::size_t i = 0; i < 4; ++i) {
    const PicturePoint &a = corners[i], &b = corners[(i + 1) % 4], &c = corners[(i + 2) % 4];
    const double cross = (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
    if (!(cross > kLeastTurn * length(a, b) * length(b, c))) return false;
  }
  return true;
}

/// "x,y"
std::optional<PicturePoint> point_of(const std::string& text) {
  const std::vector<std::string> items = split_list(text);
  if (items.size() != 2) return std::nullopt;
  const auto x = read_number<double>(items[0]), y = read_number<double>(items[1]);
  if (!x || !y || !std::isfinite(*x) || !std::isfinite(*y)) return std::nullopt;
  return PicturePoint{*x, *y};
}

}  // namespace

FourCorners parse_corners(std::string_view text) {
  std::vector<PicturePoint> points;
  bool readable = true;
  for (const std::string& item : split_list(text, ' ')) {
    if (item.empty()) continue;
    const auto point = point_of(item);
    readable = readable && point;
    points.push_back(point.value_or(PicturePoint()));
  }
  FourCorners corners;
  if (!readable || points.size() != corners.size())
    throw UsageError("'" + std::string(text) + "' is not four corners",
                     "write them as in \"56,40 610,62 598,470 40,455\"");
  std::copy(points.begin(), points.end(), corners.begin());
  if (!goes_round(corners))
    throw UsageError("these corners do not go round clockwise, each of them outward",
                     "give top left, top right, bottom right and bottom left");
  return corners;
}

RasterShape straightened_shape(const RasterShape& picture, const FourCorners& c) {
  const auto side = [](double one, double other) {
    return static_cast<std::uint32_t>(std::clamp(std::round((one + other) / 2), 1.0, 1e6));
  };
  RasterShape shape = picture;
  shape.width = side(length(c[0], c[1]), length(c[3], c[2]));
  shape.height = side(length(c[0], c[3]), length(c[1], c[2]));
  return shape;
}

SquareMap::SquareMap(const FourCorners& corners) {
  const auto& [p0, p1, p2, p3] = corners;
  const double dx1 = p1.x - p2.x, dx2 = p3.x - p2.x, sx = p0.x - p1.x + p2.x - p3.x;
  const double dy1 = p1.y - p2.y, dy2 = p3.y - p2.y, sy = p0.y - p1.y + p2.y - p3.y;
  const double all = dx1 * dy2 - dy1 * dx2;
  g_ = (sx * dy2 - sy * dx2) / all;
  h_ = (dx1 * sy - dy1 * sx) / all;
  a_ = p1.x - p0.x + g_ * p1.x;
  b_ = p3.x - p0.x + h_ * p3.x;
  c_ = p0.x;
  d_ = p1.y - p0.y + g_ * p1.y;
  e_ = p3.y - p0.y + h_ * p3.y;
  f_ = p0.y;
}

}  // namespace chalcedony
