#include "io/metadata/space_note.h"

#include "core/error.h"
#include "io/text/number_text.h"

namespace chalcedony {

namespace {

constexpr std::string_view kPlane = "plane ";

std::string range_text(const ChannelInfo& channel) {
  return number_text(channel.low) + ".." + number_text(channel.high);
}

/// How the samples of a channel are stored.
std::string storage_text(const ChannelInfo& channel, SampleType sample) {
  if (sample == SampleType::kF32)
    return channel.unit == Unit::kOf255 ? "; stored as 0..1" : "; stored as they are";
  return "; stored as 0.." + number_text(full_scale_of(sample));
}

}  // namespace

std::string space_note(const Space& space, SampleType sample) {
  std::string note(space.id);
  note += "; ";
  for (std::size_t c = 0; c < space.channel_count; ++c)
    note +=
        (c ? ", " : "") + std::string(space.channels[c].name) + " " + range_text(space.channels[c]);
  return note + storage_text(space.channels[0], sample);
}

std::string plane_note(const Channel& plane, SampleType sample) {
  return std::string(kPlane) + plane.name() + "; " + range_text(plane.info()) +
         storage_text(plane.info(), sample);
}

std::optional<Channel> plane_of_note(std::string_view note) {
  if (!note.starts_with(kPlane)) return std::nullopt;
  note.remove_prefix(kPlane.size());
  try {
    return channel_named(note.substr(0, note.find(';')));
  } catch (const UsageError&) {
    return std::nullopt;  // a plane of a later version
  }
}

const Space* space_of_note(std::string_view note) {
  const Space* space = find_space(note.substr(0, note.find(';')));
  return space && !space->internal ? space : nullptr;
}

}  // namespace chalcedony
