#include "job/tune/tune.h"

#include <map>
#include <mutex>
#include <string>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "io/file/whole_file.h"
#include "job/histogram/class_source.h"
#include "job/picture/inputs.h"
#include "job/picture/short_names.h"
#include "job/repeat/each_input.h"
#include "job/repeat/picture_run.h"
#include "job/run/results.h"
#include "job/run/selection_file.h"
#include "job/tune/framed_view.h"
#include "job/tune/tune_page.h"
#include "job/tune/tuned_picture.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

TunePageContent content_of(const std::string& title, std::vector<std::string> typed,
                           const std::string& stem, const std::vector<Channel>& channels,
                           const std::vector<CountedClass>& classes, const TuneOptions& options) {
  return {title,
          std::move(typed),
          stem,
          channels,
          options.begun,
          classes,
          selecting_options(options.shared)};
}

Json tune_each(const TuneOptions& options, const Context& context) {
  PictureRun run("tune", options.shared, context, tune_results());
  const TunedPictures pictures(options);
  const auto do_one = [&](const path& input, const Context& its_context) {
    TunedPicture one = pictures.read(input, options.view, its_context);
    if (run.results().wants("page"))
      write_text_file(run.results().path(input, "tune", "html"),
                      tune_page(content_of(one.name, {input.string()}, input.stem().string(),
                                           one.channels, one.classes, options),
                                framed(std::move(one.view), one.name)));
    return one.told;
  };
  return run.do_each(do_one);
}

/// Pictures as they were read, by their inputs.
using TunedByInput = std::map<path, TunedPicture>;

/// The page of all of them.
///
/// Errors    InputError when they have too many classes together
std::string page_of_all(const std::vector<path>& inputs, TunedByInput& read,
                        const std::vector<Channel>& channels, const TuneOptions& options) {
  constexpr std::size_t kMostClasses = 255;
  const std::vector<std::string> names = short_names(inputs);
  ClassList classes;
  std::vector<PictureBeside> beside;
  std::vector<std::string> typed;
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    TunedPicture& one = read.at(inputs[i]);
    beside.push_back({names[i], std::move(one.view), add_classes(one.classes, classes)});
    typed.push_back(inputs[i].string());
  }
  if (classes.size() > kMostClasses)
    throw InputError(
        "the pictures have " + std::to_string(classes.size()) + " classes together, more than 255",
        "tune fewer pictures at once", options.classes->string());
  return tune_page(content_of(std::to_string(inputs.size()) + " pictures", std::move(typed), "tune",
                              channels, classes_of(classes), options),
                   side_by_side(beside, channels.size()));
}

Json tune_together(const TuneOptions& options, const Context& context) {
  Results results(options.shared, context, tune_results(), ResultNames::kRun);
  Json summary = summary_frame("tune");
  const TunedPictures pictures(options);
  const std::vector<path>& inputs = options.shared.inputs;
  std::vector<PictureInfo> infos;
  std::vector<RasterShape> shapes;
  for (const path& input : inputs) {
    infos.push_back(
        open_counted(input, of_whole_picture(options.shared), without_warnings(context)).file.info);
    shapes.push_back(infos.back().shape);
  }
  const std::vector<Channel> channels =
      errors_at(inputs.front().string(), [&] { return channels_to_tune(options, infos.front()); });
  std::mutex mutex;
  TunedByInput read;
  const std::uint32_t most = seen_of_each(options.view, shapes);
  const auto do_one = [&](const path& input, const Context& its_context) {
    TunedPicture one = pictures.read(input, most, its_context, channels);
    const Json told = one.told;
    const std::lock_guard lock(mutex);
    read.insert_or_assign(input, std::move(one));
    return told;
  };
  for_each_input(options.shared, context, summary, do_one, ResultOf::kAllInputs);
  if (results.wants("page"))
    write_text_file(results.path("tune.html"), page_of_all(inputs, read, channels, options));
  results.report(summary);
  return summary;
}

}  // namespace

const std::vector<ResultKind>& tune_results() {
  static const std::vector<ResultKind> kinds{
      {"page",
       "<stem>.tune.html: a page for a browser on which limits of channels are set; it saves "
       "<stem>.mask.yaml, which mask takes with --config, or of classes <stem>.slices.yaml, which "
       "slice takes so; of all pictures on one page tune.html, which saves tune.mask.yaml or "
       "tune.slices.yaml"}};
  return kinds;
}

Json run_tune(const TuneOptions& options, const Context& context) {
  return (options.together ? tune_together : tune_each)(options, context);
}

}  // namespace chalcedony
