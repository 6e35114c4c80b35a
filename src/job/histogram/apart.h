// `apart`: in which channels classes lie apart, and the interval that takes each.
#ifndef CHALCEDONY_JOB_HISTOGRAM_APART_H_
#define CHALCEDONY_JOB_HISTOGRAM_APART_H_

#include <cstddef>
#include <filesystem>
#include <vector>

#include "core/channel/channel.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ApartOptions {
  SharedOptions shared;
  std::filesystem::path classes;  // a file, a folder or a pattern of those that go with the inputs
  std::vector<Channel> channels;
  std::size_t bins = 100;
};

/// The most bins a channel may have here.
inline constexpr std::size_t kMostApartBins = 1024;

const std::vector<ResultKind>& apart_results();

/// Reads every input once, beside its classes; a picture that fails is listed and the others go on.
///
/// Errors    InputError when the classes of a folder or a pattern cannot be found
Json run_apart(const ApartOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_APART_H_
