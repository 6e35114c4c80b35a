// `chalcedony gather`: shards of a run put back together.
#include "job/gather/gather.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/apart_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_gather(po::options_description& options) {
  add_option<std::string>(options, "output,o", "FOLDER", "where the whole results go");
}

Json do_gather(const po::variables_map& given, const SharedOptions&, const Context& context) {
  const auto named = texts_of(given, "input");
  if (named.empty())
    throw UsageError("no shard is given", "name the folders that runs with --shard wrote");
  if (!given.count("output"))
    throw UsageError("gather needs -o", "name a folder for the whole results");
  return gather_shards({named.begin(), named.end()}, given["output"].as<std::string>(), context);
}

void print_gather(const Json& summary, std::ostream& out) {
  for (const Json& run : summary["runs"]) {
    out << fmt::format("{}: {} of {}, {} failed\n", run["command"],
                       plural(run["pictures"], "picture"), plural(run["shards"], "shard"),
                       run["failed"]);
    if (!run.contains("together")) continue;
    if (run["command"] == "measure") {
      print_region_counts_of_all(run, out);
    } else if (run["command"] == "apart") {
      print_classes_apart_of_all(run, out);
    } else if (run["together"].contains("classes")) {
      print_class_shares_of_all(run, out);
    } else {
      print_selected_shares_of_all(run, out);
    }
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kGather;
const Command kGather{
    .name = "gather",
    .summary = "shards of a run put back together",
    .operands = "SHARD_FOLDER... -o FOLDER",
    .purpose =
        "Puts together what several machines did of one run, each with --shard i/n into a folder "
        "of its own: their results, their tables and their record, byte by byte as one run leaves "
        "them. Figures of the shares of all pictures are drawn anew.",
    .examples =
        {{"inspect panel-a.png panel-b.png panel-c.png --shard 1/2 -o shard-1/", "on one machine"},
         {"inspect panel-a.png panel-b.png panel-c.png --shard 2/2 -o shard-2/", "on another"},
         {"gather shard-1/ shard-2/ -o all/", "what inspect without --shard writes into all/"}},
    .takes_pictures = false,
    .declare = declare_gather,
    .run = do_gather,
    .print = print_gather,
};

}  // namespace chalcedony::cli
