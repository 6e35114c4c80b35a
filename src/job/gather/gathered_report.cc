#include "job/gather/gathered_report.h"

#include <algorithm>
#include <array>
#include <memory>
#include <string>
#include <string_view>
#include <utility>

#include "core/channel/derived_channel.h"
#include "core/split_list.h"
#include "job/change/changes.h"
#include "job/change/changes_of_places.h"
#include "job/histogram/apart.h"
#include "job/histogram/apart_together.h"
#include "job/histogram/compared_histograms.h"
#include "job/histogram/histogram.h"
#include "job/look/diff.h"
#include "job/map/classify.h"
#include "job/map/picture_shares.h"
#include "job/picture/figures.h"
#include "job/region/measure.h"
#include "job/region/region_counts.h"
#include "job/region/tidy.h"
#include "job/run/results.h"
#include "job/run/run_facts.h"
#include "job/select/mask.h"
#include "job/select/slice.h"
#include "job/spot/spots.h"

namespace chalcedony {
namespace {

/// A run as it was told what to do.
struct ToldRun {
  SharedOptions shared;  // as far as reports ask for it
  Json options;          // all, as the record has them
};

/// A command that reports on all its pictures.
struct Reporting {
  std::string_view command;
  const std::vector<ResultKind>& (*results)();
  ReportOfAll (*report)(const ToldRun& told, const Context& context);
};

/// A report that asks for nothing but the summaries.
template <void (*kReport)(Json& summary, Plot& plot, Results& results)>
ReportOfAll of_summaries(const ToldRun&, const Context&) {
  return kReport;
}

ReportOfAll of_histograms(const ToldRun& told, const Context& context) {
  const CountAxis counts{told.options.contains("log"), told.options.contains("shares")};
  const auto compared = std::make_shared<ComparedHistograms>(told.shared, counts, context);
  return [compared](Json& summary, Plot& plot, Results& results) {
    compared->report(summary, plot, results);
  };
}

ReportOfAll of_classes_apart(const ToldRun& told, const Context& context) {
  const auto together = std::make_shared<ApartTogether>(told.shared, context);
  return [together](Json& summary, Plot& plot, Results& results) {
    together->report(summary, plot, results);
  };
}

constexpr std::array kReporting{
    Reporting{"apart", apart_results, of_classes_apart},
    Reporting{"diff", diff_results, of_summaries<report_differences>},
    Reporting{"changes", changes_results, of_summaries<report_changes>},
    Reporting{"classify", classify_results, of_summaries<report_mapped>},
    Reporting{"slice", slice_results, of_summaries<report_sliced>},
    Reporting{"tidy", tidy_results, of_summaries<report_cleaned>},
    Reporting{"mask", mask_results, of_summaries<report_selected_shares>},
    Reporting{"measure", measure_results, of_summaries<report_region_counts>},
    Reporting{"spots", spots_results, of_summaries<report_spots>},
    Reporting{"histogram", histogram_results, of_histograms}};

ToldRun told_in(const Json& run, const std::vector<JournalEntry>& pictures,
                const std::filesystem::path& output) {
  ToldRun told{{}, run["options"]};
  SharedOptions& shared = told.shared;
  shared.command = run["command"].get<std::string>();
  shared.typed = options_asked(run["options"]);
  shared.output = output;
  if (told.options.contains("write"))
    shared.write = split_list(told.options["write"].get<std::string>());
  if (told.options.contains("figures"))
    shared.figures = figure_format_named(told.options["figures"].get<std::string>());
  if (told.options.contains("let"))
    for (const Json& text : told.options["let"])
      shared.names.derived.push_back(
          derived_channel(text.get<std::string>(), shared.names.derived));
  for (const JournalEntry& picture : pictures)
    if (!picture.outputs.empty())
      shared.below[picture.file] = picture.outputs.front().parent_path().lexically_relative(output);
  return told;
}

/// What the run said of each picture it did.
Json summaries_of(const std::vector<JournalEntry>& pictures) {
  Json summaries = Json::array();
  for (const JournalEntry& entry : pictures)
    if (entry.error.empty()) summaries.push_back(entry.summary);
  return summaries;
}

}  // namespace

GatheredReport report_gathered(const Json& run, const std::vector<JournalEntry>& pictures,
                               const std::filesystem::path& output, const Context& context) {
  GatheredReport report;
  const auto command = run["command"].get<std::string>();
  const auto found = std::find_if(kReporting.begin(), kReporting.end(),
                                  [&](const Reporting& one) { return one.command == command; });
  if (found == kReporting.end()) return report;
  const ToldRun told = told_in(run, pictures, output);
  Context own = context;
  own.ledger = std::make_shared<RunLedger>();
  Results results(told.shared, own, found->results(), ResultNames::kRun);
  Json summary = summary_frame(command);
  summary["inputs"] = summaries_of(pictures);
  end_with_report(summary, figure_formats(results, told.shared, own).of_all,
                  found->report(told, own), results, own);
  for (const Json& file : summary["outputs"]) report.files.emplace_back(file.get<std::string>());
  report.together = summary.value("together", Json());
  return report;
}

}  // namespace chalcedony
