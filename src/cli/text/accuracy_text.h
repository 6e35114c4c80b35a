// Accuracies as text.
#ifndef CHALCEDONY_CLI_TEXT_ACCURACY_TEXT_H_
#define CHALCEDONY_CLI_TEXT_ACCURACY_TEXT_H_

#include <string>

#include "job/run/summary.h"

namespace chalcedony::cli {

/// A share as "93.4 %"; empty when the field is not there.
std::string share_text(const Json& json, const char* field);

/// A field with its interval: "93.4 % (92.1 to 94.6)" where `scale` is 100, "0.912 (0.900 to
/// 0.924)" where it is 1.
std::string with_interval(const Json& json, const std::string& field, double scale,
                          const char* unit);

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_TEXT_ACCURACY_TEXT_H_
