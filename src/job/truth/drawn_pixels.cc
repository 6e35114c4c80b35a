#include "job/truth/drawn_pixels.h"

#include <cstddef>

#include "core/assess/sample_draw.h"
#include "core/error.h"
#include "core/pixel/counting.h"
#include "io/picture/label_picture.h"
#include "job/assess/draw_plan.h"
#include "job/map/class_shares.h"
#include "job/picture/inputs.h"

namespace chalcedony {
namespace {

/// A map whose pixels are looked at from the top down, as often as need be.
class CountedMap {
 public:
  CountedMap(LabelFile& map, const SharedOptions& options, const Context& context)
      : map_(map),
        stop_(context.stop),
        width_(map.rows->shape().width),
        counting_(counting_for(options, map.path, width_, map.rows->shape().height, context)) {}

  /// Calls `use(pixel, label)` for those that count.
  template <class Use>
  void for_each_pixel(const Use& use) {
    map_.rows->rewind();
    LabelRows rows(map_);
    const std::uint32_t height = map_.rows->shape().height;
    for (std::uint32_t y = 0; y < height; ++y) {
      if (stop_ && *stop_) throw Interrupted();
      const Label* const row = rows.next();
      for (std::uint32_t x = 0; x < width_; ++x) {
        const std::uint64_t pixel = std::uint64_t{y} * width_ + x;
        if (counting_.place(x, y, pixel) == PlaceCounts::kYes) use(pixel, row[x]);
      }
    }
  }

  std::uint32_t x_of(std::uint64_t pixel) const {
    return static_cast<std::uint32_t>(pixel % width_);
  }
  std::uint32_t y_of(std::uint64_t pixel) const {
    return static_cast<std::uint32_t>(pixel / width_);
  }

 private:
  LabelFile& map_;
  const std::atomic<bool>* stop_;
  std::uint32_t width_;
  Counting counting_;
};

/// The classes with the pixels that can be drawn of each.
std::vector<Stratum> strata_of(CountedMap& pixels, const LabelFile& map) {
  std::vector<std::uint64_t> counts(kLabels);
  pixels.for_each_pixel([&](std::uint64_t, Label label) { ++counts[label]; });
  std::vector<Label> found;
  for (std::size_t label = 1; label < kLabels; ++label)
    if (counts[label] > 0) found.push_back(static_cast<Label>(label));
  if (!found.empty()) check_listed(map, found.back());
  const FoundClasses told = classes_found(map, found);
  if (!found.empty() && told.is_mask)
    throw InputError("is a mask, which has one class only", "give a class map", map.path.string());
  std::vector<Stratum> strata;
  if (!told.is_mask)
    for (const LegendEntry& entry : told.classes) strata.push_back({entry, counts[entry.index]});
  strata.push_back({{0, "unclassified", kUnclassifiedColor}, counts[0]});
  return strata;
}

/// The place of each label among the strata.
std::vector<std::size_t> places_of(const std::vector<Stratum>& strata) {
  std::vector<std::size_t> places(kLabels, strata.size() - 1);
  for (std::size_t s = 0; s + 1 < strata.size(); ++s) places[strata[s].entry.index] = s;
  return places;
}

std::vector<DrawnPixel> drawn_at_random(CountedMap& pixels, const std::vector<Stratum>& strata,
                                        const DrawDesign& design, std::uint64_t seed,
                                        const Context& context) {
  std::vector<std::string> names;
  std::vector<std::uint64_t> counts;
  for (const Stratum& stratum : strata) {
    names.push_back(stratum.entry.name);
    counts.push_back(stratum.pixels);
  }
  const DrawPlan plan = plan_draw(design, names, counts, context.warn);
  const std::vector<std::size_t> places = places_of(strata);
  return drawn_by(plan, seed, [&](const SampleDraw& draw) {
    std::vector<std::vector<DrawnPixel>> candidates(plan.pools.size());
    pixels.for_each_pixel([&](std::uint64_t pixel, Label label) {
      const std::uint64_t hash = draw.hash_of(pixel);
      const std::size_t pool = plan.by_class ? places[label] : 0;
      if (draw.may_take(pool, hash)) candidates[pool].push_back({hash, pixel, Labels(label, 0)});
    });
    return candidates;
  });
}

std::vector<DrawnPixel> drawn_in_rows(CountedMap& pixels, const DrawDesign& design,
                                      std::uint64_t seed) {
  std::vector<DrawnPixel> drawn;
  pixels.for_each_pixel([&](std::uint64_t pixel, Label label) {
    if (lies_on_grid(design, seed, pixels.x_of(pixel), pixels.y_of(pixel)))
      drawn.push_back({0, pixel, Labels(label, 0)});
  });
  if (drawn.empty())
    throw InputError("no pixel that counts lies on the grid", "make --every smaller");
  return drawn;
}

TruthDrawn way_of(const DrawDesign& design) {
  if (design.design == SampleDesign::kGrid) return TruthDrawn::kGrid;
  return design.design == SampleDesign::kRandom ? TruthDrawn::kRandom : TruthDrawn::kStratified;
}

}  // namespace

DrawnPixels draw_pixels(LabelFile& map, const DrawDesign& design, const SharedOptions& options,
                        const Context& context) {
  CountedMap pixels(map, options, context);
  DrawnPixels out{strata_of(pixels, map), {way_of(design), {}}};
  const std::vector<DrawnPixel> drawn = errors_at(map.path.string(), [&] {
    return design.design == SampleDesign::kGrid
               ? drawn_in_rows(pixels, design, options.seed)
               : drawn_at_random(pixels, out.strata, design, options.seed, context);
  });
  const std::vector<std::size_t> places = places_of(out.strata);
  for (const DrawnPixel& one : drawn) {
    const Label label = one.labels[kOfMap];
    ++out.strata[places[label]].drawn;
    TruthPixel pixel{pixels.x_of(one.pixel), pixels.y_of(one.pixel)};
    if (out.table.drawn == TruthDrawn::kStratified) pixel.stratum = label;
    out.table.pixels.push_back(std::move(pixel));
  }
  return out;
}

}  // namespace chalcedony
