// The colors of spots on a picture.
#ifndef CHALCEDONY_JOB_SPOT_SPOT_COLORS_H_
#define CHALCEDONY_JOB_SPOT_SPOT_COLORS_H_

#include <array>
#include <cstdint>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/region/region_values.h"
#include "job/learn/sample_source.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// What is read of a spot.
struct SpotColor {
  std::string name;
  std::uint64_t pixels = 0;     // those that count
  double full_percent = 0;      // of them, with a channel at full scale; 0 in floats
  std::array<double, 3> lab{};  // D50, of the mean light
  std::string css;              // the same color
  double spread = 0;  // how far pixels lie from their mean in Lab: root mean square distance
  std::vector<ChannelFigures> channels;
};

/// Each class of the samples as a spot, in one pass over the picture, which gathers its preview
/// too. The mean is that of the light (XYZ), as an instrument takes it that looks at the whole
/// spot.
///
/// Errors    InputError for a spot without a pixel that counts, or that reaches outside the picture
std::vector<SpotColor> read_spots(CountedPicture& picture, const NamedSamples& spots,
                                  const std::vector<Channel>& channels, Preview& preview,
                                  const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SPOT_SPOT_COLORS_H_
