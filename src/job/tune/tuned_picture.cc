#include "job/tune/tuned_picture.h"

#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "job/picture/inputs.h"

namespace chalcedony {

using std::filesystem::path;

std::vector<Channel> channels_to_tune(const TuneOptions& options, const PictureInfo& info) {
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

TunedPictures::TunedPictures(const TuneOptions& options) : options_(options) {
  if (options.classes)
    classes_.emplace(*options.classes, is_picture_or_samples, "reference", NameCuts::kPoints);
}

TunedPicture TunedPictures::read(const path& input, std::uint32_t most, const Context& context,
                                 const std::vector<Channel>& channels) const {
  CountedPicture picture = open_counted(input, options_.shared, context);
  const RasterShape shape = picture.shape();
  TunedPicture tuned{picture.name(), channels, PictureView(0), {}, {}};
  if (channels.empty())
    tuned.channels =
        errors_at(input.string(), [&] { return channels_to_tune(options_, picture.file.info); });
  const path* const classes_file = classes_ ? &classes_->of(input, *context.ledger) : nullptr;
  std::optional<ClassSource> classes;
  if (classes_file) classes = open_classes(*classes_file, shape, options_.shared);
  tuned.view = picture_view(picture, classes ? &*classes : nullptr, tuned.channels, most,
                            options_.shared, context);
  if (classes) tuned.classes = std::move(classes->classes);
  tuned.told = {{"file", input.string()},        {"width", shape.width},
                {"height", shape.height},        {"every", tuned.view.step},
                {"counted", tuned.view.counted}, {"kinds", tuned.view.kinds.size()},
                {"channels", Json::array()}};
  for (const Channel& channel : tuned.channels) tuned.told["channels"].push_back(channel.name());
  if (classes_file) tuned.told["classes_from"] = classes_file->string();
  return tuned;
}

}  // namespace chalcedony
