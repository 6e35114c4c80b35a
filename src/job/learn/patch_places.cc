#include "job/learn/patch_places.h"

#include "core/error.h"

namespace chalcedony {

NamedSamples patches_of_input(const PatchPlaces& places, const std::vector<std::string>& names,
                              std::size_t i, CountedPicture& picture, const SharedOptions& options,
                              const Context& context) {
  if (!places.layout) return samples_of_input(places.samples, i, picture, options, context);
  const std::string from = "--layout";
  const auto patches = [&] {
    return patches_of_layout(*places.layout, names, picture.shape().width, picture.shape().height);
  };
  return {errors_at(from, patches), from};
}

}  // namespace chalcedony
