// `similar`: pictures in the order of how much their colors are like those of one picture.
#ifndef CHALCEDONY_JOB_HISTOGRAM_SIMILAR_H_
#define CHALCEDONY_JOB_HISTOGRAM_SIMILAR_H_

#include <filesystem>
#include <string>
#include <utility>
#include <vector>

#include "core/channel/channel.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What is held against each other.
enum class DescribedBy { kCube, kJoint, kChannels };

enum class HistogramDistance { kOverlap, kJensenShannon, kHellinger, kTransport };

struct SimilarOptions {
  SharedOptions shared;
  std::filesystem::path query;
  DescribedBy by = DescribedBy::kCube;
  const Space* space = &spaces::kOklab;  // of the cube
  std::vector<Channel> channels;         // two for kJoint
  std::size_t bins = 0;                  // on each side; 0: 6 for a cube, 24 for two, 64 for one
  HistogramDistance distance = HistogramDistance::kJensenShannon;
  std::string distance_name = "jensen-shannon";
};

const std::vector<ResultKind>& similar_results();

Json run_similar(const SimilarOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_SIMILAR_H_
