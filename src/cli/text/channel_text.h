// The spaces of channels in texts, and the white that those of Lab, LCh and Luv are relative to.
#ifndef CHALCEDONY_CLI_TEXT_CHANNEL_TEXT_H_
#define CHALCEDONY_CLI_TEXT_CHANNEL_TEXT_H_

#include <ostream>
#include <string>
#include <vector>

#include "core/color/space.h"

namespace chalcedony::cli {

/// The space in the name of a channel or feature, as in `lab.l` or `mean5(lab.l)`; null for a name
/// without one.
const Space* space_in(const std::string& channel);

/// A line such as `  white of lab: D50` for the spaces of these channels; none when no space of
/// theirs has a white of its own.
void print_whites(const std::vector<std::string>& channels, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_CHANNEL_TEXT_H_
