#include "core/pixel/region.h"

#include <charconv>
#include <cmath>
#include <string>

#include "core/error.h"

namespace chalcedony {
namespace {

/// The first pixel whose center is at or past `edge`.
double first_center(double edge) { return std::ceil(edge - 0.5); }

}  // namespace

Region parse_region(std::string_view text) {
  Region region;
  region.text = text;
  std::string_view rest = text;
  if (rest.starts_with("percent:")) {
    region.percent = true;
    rest.remove_prefix(8);
  }
  const char* at = rest.data();
  const char* const last = at + rest.size();
  for (std::size_t i = 0; i < 4; ++i) {
    if (i > 0 && (at == last || *at++ != ',')) at = last + 1;
    const auto [end, error] = at <= last ? std::from_chars(at, last, region.x_y_w_h[i])
                                         : std::from_chars_result{at, std::errc::invalid_argument};
    if (error != std::errc() || !std::isfinite(region.x_y_w_h[i])) at = nullptr;
    if (!at) break;
    at = end;
  }
  if (at != last || !(region.x_y_w_h[2] > 0) || !(region.x_y_w_h[3] > 0))
    throw UsageError("'" + std::string(text) + "' is not a region",
                     "write x,y,w,h in pixels, or percent:x,y,w,h");
  return region;
}

PixelRect Region::in(std::uint32_t width, std::uint32_t height) const {
  auto [x, y, w, h] = x_y_w_h;
  if (percent) {
    x *= width / 100.0, w *= width / 100.0;
    y *= height / 100.0, h *= height / 100.0;
  }
  // Percentages of odd sizes may miss the edge by rounding.
  const double slack = percent ? 1e-6 * (width + height) : 0;
  if (x < 0 || y < 0 || x + w > width + slack || y + h > height + slack)
    throw InputError("region " + text + " reaches outside the picture, which is " +
                         std::to_string(width) + "x" + std::to_string(height),
                     "give a region inside it");
  const double x1 = first_center(x), y1 = first_center(y);
  const double x2 = std::fmin(first_center(x + w), width);
  const double y2 = std::fmin(first_center(y + h), height);
  if (x2 <= x1 || y2 <= y1)
    throw InputError("region " + text + " holds no pixel center", "make it larger");
  return {static_cast<std::uint32_t>(x1), static_cast<std::uint32_t>(y1),
          static_cast<std::uint32_t>(x2 - x1), static_cast<std::uint32_t>(y2 - y1)};
}

}  // namespace chalcedony
