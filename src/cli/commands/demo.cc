// `chalcedony demo`: the demo data, and the whole job on it, told step by step.
#include "cli/repeat/demo_story.h"

#include <ostream>

#include "cli/options/command.h"
#include "cli/repeat/typed_command.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_demo(po::options_description& options) {
  add_option<std::string>(options, "output,o", "FOLDER", "where the data and the results go");
  add_flag(options, "list", "only print the commands of the example run");
}

Json do_demo(const po::variables_map& given, const SharedOptions&, const Context& context) {
  if (given.count("list")) return demo_steps();
  if (!given.count("output"))
    throw UsageError("demo needs -o", "name a folder, for example -o demo-results/");
  if (given.count("input")) throw UsageError("demo takes no input", "name only -o");
  return run_demo(given["output"].as<std::string>(), context);
}

void print_demo(const Json& summary, std::ostream& out) {
  if (summary.contains("folder"))
    out << "The demo data is in " << summary["folder"] << "; the commands are typed there.\n\n";
  for (const Json& step : summary["steps"]) {
    out << step["title"].get<std::string>() << '\n';
    print_typed(step, out);
  }
}

}  // namespace

extern const Command kDemo;
const Command kDemo{
    .name = "demo",
    .summary = "the demo data, and the whole job on it",
    .operands = "-o FOLDER",
    .purpose =
        "Writes the demo data (panels of stained glass, invented and drawn by this program, with "
        "samples and reference maps) and goes through the job step by step: look, prepare, "
        "convert, read histograms, select, group, train, map, assess, report. Tells what each step "
        "found and which files it wrote.",
    .examples = {{"demo -o demo-results/", "everything, in a new folder"},
                 {"demo --list", "the commands, to run them one by one"},
                 {"demo --list --summary json", "the same as JSON, for a program of your own"}},
    .takes_pictures = false,
    .declare = declare_demo,
    .run = do_demo,
    .print = print_demo,
};

}  // namespace chalcedony::cli
