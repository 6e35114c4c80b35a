#include "job/assess/draw_plan.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/assess/sample_draw.h"
#include "core/error.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

using Numbers = std::vector<std::uint64_t>;

std::uint64_t sum(const Numbers& numbers) {
  return std::accumulate(numbers.begin(), numbers.end(), std::uint64_t{0});
}

/// The same to each class, but nothing to those without pixels.
Numbers equal_of_filled(std::uint64_t total, const Numbers& pixels) {
  Numbers filled, wanted(pixels.size());
  for (const std::uint64_t n : pixels)
    if (n > 0) filled.push_back(n);
  const Numbers shared = equal_allocation(total, filled);
  for (std::size_t s = 0, f = 0; s < pixels.size(); ++s)
    if (pixels[s] > 0) wanted[s] = shared[f++];
  return wanted;
}

void take_given(const AssessOptions& options, const std::vector<std::string>& rows,
                DrawPlan& plan) {
  plan.wanted.resize(rows.size());
  for (const auto& [name, number] : options.given) {
    const auto at = std::find(rows.begin(), rows.end(), name);
    if (at == rows.end())
      throw InputError("--stratified: the map has no class '" + name + "'",
                       suggest_name(name, rows), drawn_from(options));
    const auto s = static_cast<std::size_t>(at - rows.begin());
    plan.asked += number;
    plan.wanted[s] = std::min(number, plan.pools[s]);
  }
}

}  // namespace

std::uint64_t DrawPlan::total() const { return sum(wanted); }

DrawPlan plan_draw(const AssessOptions& options, const std::vector<std::string>& rows,
                   const Numbers& pixels) {
  const std::uint64_t all = sum(pixels);
  DrawPlan plan{options.design != SampleDesign::kRandom, pixels, {}, options.count};
  if (options.design == SampleDesign::kGiven) {
    take_given(options, rows, plan);
    return plan;
  }
  if (options.count == 0)
    plan.asked = std::max<std::uint64_t>(
        1, static_cast<std::uint64_t>(std::llround(options.fraction * static_cast<double>(all))));
  if (options.design == SampleDesign::kEqual) {
    plan.wanted = equal_of_filled(plan.asked, pixels);
  } else if (options.design == SampleDesign::kProportional) {
    plan.wanted = proportional_allocation(plan.asked, pixels);
  } else {
    plan.pools = {all};
    plan.wanted = {std::min(plan.asked, all)};
  }
  return plan;
}

}  // namespace chalcedony
