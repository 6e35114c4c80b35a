#include "cli/text/steps_text.h"

#include "cli/text/text_table.h"

namespace chalcedony::cli {

void print_steps(const Json& steps, std::ostream& out) {
  TextTable(steps).words("step", "step").counts("changed", "changed").print(out);
}

}  // namespace chalcedony::cli
