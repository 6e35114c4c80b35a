// Selections that are found instead of written: from samples, or from a threshold.
#ifndef CHALCEDONY_JOB_SELECT_DERIVED_SELECTION_H_
#define CHALCEDONY_JOB_SELECT_DERIVED_SELECTION_H_

#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "job/picture/inputs.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

enum class LikeBy { kRanges, kGaussian };

struct LikeOptions {
  /// Places on the inputs, see places_of_inputs(): `x,y`, `x,y,radius`, `x,y,w,h`, FILE.geojson or
  /// FILE.geojson:CLASS.
  std::vector<std::string> like, unlike;
  std::vector<Channel> channels;  // empty: lab
  LikeBy by = LikeBy::kRanges;
  double coverage = 98;  // percent of the samples
};

/// A selection as text for the selection language, and what is known of it.
struct DerivedSelection {
  std::string where;
  Json facts;
};

/// The selection that takes what is like the samples on the inputs. The rows of the first one are
/// ready for the next pass then.
///
/// Errors    UsageError for samples that are none; InputError for samples outside their picture, no
///           counted pixel in them, a hue in a Gaussian; as places_of_inputs()
DerivedSelection like_selection(CountedPicture& first, const LikeOptions& like,
                                const SharedOptions& options, const Context& context);

/// The selection of the pixels above the threshold that parts a channel best. The picture's rows
/// are ready for the next pass then.
///
/// Errors    InputError when the counted pixels have one value only
DerivedSelection auto_selection(CountedPicture& picture, const Channel& channel,
                                const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_DERIVED_SELECTION_H_
