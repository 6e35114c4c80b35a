// A run that makes results of each of its pictures, and then tells of all of them.
#ifndef CHALCEDONY_JOB_REPEAT_PICTURE_RUN_H_
#define CHALCEDONY_JOB_REPEAT_PICTURE_RUN_H_

#include <string>
#include <vector>

#include "job/picture/figures.h"
#include "job/repeat/each_input.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Begun with what is told and where it goes, and ended by do_each().
class PictureRun {
 public:
  /// `kinds` are what the command can write. The options must outlive the run.
  ///
  /// Errors    as Results
  PictureRun(const std::string& command, const SharedOptions& options, const Context& context,
             const std::vector<ResultKind>& kinds);

  Results& results() { return results_; }
  /// How the figures of each picture are drawn, and those of all of them: not at all where the
  /// command has none, or they are not wanted.
  const FigureFormats& figures() const { return figures_; }
  /// What is told of the run, beside what is told of each picture.
  Json& summary() { return summary_; }

  /// Does `work` for each picture as for_each_input() does, lets `report` tell of all of them, and
  /// returns the summary. May be called once.
  ///
  /// Errors    as for_each_input()
  Json do_each(const InputWork& work, const ReportOfAll& report = {},
               const PartnerFiles* partners = nullptr);

 private:
  const SharedOptions& options_;
  const Context& context_;
  Results results_;
  FigureFormats figures_;
  Json summary_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPEAT_PICTURE_RUN_H_
