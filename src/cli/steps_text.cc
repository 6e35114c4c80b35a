#include "cli/steps_text.h"

#include "cli/text_table.h"

namespace chalcedony::cli {

void print_steps(const Json& steps, std::ostream& out) {
  TextTable table({"step", "changed"});
  for (const Json& s : steps) table.add({s["step"], counted(s["changed"])});
  table.print(out);
}

}  // namespace chalcedony::cli
