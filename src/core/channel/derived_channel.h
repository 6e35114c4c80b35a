// Channels that people define from others: `ndvi = (file.3 - file.0) / (file.3 + file.0)`.
#ifndef CHALCEDONY_CORE_CHANNEL_DERIVED_CHANNEL_H_
#define CHALCEDONY_CORE_CHANNEL_DERIVED_CHANNEL_H_

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/channel/channel.h"
#include "core/channel/formula.h"

namespace chalcedony {

struct DerivedChannel {
  std::string name;               // in lower case: letters, digits and _
  std::string formula;            // as written, with its range if one was given
  std::vector<Channel> channels;  // what it is computed from, each once
  std::unique_ptr<Formula> value;
  ChannelInfo info;       // without a unit
  std::string unit = {};  // the name of one all the same (quoted_channel.h)

  DerivedChannel() = default;
  DerivedChannel(const DerivedChannel&) = delete;
  DerivedChannel& operator=(const DerivedChannel&) = delete;
};

/// Reads `NAME=FORMULA` or `NAME=FORMULA in A..B`, where A to B is the usual range of its values.
/// Without it the range is worked out from those of its channels; that of a quotient whose divisor
/// may be 0 is -1 to 1. `earlier` can be used in the formula.
///
/// Errors    UsageError for a name that is no name or is taken, with the place of a mistake in the
///           formula, and for a range that is empty or cannot be worked out
std::shared_ptr<const DerivedChannel> derived_channel(std::string_view definition,
                                                      const DerivedChannels& earlier);

/// The definitions that such channels need, as derived_channel() reads them, in an order in which
/// each comes after those it uses.
std::vector<std::string> definitions_behind(const std::vector<Channel>& channels);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_DERIVED_CHANNEL_H_
