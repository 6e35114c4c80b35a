#include "core/region/region_meter.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace chalcedony {
namespace {

/// Pixels in which [begin, end) and a run meet.
std::uint64_t overlap(std::int64_t begin, std::int64_t end, const RegionRun& run) {
  const std::int64_t first = std::max<std::int64_t>(begin, run.begin),
                     last = std::min<std::int64_t>(end, run.end);
  return last > first ? static_cast<std::uint64_t>(last - first) : 0;
}

}  // namespace

void RegionMeter::Sums::add(const RegionRun& run) {
  const double n = run.end - run.begin, middle = (double{1} * run.begin + run.end) / 2,
               row = run.y + 0.5;
  label = run.label;
  pixels += run.end - run.begin;
  ++runs;
  x += n * middle;
  y += n * row;
  xx += n * middle * middle + n * (n * n - 1) / 12;
  yy += n * row * row;
  xy += n * middle * row;
  left = std::min(left, run.begin);
  right = std::max(right, run.end);
  top = std::min(top, run.y);
  bottom = std::max(bottom, run.y + 1);
}

void RegionMeter::Sums::add_link(const RegionRun& above, const RegionRun& run) {
  const std::int64_t begin = above.begin, end = above.end;
  ++links;
  below += overlap(begin, end, run);
  falling += overlap(begin + 1, end + 1, run);
  rising += overlap(begin - 1, end - 1, run);
}

RegionMeter::Sums& RegionMeter::Sums::operator+=(const Sums& other) {
  pixels += other.pixels;
  runs += other.runs;
  links += other.links;
  x += other.x;
  y += other.y;
  xx += other.xx;
  yy += other.yy;
  xy += other.xy;
  below += other.below;
  falling += other.falling;
  rising += other.rising;
  left = std::min(left, other.left);
  right = std::max(right, other.right);
  top = std::min(top, other.top);
  bottom = std::max(bottom, other.bottom);
  return *this;
}

double diameter_of_area(double area) { return std::sqrt(4 * area / std::numbers::pi); }

RegionMeasures RegionMeter::Sums::measures(std::uint32_t picture_width,
                                           std::uint32_t picture_height) const {
  using std::numbers::pi;
  RegionMeasures out;
  out.label = label;
  out.pixels = pixels;
  const double area = static_cast<double>(pixels);
  out.center_x = x / area;
  out.center_y = y / area;
  out.left = left;
  out.top = top;
  out.width = right - left;
  out.height = bottom - top;
  out.at_edge = left == 0 || top == 0 || right == picture_width || bottom == picture_height;
  // Each line of pixels enters the region as often as it has a pixel without the one before it.
  const auto borders = [&](std::uint64_t pairs) { return 2 * static_cast<double>(pixels - pairs); };
  out.perimeter = pi / 8 *
                  (2 * static_cast<double>(runs) + borders(below) +
                   (borders(falling) + borders(rising)) / std::numbers::sqrt2);
  out.equivalent_diameter = diameter_of_area(area);
  out.roundness = std::min(1.0, 4 * pi * area / (out.perimeter * out.perimeter));
  // Every pixel is a square with a second moment of 1/12 of its own.
  const double mxx = xx / area - out.center_x * out.center_x + 1.0 / 12,
               myy = yy / area - out.center_y * out.center_y + 1.0 / 12,
               mxy = xy / area - out.center_x * out.center_y;
  const double middle = (mxx + myy) / 2, half = std::hypot((mxx - myy) / 2, mxy);
  out.major_axis = 4 * std::sqrt(std::max(0.0, middle + half));
  out.minor_axis = 4 * std::sqrt(std::max(0.0, middle - half));
  // Rows go down, angles count upwards. Rounding leaves directions to what has none.
  if (half > 1e-9 * middle) {
    const double degrees = -std::atan2(2 * mxy, mxx - myy) / 2 * 180 / pi;
    out.orientation = degrees < -1e-9 ? degrees + 180 : std::max(0.0, degrees);
  }
  // Runs and their links make one net; each of its meshes is a hole.
  out.holes = links + 1 - runs;
  return out;
}

RegionMeter::RegionMeter(std::uint32_t width, std::uint32_t height, Connectivity connectivity)
    : width_(width), height_(height), linker_(width, connectivity) {}

void RegionMeter::add_row(const Label* labels) {
  const auto& runs = linker_.add_row(labels, [&](const RegionRun& above, const RegionRun& run) {
    sums_[above.part].add_link(above, run);
  });
  sums_.resize(linker_.parts());
  for (const RegionRun& run : runs) sums_[run.part].add(run);
}

std::vector<RegionMeasures> RegionMeter::finish() {
  region_of_part_ = linker_.region_numbers();
  std::vector<Sums*> sums;
  for (std::size_t part = 0; part < sums_.size(); ++part) {
    if (region_of_part_[part] == sums.size()) {
      sums.push_back(&sums_[part]);
    } else {
      *sums[region_of_part_[part]] += sums_[part];
    }
  }
  std::vector<RegionMeasures> all;
  all.reserve(sums.size());
  for (const Sums* own : sums) all.push_back(own->measures(width_, height_));
  sums_.clear();
  return all;
}

}  // namespace chalcedony
