// `split`: the planes of a picture as gray pictures.
#ifndef CHALCEDONY_JOB_PREPARE_SPLIT_H_
#define CHALCEDONY_JOB_PREPARE_SPLIT_H_

#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct SplitOptions {
  SharedOptions shared;
  std::vector<Channel> channels;    // empty: the picture's own
  std::optional<SampleType> depth;  // not given: 8 bits for 0-255 of an 8-bit picture, else 16;
                                    // floats of a float picture
};

const std::vector<ResultKind>& split_results();

/// Every file says in a note which plane it holds and how it is scaled.
Json run_split(const SplitOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_SPLIT_H_
