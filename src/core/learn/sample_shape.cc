// Polygons are filled by scanlines through the pixel centers: an edge counts for the rows whose
// centers lie in [y1, y2), so a center on an edge belongs to the shape on its right or below.
#include "core/learn/sample_shape.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

struct RowRun {
  std::uint32_t row, begin, end;
};

void check_inside(const Position& p, std::uint32_t width, std::uint32_t height,
                  const std::string& name) {
  if (!(p.x >= 0 && p.y >= 0 && p.x <= width && p.y <= height))
    throw InputError("a sample of class '" + name + "' reaches outside the picture, which is " +
                         std::to_string(width) + "x" + std::to_string(height),
                     "draw it inside, or use the samples that belong to this picture");
}

/// First pixel of a row whose center is at or right of x.
std::uint32_t first_pixel(double x, std::uint32_t width) {
  return static_cast<std::uint32_t>(std::clamp(std::ceil(x - 0.5), 0.0, double{1} * width));
}

std::vector<RowRun> polygon_runs(const SampleShape& shape, std::uint32_t width,
                                 std::uint32_t height) {
  double top = height, bottom = 0;
  for (const auto& ring : shape.rings)
    for (const Position& p : ring) top = std::min(top, p.y), bottom = std::max(bottom, p.y);
  std::vector<RowRun> runs;
  std::vector<double> crossings;
  for (std::uint32_t row = first_pixel(top, height); row < height && row + 0.5 < bottom; ++row) {
    find_crossings(shape.rings, row + 0.5, crossings);
    for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
      const std::uint32_t begin = first_pixel(crossings[i], width);
      const std::uint32_t end = first_pixel(crossings[i + 1], width);
      if (begin < end) runs.push_back({row, begin, end});
    }
  }
  return runs;
}

std::vector<RowRun> disk_runs(const SampleShape& shape, std::uint32_t width, std::uint32_t height) {
  const Position& p = shape.point;
  if (shape.radius <= 0) {
    const auto x = std::min(static_cast<std::uint32_t>(p.x), width - 1);
    const auto y = std::min(static_cast<std::uint32_t>(p.y), height - 1);
    return {{y, x, x + 1}};
  }
  std::vector<RowRun> runs;
  const std::uint32_t last = first_pixel(p.y + shape.radius + 1, height);
  for (std::uint32_t row = first_pixel(p.y - shape.radius, height); row < last; ++row) {
    const double dy = row + 0.5 - p.y;
    const double room = shape.radius * shape.radius - dy * dy;
    if (room < 0) continue;
    const double half = std::sqrt(room);
    const std::uint32_t begin = first_pixel(p.x - half, width);
    const double last_center = std::floor(p.x + half - 0.5);  // a disk holds its edge
    const auto end =
        static_cast<std::uint32_t>(std::clamp(last_center + 1, 0.0, double{1} * width));
    if (begin < end) runs.push_back({row, begin, end});
  }
  return runs;
}

/// Joins runs of one class that overlap, so that each pixel counts once. Runs that only touch stay
/// apart: no run crosses the end of a row.
void join_overlaps(std::vector<SampleRun>& runs) {
  std::sort(runs.begin(), runs.end(), [](const SampleRun& a, const SampleRun& b) {
    return std::pair(a.sample_class, a.begin) < std::pair(b.sample_class, b.begin);
  });
  std::vector<SampleRun> joined;
  for (const SampleRun& run : runs) {
    const bool extends = !joined.empty() && joined.back().sample_class == run.sample_class &&
                         run.begin < joined.back().end;
    if (extends) {
      joined.back().end = std::max(joined.back().end, run.end);
    } else {
      joined.push_back(run);
    }
  }
  runs = std::move(joined);
}

}  // namespace

void find_crossings(const std::vector<std::vector<Position>>& rings, double y,
                    std::vector<double>& crossings) {
  crossings.clear();
  for (const auto& ring : rings)
    for (std::size_t i = 0; i < ring.size(); ++i) {
      const Position &a = ring[i], &b = ring[(i + 1) % ring.size()];
      if ((a.y <= y) == (b.y <= y)) continue;
      crossings.push_back(a.x + (y - a.y) * (b.x - a.x) / (b.y - a.y));
    }
  std::sort(crossings.begin(), crossings.end());
}

std::vector<Position> rectangle_ring(double left, double top, double width, double height) {
  const double right = left + width, bottom = top + height;
  return {{left, top}, {right, top}, {right, bottom}, {left, bottom}, {left, top}};
}

std::size_t SampleSet::class_named(const std::string& name) {
  const auto found = std::find_if(classes.begin(), classes.end(),
                                  [&](const SampleClass& c) { return c.name == name; });
  const auto index = static_cast<std::size_t>(found - classes.begin());
  if (found == classes.end()) classes.push_back({name, ""});
  return index;
}

void SampleSet::add(const SampleSet& more) {
  std::vector<std::size_t> class_of;
  for (const SampleClass& c : more.classes) {
    class_of.push_back(class_named(c.name));
    std::string& color = classes[class_of.back()].color;
    if (color.empty()) color = c.color;
  }
  for (SampleShape shape : more.shapes) {
    shape.sample_class = class_of[shape.sample_class];
    shapes.push_back(std::move(shape));
  }
}

SampleSet samples_of_classes(SampleSet samples, const std::vector<std::string>& names) {
  std::vector<std::string> known;
  for (const SampleClass& c : samples.classes) known.push_back(c.name);
  for (const std::string& name : names)
    if (std::find(known.begin(), known.end(), name) == known.end())
      throw InputError("has no samples of the class '" + name + "'", suggest_name(name, known));
  std::erase_if(samples.shapes, [&](const SampleShape& shape) {
    return std::find(names.begin(), names.end(), known[shape.sample_class]) == names.end();
  });
  return samples;
}

SampleSet rescaled(SampleSet samples, const DrawnSize& from, const DrawnSize& to) {
  // Multiplied first: what lies on the far edge does so afterwards.
  const auto move = [&](Position& p) {
    p = {p.x * to.width / from.width, p.y * to.height / from.height};
  };
  const double growth = std::sqrt(to.width / from.width * (to.height / from.height));
  for (SampleShape& shape : samples.shapes) {
    for (auto& ring : shape.rings) std::for_each(ring.begin(), ring.end(), move);
    move(shape.point);
    shape.radius *= growth;
  }
  return samples;
}

std::vector<SampleRun> sample_runs(const SampleSet& samples, std::uint32_t width,
                                   std::uint32_t height) {
  std::vector<SampleRun> runs;
  for (const SampleShape& shape : samples.shapes) {
    const std::string& name = samples.classes[shape.sample_class].name;
    for (const auto& ring : shape.rings)
      for (const Position& p : ring) check_inside(p, width, height, name);
    if (shape.rings.empty()) check_inside(shape.point, width, height, name);
    for (const RowRun& run : shape.rings.empty() ? disk_runs(shape, width, height)
                                                 : polygon_runs(shape, width, height)) {
      const std::uint64_t row_start = std::uint64_t{run.row} * width;
      runs.push_back({row_start + run.begin, row_start + run.end, shape.sample_class});
    }
  }
  join_overlaps(runs);
  std::sort(runs.begin(), runs.end(), [](const SampleRun& a, const SampleRun& b) {
    return std::pair(a.begin, a.sample_class) < std::pair(b.begin, b.sample_class);
  });
  return runs;
}

Mask mask_of(const std::vector<SampleRun>& runs, std::uint32_t width, std::uint32_t height) {
  Mask mask(width, height);
  for (const SampleRun& run : runs)
    for (std::uint64_t pixel = run.begin; pixel < run.end; ++pixel) mask.set(pixel);
  return mask;
}

std::vector<SharedPixels> pixels_shared_by_pairs(const std::vector<SampleRun>& runs) {
  std::map<std::pair<std::size_t, std::size_t>, std::uint64_t> found;
  std::vector<SampleRun> open;  // runs that may reach into the next ones
  for (const SampleRun& run : runs) {
    std::erase_if(open, [&](const SampleRun& before) { return before.end <= run.begin; });
    for (const SampleRun& before : open)
      found[std::minmax(before.sample_class, run.sample_class)] +=
          std::min(before.end, run.end) - run.begin;
    open.push_back(run);
  }
  std::vector<SharedPixels> out;
  for (const auto& [pair, pixels] : found) out.push_back({pair.first, pair.second, pixels});
  return out;
}

std::vector<std::size_t> repeated_shapes(const SampleSet& samples) {
  std::vector<std::size_t> repeats(samples.classes.size());
  std::set<SampleShape> seen;
  for (const SampleShape& shape : samples.shapes)
    if (!seen.insert(shape).second) ++repeats[shape.sample_class];
  return repeats;
}

std::uint64_t shared_pixels(const std::vector<SampleRun>& runs) {
  std::uint64_t shared = 0, covered_to = 0;
  for (const SampleRun& run : runs) {
    if (run.begin < covered_to) shared += std::min(covered_to, run.end) - run.begin;
    covered_to = std::max(covered_to, run.end);
  }
  return shared;
}

}  // namespace chalcedony
