#include "job/learn/model_fit.h"

#include <algorithm>

#include "core/error.h"

namespace chalcedony {

std::string depth_of(const PictureInfo& info) {
  if (info.is_float()) return "float";
  return info.shape.sample == SampleType::kU16 ? "16" : "8";
}

std::string note_on_fit(const Model& model, const PictureInfo& info) {
  if (model.trained_on.empty() || model.trained_on[0].depth.empty()) return {};
  const TrainingPicture& trained = model.trained_on[0];
  const std::string depth = depth_of(info);
  const bool stored = std::any_of(model.features.begin(), model.features.end(),
                                  [](const Channel& c) { return needs_stored(c); });
  const auto kind = [](std::size_t channels, const std::string& bits) {
    return std::to_string(channels) + " channels of " + (bits == "float" ? bits : bits + " bits");
  };
  if (stored && (trained.channels != info.shape.channels || trained.depth != depth))
    throw InputError("stores " + kind(info.shape.channels, depth) +
                         ", and the model looks at stored numbers of pictures with " +
                         kind(trained.channels, trained.depth),
                     "give pictures stored alike, or train with channels of a color space");
  if (trained.depth == depth) return {};
  return "stores " + (depth == "float" ? "floats" : depth + " bits") + ", the model learned from " +
         (trained.depth == "float" ? "floats" : trained.depth + " bits") +
         "; values are the same in both";
}

}  // namespace chalcedony
