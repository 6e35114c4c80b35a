// How far classes lie apart, for the terminal.
#ifndef CHALCEDONY_CLI_TEXT_APART_TEXT_H_
#define CHALCEDONY_CLI_TEXT_APART_TEXT_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// The channels of a picture with what classes have in common there, and the interval of each
/// class.
void print_classes_apart(const Json& picture, std::ostream& out);

/// The same of all pictures together, beside what it is in a picture by itself; nothing where the
/// summary has no `together`.
void print_classes_apart_of_all(const Json& summary, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_APART_TEXT_H_
