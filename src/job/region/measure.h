// `measure`: the connected regions of masks and class maps, as tables and outlines.
#ifndef CHALCEDONY_JOB_REGION_MEASURE_H_
#define CHALCEDONY_JOB_REGION_MEASURE_H_

#include <filesystem>
#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/run_linker.h"
#include "job/picture/pixel_size.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct MeasureOptions {
  SharedOptions shared;
  Connectivity connectivity = Connectivity::kEight;
  std::optional<std::filesystem::path> image;  // of the size of every input, or a folder of those
                                               // that the inputs are named after
  std::vector<Channel> channels;               // of the image
  std::optional<std::filesystem::path> map;    // likewise: its classes are counted in every region
  PixelSize pixel_size;
  bool outlines = false;
  bool parts = false;    // how many regions there are when they are parted at their necks
  bool numbers = false;  // a picture of region numbers
};

const std::vector<ResultKind>& measure_results();

Json run_measure(const MeasureOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REGION_MEASURE_H_
