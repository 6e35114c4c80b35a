// Shares of several pictures together, for the terminal.
#ifndef CHALCEDONY_CLI_TEXT_SHARES_TEXT_H_
#define CHALCEDONY_CLI_TEXT_SHARES_TEXT_H_

#include <iosfwd>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// The classes of a picture or of several as rows of a table; what is of none of them is the last
/// row where there is some.
Json class_rows(const Json& shares);

/// Pixels and shares of the classes of a picture or of several, and their areas where the size of a
/// pixel is known (`unit`).
void print_class_shares(const Json& shares, std::ostream& out);

/// The classes of all pictures together, with the lowest and the highest share of each in a
/// picture; nothing where the summary has no `together`.
void print_class_shares_of_all(const Json& summary, std::ostream& out);

/// How many regions each class has in all pictures together, and the fewest and the most in one.
void print_region_counts_of_all(const Json& summary, std::ostream& out);

/// The same of what is selected, as a sentence.
void print_selected_shares_of_all(const Json& summary, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_SHARES_TEXT_H_
