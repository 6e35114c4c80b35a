#include "job/region/clean_labels.h"

#include "core/arena.h"
#include "core/error.h"
#include "core/tidy/apply_step.h"

namespace chalcedony {
namespace {

/// The numbers of the classes that a step names.
std::vector<Label> labels_of(const TidyStep& step, const std::vector<LegendEntry>& classes) {
  std::vector<Label> labels;
  try {
    for (const std::string& name : step.classes) {
      const std::vector<Label> named = labels_named(classes, name);
      labels.insert(labels.end(), named.begin(), named.end());
    }
  } catch (const InputError& error) {
    throw InputError(error.problem() + " for the step '" + step.text + "'", error.remedy());
  }
  return labels;
}

}  // namespace

std::uint64_t differing(const LabelGrid& a, const LabelGrid& b) {
  std::uint64_t pixels = 0;
  for (std::size_t i = 0; i < a.labels.size(); ++i) pixels += a.labels[i] != b.labels[i];
  return pixels;
}

Json clean_labels(LabelGrid& grid, const LabelGrid& before, const std::vector<LegendEntry>& classes,
                  const std::vector<TidyStep>& steps, const SharedOptions& options) {
  std::vector<std::vector<Label>> labels;
  for (const TidyStep& step : steps) labels.push_back(labels_of(step, classes));
  Json told = Json::array();
  const LabelGrid* start = &before;
  LabelGrid kept;
  for (std::size_t s = 0; s < steps.size(); ++s) {
    in_arena(options.threads, [&] { apply_step(grid, steps[s], labels[s]); });
    told.push_back({{"step", steps[s].text}, {"changed", differing(*start, grid)}});
    if (s + 1 == steps.size()) break;
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
