// `sheet`: a picture and its planes side by side on one page.
#ifndef CHALCEDONY_JOB_SHEET_H_
#define CHALCEDONY_JOB_SHEET_H_

#include <vector>

#include "core/color/channel.h"
#include "job/context.h"
#include "job/results.h"
#include "job/summary.h"

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

#endif  // CHALCEDONY_JOB_SHEET_H_
