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

/// A command that reports on all its pictures.
struct Reporting {
  std::string_view command;
  const std::vector<ResultKind>& (*results)();
  void (*report)(Json& summary, Plot& plot, Results& results);
};

constexpr std::array kReporting{Reporting{"classify", classify_results, report_mapped},
                                Reporting{"slice", slice_results, report_sliced},
                                Reporting{"tidy", tidy_results, report_cleaned},
                                Reporting{"mask", mask_results, report_selected_shares},
                                Reporting{"spots", spots_results, report_spots}};

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
  const auto found = std::find_if(kReporting.begin(), kReporting.end(),
                                  [&](const Reporting& one) { return one.command == command; });
  if (found == kReporting.end()) return report;
  const SharedOptions told = told_in(run, output);
  Context own = context;
  own.ledger = std::make_shared<RunLedger>();
  Results results(told, own, found->results(), ResultNames::kRun);
  Json summary = summary_frame(command);
  summary["inputs"] = pictures;
  end_with_report(summary, figure_formats(results, told, own).of_all, found->report, results, own);
  for (const Json& file : summary["outputs"]) report.figures.emplace_back(file.get<std::string>());
  report.together = summary.value("together", Json());
  return report;
}

}  // namespace chalcedony
