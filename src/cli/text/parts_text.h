// How many regions there are when they are parted at their necks, as text.
#ifndef CHALCEDONY_CLI_TEXT_PARTS_TEXT_H_
#define CHALCEDONY_CLI_TEXT_PARTS_TEXT_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// The `parts` of `classes` and the steps that make them, as measure tells them of a picture or of
/// all; nothing where it was not asked.
void print_parts(const Json& told, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_PARTS_TEXT_H_
