#include "io/space_note.h"

#include "io/number_text.h"

namespace chalcedony {

std::string space_note(const Space& space, SampleType sample) {
  std::string note(space.id);
  note += "; ";
  for (std::size_t c = 0; c < space.channel_count; ++c) {
    const ChannelInfo& channel = space.channels[c];
    note += (c ? ", " : "") + std::string(channel.name) + " " + number_text(channel.low) + ".." +
            number_text(channel.high);
  }
  if (sample == SampleType::kF32) {
    const bool unit_scale = sample_scale(space, 0, sample).factor != 1;
    return note + (unit_scale ? "; stored as 0..1" : "; stored as they are");
  }
  return note + "; stored as 0.." + number_text(full_scale_of(sample));
}

const Space* space_of_note(std::string_view note) {
  const Space* space = find_space(note.substr(0, note.find(';')));
  return space && !space->internal ? space : nullptr;
}

}  // namespace chalcedony
