// The page on which a person sets the limits of a selection.
#ifndef CHALCEDONY_JOB_TUNE_TUNE_PAGE_H_
#define CHALCEDONY_JOB_TUNE_TUNE_PAGE_H_

#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/select/channel_limits.h"
#include "job/histogram/class_source.h"
#include "job/run/context.h"
#include "job/tune/framed_view.h"
#include "job/tune/tune.h"

namespace chalcedony {

struct TunePageContent {
  std::string title;               // what the picture is called, or how many there are
  std::vector<std::string> typed;  // the inputs of a command
  std::string stem;                // of the file that the page saves
  std::vector<Channel> channels;
  std::vector<TunedClass> begun;  // to go on from; none: one without a name or limits
  std::vector<CountedClass> classes;
  std::vector<TypedOption> options;  // that mask and slice need to select the same
};

/// The picture and a histogram of each channel, whose limits are dragged or typed, or follow from
/// what is pointed at in the picture, of one selection or of several classes; the pixels and the
/// share of each of `classes` that they take; and the selections, as mask and slice take them. What
/// was set is remembered where the browser can. Of several pictures it also tells what is taken of
/// each.
std::string tune_page(const TunePageContent& content, const FramedView& pictures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_TUNE_PAGE_H_
