// The end of every text summary: what was written.
#ifndef CHALCEDONY_CLI_TEXT_OUTPUTS_TEXT_H_
#define CHALCEDONY_CLI_TEXT_OUTPUTS_TEXT_H_

#include <iosfwd>
#include <string>
#include <string_view>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// "wrote FILE" for every output.
void print_outputs(const Json& summary, std::ostream& out);

/// What to do with the first output that ends so, a file of classes by selections; nothing where
/// there is none.
void print_use_of_selections(const Json& summary, std::string_view ending, std::ostream& out);

/// Pixels that do not count, colors that were clipped and near-grays whose hue was used, each on a
/// line when there are any.
void print_left_out(const Json& picture, std::ostream& out);

/// How many percent of the pixels leave the range of what is written, if any do.
void print_cut_off(double percent, std::ostream& out);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_OUTPUTS_TEXT_H_
