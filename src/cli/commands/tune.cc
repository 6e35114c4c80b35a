// `chalcedony tune`: pages on which limits of channels are set.
#include "job/tune/tune.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/select/expression.h"

namespace chalcedony::cli {
namespace {

void declare_tune(po::options_description& options) {
  add_option<std::string>(options, "channels", "LIST",
                          "channels or whole spaces to set limits of, 24 at most (default hsv; of "
                          "a picture without color its own)");
  add_option<std::string>(options, "where", "SELECTION",
                          "limits to begin with: intervals, >= and <= of channels joined by and");
  add_option<std::string>(options, "classes", "FILE|FOLDER",
                          "a class map, a mask or GeoJSON samples: the page tells how much of each "
                          "class is taken; of several inputs a folder of these, or a pattern as "
                          "\"*.samples.geojson\"");
  add_option<std::string>(options, "view", "PIXELS",
                          "pixels along the longest side of the picture on the page, 100 to 4000; "
                          "of larger pictures every second, third and so on (default 1000)");
}

Json do_tune(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  TuneOptions options;
  options.shared = shared;
  options.channels = channels_or_space(given, "channels", shared, "");
  if (options.channels.size() > kMostTuned)
    throw UsageError("tune takes 24 channels at most", "name those that matter with --channels");
  if (given.count("where"))
    options.limits = read_option("--where", [&] {
      return limits_of(parse_expression(given["where"].as<std::string>(), shared.names));
    });
  options.classes = file_for_each(given, "classes", shared);
  options.view = view_option(given, options.view);
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
    out << fmt::format("  {} that count; limits of", plural(p["counted"], "pixel"));
    for (const Json& channel : p["channels"]) out << " " << channel.get<std::string>();
    out << "\n";
    if (p.contains("classes_from")) out << fmt::format("  classes of {}\n", p["classes_from"]);
  }
  print_outputs(summary, out);
  if (!summary["outputs"].empty())
    out << "open the page in a browser, set limits, save them, and give the file to mask with "
           "--config\n";
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
        "for mask, which takes the same pixels.",
    .examples = {{"tune panel-a.png -o out/", "limits of hue, saturation and value"},
                 {"tune panel-a.png --where \"hsv.h in 340..20 and hsv.s >= 50\" --classes "
                  "panel-a.samples.geojson -o out/",
                  "from a selection on, with how much of each glass it takes"},
                 {"tune panel-a.png panel-b.png --channels lab,warmth --let \"warmth=lab.a + "
                  "lab.b\" -o out/",
                  "a page each for two panels, also by a channel of your own"}},
    .results = tune_results,
    .declare = declare_tune,
    .run = do_tune,
    .print = print_tune,
    .traits = {Trait::kReadsSamples, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
