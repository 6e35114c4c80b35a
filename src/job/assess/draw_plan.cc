#include "job/assess/draw_plan.h"

#include <algorithm>
#include <cmath>
#include <numeric>

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

void take_given(const DrawDesign& design, const std::vector<std::string>& classes, DrawPlan& plan) {
  plan.wanted.resize(classes.size());
  for (const auto& [name, number] : design.given) {
    const auto at = std::find(classes.begin(), classes.end(), name);
    if (at == classes.end())
      throw InputError("--stratified: the map has no class '" + name + "'",
                       suggest_name(name, classes));
    const auto s = static_cast<std::size_t>(at - classes.begin());
    plan.asked += number;
    plan.wanted[s] = std::min(number, plan.pools[s]);
  }
}

}  // namespace

std::uint64_t DrawPlan::total() const { return sum(wanted); }

DrawPlan plan_draw(const DrawDesign& design, const std::vector<std::string>& classes,
                   const Numbers& pixels, const std::function<void(const std::string&)>& warn) {
  const std::uint64_t all = sum(pixels);
  DrawPlan plan{design.design != SampleDesign::kRandom, pixels, {}, design.count};
  if (design.count == 0 && design.design != SampleDesign::kGiven)
    plan.asked = std::max<std::uint64_t>(
        1, static_cast<std::uint64_t>(std::llround(design.fraction * static_cast<double>(all))));
  if (design.design == SampleDesign::kGiven) {
    take_given(design, classes, plan);
  } else if (design.design == SampleDesign::kEqual) {
    plan.wanted = equal_of_filled(plan.asked, pixels);
  } else if (design.design == SampleDesign::kProportional) {
    plan.wanted = proportional_allocation(plan.asked, pixels);
  } else {
    plan.pools = {all};
    plan.wanted = {std::min(plan.asked, all)};
  }
  if (plan.total() == 0)
    throw InputError("no pixel would be drawn", "ask for more pixels, or of other classes");
  if (plan.total() < plan.asked)
    warn("only " + std::to_string(plan.total()) + " of " + std::to_string(plan.asked) +
         " pixels can be drawn: some classes have no more");
  return plan;
}

}  // namespace chalcedony
