// A picture as it is seen, made smaller.
#ifndef CHALCEDONY_JOB_PICTURE_REDUCED_PICTURE_H_
#define CHALCEDONY_JOB_PICTURE_REDUCED_PICTURE_H_

#include <cstdint>

#include "core/pixel/thumbnail.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// The whole picture, at most `most_width` x `most_height` pixels and never larger than it is, in
/// one pass over it. Pixels that do not count are shown faded.
///
/// Errors    InputError when it is damaged
Thumbnail reduced_picture(CountedPicture& picture, const SharedOptions& options,
                          const Context& context, std::uint32_t most_width,
                          std::uint32_t most_height);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_REDUCED_PICTURE_H_
