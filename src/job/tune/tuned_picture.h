// What a page of tune has of a picture: the pixels that are seen, with channels and classes.
#ifndef CHALCEDONY_JOB_TUNE_TUNED_PICTURE_H_
#define CHALCEDONY_JOB_TUNE_TUNED_PICTURE_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "job/histogram/class_source.h"
#include "job/run/context.h"
#include "job/run/partner_files.h"
#include "job/run/summary.h"
#include "job/tune/picture_view.h"
#include "job/tune/tune.h"

namespace chalcedony {

struct TunedPicture {
  std::string name;
  std::vector<Channel> channels;
  PictureView view;
  std::vector<CountedClass> classes;  // those of the view
  Json told;                          // as summaries have it
};

/// The channels of a page of this picture: those that were asked for, or that people look at first,
/// and those that are limited.
///
/// Errors    InputError when they are too many
std::vector<Channel> channels_to_tune(const TuneOptions& options, const PictureInfo& info);

class TunedPictures {
 public:
  /// Errors    InputError when the classes of a folder or a pattern cannot be found
  explicit TunedPictures(const TuneOptions& options);

  /// At most `most` pixels along the longest side are seen; the channels are channels_to_tune()
  /// unless they are given. May be called from several threads.
  ///
  /// Errors    InputError as picture_view(), channels_to_tune() and open_classes()
  TunedPicture read(const std::filesystem::path& input, std::uint32_t most, const Context& context,
                    const std::vector<Channel>& channels = {}) const;

 private:
  const TuneOptions& options_;
  std::optional<PartnerFiles> classes_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TUNE_TUNED_PICTURE_H_
