// `outline`: pages on which a person outlines and names regions of pictures.
#ifndef CHALCEDONY_JOB_OUTLINE_OUTLINE_H_
#define CHALCEDONY_JOB_OUTLINE_OUTLINE_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <vector>

#include "core/learn/sample_shape.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct OutlineOptions {
  SharedOptions shared;
  std::optional<std::filesystem::path> samples;  // a sample file to go on from, or a folder or a
                                                 // pattern of them
  std::optional<std::filesystem::path> map;      // a class map over the picture, or a folder or a
                                                 // pattern of them
  std::vector<SampleClass> classes;              // to begin with, besides those of the map
  std::uint32_t view = 2000;                     // pixels along the longest side on the page
};

const std::vector<ResultKind>& outline_results();

/// Errors    InputError when the only picture or its samples cannot be read; OutputError
Json run_outline(const OutlineOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_OUTLINE_OUTLINE_H_
