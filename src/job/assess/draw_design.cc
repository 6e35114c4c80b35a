#include "job/assess/draw_design.h"

#include "core/pixel/pixel_hash.h"

namespace chalcedony {

std::string DrawDesign::name() const {
  switch (design) {
    case SampleDesign::kAll:
      return "all";
    case SampleDesign::kRandom:
      return "random";
    case SampleDesign::kEqual:
      return "stratified equal";
    case SampleDesign::kProportional:
      return "stratified proportional";
    case SampleDesign::kGiven:
      return "stratified as given";
    case SampleDesign::kGrid:
      return "grid every " + std::to_string(every);
  }
  return "";
}

bool lies_on_grid(const DrawDesign& design, std::uint64_t seed, std::uint32_t x, std::uint32_t y) {
  const std::uint64_t start = mixed_bits(seed), every = design.every;
  return x % every == start % every && y % every == (start >> 32) % every;
}

}  // namespace chalcedony
