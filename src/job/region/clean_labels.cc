#include "job/region/clean_labels.h"

#include "core/arena.h"

namespace chalcedony {

std::uint64_t differing(const LabelGrid& a, const LabelGrid& b) {
  std::uint64_t pixels = 0;
  for (std::size_t i = 0; i < a.labels.size(); ++i) pixels += a.labels[i] != b.labels[i];
  return pixels;
}

Json clean_labels(LabelGrid& grid, const LabelGrid& before, const std::vector<TidyStep>& steps,
                  const SharedOptions& options) {
  Json told = Json::array();
  const LabelGrid* start = &before;
  LabelGrid kept;
  for (const TidyStep& step : steps) {
    in_arena(options.threads, [&] { apply_step(grid, step); });
    told.push_back({{"step", step.text}, {"changed", differing(*start, grid)}});
    if (&step == &steps.back()) break;
    kept = grid;
    start = &kept;
  }
  return told;
}

std::string text_of(const std::vector<TidyStep>& steps) {
  std::string text;
  for (const TidyStep& step : steps) text += (text.empty() ? "" : "; ") + step.text;
  return text;
}

}  // namespace chalcedony
