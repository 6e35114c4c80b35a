#include "job/assess/drawn_sample.h"

#include <optional>
#include <string>

#include "core/error.h"
#include "job/assess/draw_plan.h"

namespace chalcedony {
namespace {

/// A pass that collects pixels of all maps: `pool_of(map, drawn)` says into which of the pools one
/// goes, if any.
template <class PoolOf>
DrawnPools candidates_of(AssessedMaps& maps, std::size_t pools, const Context& context,
                         const PoolOf& pool_of) {
  DrawnPools all(pools);
  std::vector<DrawnPools> found(maps.size());
  const auto find = [&](std::size_t i) {
    const std::uint64_t first = maps.numbering().first_of(i);
    found[i] = maps[i].candidates(pools, context, [&](DrawnPixel& drawn) {
      drawn.pixel += first;
      return pool_of(i, drawn);
    });
  };
  const auto take = [&](std::size_t i) {
    append_pools(found[i], all);
    found[i] = {};
  };
  maps.for_each({.work = find, .end = take});
  return all;
}

/// The map as the place of an error; nothing when there are several.
std::string drawn_from(const AssessOptions& options) {
  return options.shared.inputs.size() == 1 ? options.shared.inputs.front().string() : "";
}

std::vector<DrawnPixel> drawn_on_grid(AssessedMaps& maps, const AssessOptions& options,
                                      const Context& context) {
  const auto pool_of = [&](std::size_t, const DrawnPixel& drawn) {
    const auto [picture, x, y] = maps.numbering().place_of(drawn.pixel);
    const bool on = lies_on_grid(options.draw, options.shared.seed, static_cast<std::uint32_t>(x),
                                 static_cast<std::uint32_t>(y));
    return on ? std::optional(std::size_t{0}) : std::nullopt;
  };
  std::vector<DrawnPixel> sample = candidates_of(maps, 1, context, pool_of).front();
  if (sample.empty())
    throw InputError("no pixel with a label lies on the grid", "make --every smaller",
                     drawn_from(options));
  return sample;
}

}  // namespace

std::vector<DrawnPixel> labelled_pixels(AssessedMaps& maps, const Context& context) {
  const auto all = [](std::size_t, const DrawnPixel&) { return std::optional(std::size_t{0}); };
  return candidates_of(maps, 1, context, all).front();
}

std::vector<DrawnPixel> drawn_sample(AssessedMaps& maps, const MatchedMaps& matched,
                                     const std::vector<std::uint64_t>& strata,
                                     const AssessOptions& options, const Context& context) {
  if (options.draw.design == SampleDesign::kGrid) return drawn_on_grid(maps, options, context);
  std::vector<std::string> rows;
  for (std::size_t r = 0; r < strata.size(); ++r) rows.push_back(matched.all.row_name(r));
  const DrawPlan plan = errors_at(
      drawn_from(options), [&] { return plan_draw(options.draw, rows, strata, context.warn); });
  return drawn_by(plan, options.shared.seed, [&](const SampleDraw& draw) {
    const auto pool_of = [&](std::size_t map, DrawnPixel& drawn) {
      drawn.hash = draw.hash_of(drawn.pixel);
      const std::size_t pool = plan.by_class ? matched.each[map].row_of(drawn.labels[kOfMap]) : 0;
      return draw.may_take(pool, drawn.hash) ? std::optional(pool) : std::nullopt;
    };
    return candidates_of(maps, plan.pools.size(), context, pool_of);
  });
}

}  // namespace chalcedony
