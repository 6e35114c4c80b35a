#include "job/gather/gathered_report.h"

#include <algorithm>
#include <array>
#include <string>
#include <string_view>
#include <utility>

#include "core/split_list.h"
#include "job/map/classify.h"
#include "job/map/picture_shares.h"
#include "job/picture/figures.h"
#include "job/region/tidy.h"
#include "job/run/results.h"
#include "job/select/mask.h"
#include "job/select/slice.h"
#include "job/spot/spots.h"

namespace chalcedony {
namespace {

/// How a command reports on all its pictures.
struct ReportOfAll {
  std::string_view command;
  const std::vector<ResultKind>& (*results)();
  void (*report)(Json& summary, Plot& plot, Results& results);
};

constexpr std::array kReports{ReportOfAll{"classify", classify_results, report_mapped},
                              ReportOfAll{"slice", slice_results, report_sliced},
                              ReportOfAll{"tidy", tidy_results, report_cleaned},
                              ReportOfAll{"mask", mask_results, report_selected_shares},
                              ReportOfAll{"spots", spots_results, report_spots}};

/// What a run was told of its results.
SharedOptions told_in(const Json& run, const std::filesystem::path& output) {
  SharedOptions told;
  told.command = run["command"].get<std::string>();
  told.output = output;
  const Json& options = run["options"];
  if (options.contains("write")) told.write = split_list(options["write"].get<std::string>());
  if (options.contains("figures"))
    told.figures = figure_format_named(options["figures"].get<std::string>());
  return told;
}

}  // namespace

GatheredReport report_gathered(const Json& run, const Json& pictures,
                               const std::filesystem::path& output, const Context& context) {
  GatheredReport report;
  const auto command = run["command"].get<std::string>();
  const auto found = std::find_if(kReports.begin(), kReports.end(),
                                  [&](const ReportOfAll& one) { return one.command == command; });
  if (found == kReports.end()) return report;
  const SharedOptions told = told_in(run, output);
  Context own = context;
  own.ledger = std::make_shared<RunLedger>();
  Results results(told, own, found->results(), ResultNames::kRun);
  Json summary = summary_frame(command);
  summary["inputs"] = pictures;
  Plot plot(figure_formats(results, told, own).of_all);
  found->report(summary, plot, results);
  draw_figures(plot, own);
  results.report(summary);
  for (const Json& file : summary["outputs"]) report.figures.emplace_back(file.get<std::string>());
  report.together = summary.value("together", Json());
  return report;
}

}  // namespace chalcedony
