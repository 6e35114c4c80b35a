#include "job/tune/tune.h"

#include <algorithm>
#include <string>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "io/file/whole_file.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"
#include "job/repeat/each_input.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"
#include "job/run/selection_file.h"
#include "job/tune/picture_view.h"
#include "job/tune/tune_page.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// Those that were asked for, or that people look at first, and those that are limited.
///
/// Errors    InputError when they are too many
std::vector<Channel> channels_for(const TuneOptions& options, const PictureInfo& info) {
  std::vector<Channel> channels = options.channels;
  if (channels.empty())
    channels = info.has_color() && info.color_channels() == 3 ? channels_of(spaces::kHsv)
                                                              : own_channels(info);
  for (const TunedClass& one : options.begun)
    for (const ChannelLimits& limited : one.limits)
      if (place_of(limited.channel, channels) == channels.size())
        channels.push_back(limited.channel);
  if (channels.size() > kMostTuned)
    throw InputError(
        "has " + std::to_string(channels.size()) + " channels to set limits of, more than 24",
        "name those that matter with --channels");
  return channels;
}

class TuneJob {
 public:
  TuneJob(const TuneOptions& options, const Results& results)
      : options_(options), results_(results) {
    if (options.classes)
      classes_.emplace(*options.classes, is_picture_or_samples, "reference", NameCuts::kPoints);
  }

  Json do_one(const path& input, const Context& context) const {
    CountedPicture picture = open_counted(input, options_.shared, context);
    const RasterShape shape = picture.shape();
    const std::vector<Channel> channels =
        errors_at(input.string(), [&] { return channels_for(options_, picture.file.info); });
    const path* const classes_file = classes_ ? &classes_->of(input, *context.ledger) : nullptr;
    std::optional<ClassSource> classes;
    if (classes_file) classes = open_classes(*classes_file, shape, options_.shared);
    const PictureView view = picture_view(picture, classes ? &*classes : nullptr, channels,
                                          options_.view, options_.shared, context);
    TunePageContent content{picture.name(),
                            input.string(),
                            input.stem().string(),
                            channels,
                            options_.begun,
                            {},
                            selecting_options(options_.shared)};
    if (classes) content.classes = std::move(classes->classes);
    if (results_.wants("page"))
      write_text_file(results_.path(input, "tune", "html"), tune_page(content, view));
    Json json{{"file", input.string()},   {"width", shape.width},    {"height", shape.height},
              {"every", view.step},       {"counted", view.counted}, {"kinds", view.kinds},
              {"channels", Json::array()}};
    for (const Channel& channel : channels) json["channels"].push_back(channel.name());
    if (classes_file) json["classes_from"] = classes_file->string();
    return json;
  }

 private:
  const TuneOptions& options_;
  const Results& results_;
  std::optional<PartnerFiles> classes_;
};

}  // namespace

const std::vector<ResultKind>& tune_results() {
  static const std::vector<ResultKind> kinds{
      {"page",
       "<stem>.tune.html: a page for a browser on which limits of channels are set; it saves "
       "<stem>.mask.yaml, which mask takes with --config, or of classes <stem>.slices.yaml, which "
       "slice takes so"}};
  return kinds;
}

Json run_tune(const TuneOptions& options, const Context& context) {
  Results results(options.shared, context, tune_results());
  Json summary = summary_frame("tune");
  const TuneJob job(options, results);
  for_each_input(options.shared, context, summary,
                 [&](const path& input, const Context& its) { return job.do_one(input, its); });
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
