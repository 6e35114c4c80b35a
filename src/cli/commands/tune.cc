// `chalcedony tune`: pages on which limits of channels are set.
#include "job/tune/tune.h"

#include <fmt/format.h>

#include <algorithm>
#include <ostream>
#include <string>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/selected_class_options.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_tune(po::options_description& options) {
  add_option<std::string>(options, "channels", "LIST",
                          "channels or whole spaces to set limits of, 24 at most (default hsv; of "
                          "a picture without color its own)");
  add_repeated_option(options, "where", "[NAME=]SELECTION",
                      "limits to begin with: intervals, >= and <= of channels joined by and; of "
                      "several classes each with its name");
  add_repeated_option(options, "color", "NAME=COLOR",
                      "the color of a class; may be repeated (default: the mean of what it takes)");
  add_option<std::string>(options, "classes", "FILE|FOLDER",
                          "a class map, a mask or GeoJSON samples: the page tells how much of each "
                          "class is taken; of several inputs a folder of these, or a pattern as "
                          "\"*.samples.geojson\"");
  add_option<std::string>(options, "view", "PIXELS",
                          "pixels along the longest side of the picture on the page, 100 to 4000; "
                          "of larger pictures every second, third and so on (default 1000)");
  add_flag(options, "together",
           "all pictures side by side on one page, whose limits are of all of them; 36 at most");
}

std::vector<TunedClass> classes_begun(const po::variables_map& given, const SharedOptions& shared) {
  std::vector<TunedClass> begun;
  for (const SelectedClass& one : selections_of_where(given, shared)) {
    const auto is_same = [&](const TunedClass& other) { return other.name == one.name; };
    if (std::any_of(begun.begin(), begun.end(), is_same))
      throw UsageError("--where: '" + one.name + "' has limits already",
                       "give each class limits once, or name what else it takes otherwise");
    begun.push_back({one.name, "", read_option("--where", [&] { return limits_of(one.where); })});
  }
  color_classes(given, begun);
  return begun;
}

void check_together(const SharedOptions& shared) {
  if (shared.shard || shared.resume)
    throw UsageError(std::string("--together makes one page of all pictures, so ") +
                         (shared.shard ? "--shard" : "--resume") + " means nothing here",
                     "leave one of them out");
  if (shared.inputs.size() > kMostTunedTogether)
    throw UsageError(fmt::format("--together: there are {} pictures, more than {} on a page",
                                 shared.inputs.size(), kMostTunedTogether),
                     "name those that differ most");
}

Json do_tune(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  TuneOptions options;
  options.shared = shared;
  options.channels = channels_or_space(given, "channels", shared, "");
  if (options.channels.size() > kMostTuned)
    throw UsageError("tune takes 24 channels at most", "name those that matter with --channels");
  options.begun = classes_begun(given, shared);
  options.classes = file_for_each(given, "classes", shared);
  options.view = view_option(given, options.view);
  options.together = given.count("together") > 0;
  if (options.together) check_together(shared);
  return run_tune(options, context);
}

void print_tune(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    const auto every = p["every"].get<std::uint32_t>();
    out << fmt::format("{}: {} x {} pixels, ", p["file"], p["width"], p["height"]);
    if (every == 1)
      out << "all of them on the page\n";
    else
      out << fmt::format("1 in {} across and down on the page\n", every);
    out << fmt::format("  {} that {}; limits of", plural(p["counted"], "pixel"),
                       p["counted"] == 1 ? "counts" : "count");
    for (const Json& channel : p["channels"]) out << " " << channel.get<std::string>();
    out << "\n";
    if (p.contains("classes_from")) out << fmt::format("  classes of {}\n", p["classes_from"]);
  }
  print_outputs(summary, out);
  if (!summary["outputs"].empty())
    out << "open the page in a browser, set limits, save them, and give the file to mask, or of "
           "several\nclasses to slice, with --config\n";
}

}  // namespace

extern const Command kTune;
const Command kTune{
    .name = "tune",
    .summary = "pages on which you set limits of channels and see what they take",
    .operands = "INPUT... -o FOLDER",
    .purpose =
        "Writes a page for a browser with the picture and the histograms of its channels. Limits "
        "are dragged in the histograms or typed, and follow what you point at in the picture: take "
        "what is like this, take this in, leave this out. The picture and the histograms show what "
        "is taken as you go, with the share of each class. The selection it shows and saves is one "
        "for mask, which takes the same pixels. Limits of several classes, each with a name, are a "
        "class map: that of slice by the file it saves. With --together one page shows several "
        "pictures, and what the same limits take of each.",
    .examples = {{"tune panel-a.png -o out/", "limits of hue, saturation and value"},
                 {"tune panel-a.png --where \"hsv.h in 340..20 and hsv.s >= 50\" --classes "
                  "panel-a.samples.geojson -o out/",
                  "from a selection on, with how much of each glass it takes"},
                 {"tune panel-a.png panel-b.png panel-d.png --together --where \"ruby=hsv.h in "
                  "340..20 and hsv.s >= 50\" --where \"cobalt=hsv.h in 200..260 and hsv.s >= 40\" "
                  "-o out/",
                  "two classes of a map, by limits that are to hold in three panels"}},
    .results = tune_results,
    .declare = declare_tune,
    .run = do_tune,
    .print = print_tune,
    .traits = {Trait::kReadsSamples, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
