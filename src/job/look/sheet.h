// `sheet`: a picture and its planes side by side on one page.
#ifndef CHALCEDONY_JOB_LOOK_SHEET_H_
#define CHALCEDONY_JOB_LOOK_SHEET_H_

#include <vector>

#include "core/channel/channel.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

struct SheetOptions {
  SharedOptions shared;
  std::vector<Channel> channels;  // empty: the picture's own
  bool tint = false;              // planes in the color they stand for, not in gray
  bool stretch_view = false;      // each plane from its own 1 % to its own 99 %, for looking only
};

const std::vector<ResultKind>& sheet_results();

Json run_sheet(const SheetOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_LOOK_SHEET_H_
