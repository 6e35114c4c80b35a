// Where patches of a picture are: samples of a class each, or even rows.
#ifndef CHALCEDONY_JOB_LEARN_PATCH_PLACES_H_
#define CHALCEDONY_JOB_LEARN_PATCH_PLACES_H_

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

#include "core/balance/patch_layout.h"
#include "job/learn/sample_source.h"

namespace chalcedony {

/// What was given on the command line.
struct PatchPlaces {
  SampleSources samples;              // a class for each patch
  std::optional<PatchLayout> layout;  // in place of samples

  bool empty() const { return samples.empty() && !layout; }
};

/// The patches of input `i`, a class each; those of a layout have `names`, row by row.
///
/// Errors    InputError, as samples_of_input() and patches_of_layout()
NamedSamples patches_of_input(const PatchPlaces& places, const std::vector<std::string>& names,
                              std::size_t i, CountedPicture& picture, const SharedOptions& options,
                              const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LEARN_PATCH_PLACES_H_
