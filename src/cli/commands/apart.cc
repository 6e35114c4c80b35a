// `chalcedony apart`: in which channels classes lie apart.
#include "job/histogram/apart.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/apart_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "core/error.h"
#include "job/run/partner_files.h"

namespace chalcedony::cli {
namespace {

void declare_apart(po::options_description& options) {
  add_option<std::string>(options, "classes", "FILE|FOLDER",
                          "what the classes are: a class map, a mask, or GeoJSON samples; of "
                          "several inputs a folder of these, or a pattern as \"*.classes.png\"");
  add_option<std::string>(options, "channels", "LIST",
                          "channels or whole spaces to look at (default lab,hsv)");
  add_option<std::string>(options, "bins", "N", "bins of every channel (default 100)");
}

Json do_apart(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  ApartOptions options;
  options.shared = shared;
  if (!given.count("classes"))
    throw UsageError("apart needs --classes", "name a class map or a sample file");
  options.classes = given["classes"].as<std::string>();
  require_one_each("--classes", options.classes, shared.inputs.size());
  options.channels = channels_or_space(given, "channels", shared, "lab,hsv");
  if (given.count("bins"))
    options.bins = whole_number("--bins", given["bins"].as<std::string>(), 2, kMostApartBins);
  return run_apart(options, context);
}

void print_apart(const Json& summary, std::ostream& out) {
  for (const Json& picture : summary["inputs"]) {
    out << fmt::format("{} by {}: {} classes\n", picture["file"], picture["classes_from"],
                       picture["classes"].size());
    print_left_out(picture, out);
    print_classes_apart(picture, out);
  }
  print_classes_apart_of_all(summary, out);
  print_outputs(summary, out);
  print_use_of_selections(summary, summary.contains("together") ? "/apart.yaml" : ".apart.yaml",
                          out);
}

}  // namespace

extern const Command kApart;
const Command kApart{
    .name = "apart",
    .summary = "in which channels classes lie apart, and the interval that takes each",
    .operands = "INPUT... --classes FILE|FOLDER",
    .purpose =
        "Counts the values of channels class by class, and says which channel tells the classes "
        "apart best: how much two classes overlap there, from 0 where no value of one is a value "
        "of the other to 100 where they are distributed alike. For each class it gives the channel "
        "and the interval that take most of it and least of the others, as a selection for mask. "
        "Of several pictures it says so of each, and of all together.",
    .examples =
        {{"apart panel-a.png --classes panel-a.samples.geojson -o out/",
          "where the samples of panel A lie in Lab and hsv"},
         {"apart panel-a.png panel-b.png panel-c.png --classes \"*.reference.png\" --channels "
          "oklch,gray -o out/",
          "three panels by their class maps, in other channels"},
         {"apart panel-a.png --classes panel-a.rough.png --let \"warmth=lab.a + lab.b\" --channels "
          "warmth,lab.l",
          "what is selected against the rest, in a channel of your own"}},
    .results = apart_results,
    .declare = declare_apart,
    .run = do_apart,
    .print = print_apart,
    .traits = {Trait::kReadsSamples, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
