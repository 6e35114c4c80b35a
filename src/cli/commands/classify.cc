// `chalcedony classify`: class maps by a model.
#include "job/classify.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/command.h"
#include "cli/outputs_text.h"
#include "cli/shared_flags.h"
#include "cli/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare(po::options_description& options) {
  add_option<std::string>(options, "model", "FILE", "the model.json that train wrote");
}

Json run(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  if (!given.count("model")) throw UsageError("classify needs --model", "name a model.json");
  ClassifyOptions options;
  options.shared = shared;
  options.model = given["model"].as<std::string>();
  return run_classify(options, context);
}

void print(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} counted, {}\n", p["file"].get<std::string>(),
                       plural(p["counted"].get<std::uint64_t>(), "pixel"),
                       summary["method"].get<std::string>());
    print_left_out(p, out);
    TextTable table({"class", "pixels", "share of counted"});
    for (const Json& c : p["classes"])
      table.add({c["name"].get<std::string>(), counted(c["pixels"].get<std::uint64_t>()),
                 fmt::format("{:.2f} %", c["percent"].get<double>())});
    if (p["unclassified"].get<std::uint64_t>() > 0)
      table.add({"unclassified", counted(p["unclassified"].get<std::uint64_t>()),
                 fmt::format("{:.2f} %", p["unclassified_percent"].get<double>())});
    table.print(out);
    if (p["contested"].get<std::uint64_t>() > 0)
      out << fmt::format("  {} in the boxes of several classes; each went to the nearest middle\n",
                         plural(p["contested"].get<std::uint64_t>(), "pixel"));
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kClassify;
const Command kClassify{
    "classify",
    "class maps of pictures by a model",
    "INPUT... --model FILE",
    "Assigns every pixel to a class of a model that train wrote: a class map with names and colors "
    "inside, the areas of the classes, and a figure with a legend.",
    {{"classify panel-b.png --model glass.model.json -o out/", "the map of another panel"},
     {"classify panel-a.png panel-b.png panel-c.png --model glass.model.json -o out/ --figures "
      "none",
      "three maps, without figures"},
     {"classify panel-c.png --model glass.model.json --region 40,40,200,120",
      "only the shares in a part, without writing anything"}},
    true,
    classify_results,
    declare,
    run,
    print};

}  // namespace chalcedony::cli
