#include "job/repeat/picture_run.h"

#include <algorithm>
#include <utility>

namespace chalcedony {
namespace {

bool has_figures(const std::vector<ResultKind>& kinds) {
  return std::any_of(kinds.begin(), kinds.end(),
                     [](const ResultKind& kind) { return kind.name == "figure"; });
}

}  // namespace

PictureRun::PictureRun(const std::string& command, const SharedOptions& options,
                       const Context& context, const std::vector<ResultKind>& kinds)
    : options_(options),
      context_(context),
      results_(options, context, kinds),
      summary_(summary_frame(command)) {
  if (has_figures(kinds)) figures_ = figure_formats(results_, options, context);
}

Json PictureRun::do_each(const InputWork& work, const ReportOfAll& report,
                         const PartnerFiles* partners) {
  for_each_input(options_, context_, summary_, work, ResultOf::kEachInput, partners);
  if (report)
    end_with_report(summary_, figures_.of_all, report, results_, context_);
  else
    results_.report(summary_);
  return std::move(summary_);
}

}  // namespace chalcedony
