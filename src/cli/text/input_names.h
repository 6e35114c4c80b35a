// What inputs are called beside each other, for the terminal.
#ifndef CHALCEDONY_CLI_TEXT_INPUT_NAMES_H_
#define CHALCEDONY_CLI_TEXT_INPUT_NAMES_H_

#include <map>
#include <string>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// Short names of the inputs of a summary, by their files.
std::map<std::string, std::string> names_of_inputs(const Json& summary);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_INPUT_NAMES_H_
