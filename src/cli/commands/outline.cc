// `chalcedony outline`: pages on which regions of pictures are drawn and named.
#include "job/outline/outline.h"

#include <fmt/format.h>

#include <ostream>
#include <string>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

void declare_outline(po::options_description& options) {
  add_repeated_option(options, "class", "NAME[=COLOR]",
                      "a class to begin with, and its color; may be repeated");
  add_option<std::string>(options, "samples", "FILE|FOLDER",
                          "sample regions as GeoJSON to go on from; of several pictures a folder, "
                          "or a pattern as \"*.suggested.geojson\"");
  add_option<std::string>(options, "map", "MAP|FOLDER",
                          "a class map of the picture, shown over it with the key m; its classes "
                          "are those to begin with; of several pictures a folder or a pattern");
  add_option<std::string>(options, "view", "PIXELS",
                          "the longest side of the picture on the page, 100 to 4000; larger "
                          "pictures are reduced, and their regions less exact (default 2000)");
}

SampleClass class_option(const std::string& text) {
  if (text.find('=') == std::string::npos && !text.empty()) return {text, ""};
  const auto [name, color] = named_value("--class", text);
  return {name, css_color_option("--class", color)};
}

Json do_outline(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  OutlineOptions options;
  options.shared = shared;
  options.samples = file_for_each(given, "samples", shared);
  options.map = file_for_each(given, "map", shared);
  for (const std::string& text : texts_of(given, "class"))
    options.classes.push_back(class_option(text));
  options.view = view_option(given, options.view);
  return run_outline(options, context);
}

void print_outline(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    const double reduced = p["pixels_per_cell"].get<double>();
    out << fmt::format(
        "{}: {} x {} pixels, {}\n", p["file"], p["width"], p["height"],
        reduced > 1 ? fmt::format("seen {:.1f} times smaller", reduced) : "seen in full");
    if (p.contains("map")) out << fmt::format("class map: {}\n", p["map"]);
    if (!p.contains("samples")) continue;
    out << fmt::format("goes on from {}: {}", p["samples"], plural(p["regions"], "region"));
    if (p["guesses"] > 0) out << fmt::format(", {} of them to check", p["guesses"]);
    out << "\n";
    TextTable(p["classes"]).words("class", "name").counts("regions", "regions").print(out);
  }
  print_outputs(summary, out);
  if (!summary["outputs"].empty())
    out << "open the page in a browser, draw regions and name them, save them beside the picture,\n"
           "and give the file to train, spots, correct or assess\n";
}

}  // namespace

extern const Command kOutline;
const Command kOutline{
    .name = "outline",
    .summary = "pages on which you draw regions of pictures and name them",
    .operands = "INPUT... -o FOLDER",
    .purpose =
        "Writes a page for a browser that shows the picture and takes its regions from you: "
        "rectangles, polygons, discs and single pixels, each of a class. The file it saves holds "
        "samples for train, spots for spots, patches for correct, or what is so for assess. "
        "Suggested samples are shown one by one, to be confirmed or named anew; what is wrong in a "
        "class map is drawn over it, for tidy --drawn.",
    .examples =
        {{"outline panel-c.png --class ruby=#a01c2e --class lead -o out/",
          "a page for the samples of two classes"},
         {"outline panel-a.png panel-b.png panel-d.png --samples \"*.samples.geojson\" -o out/",
          "three panels, each with the samples it has"},
         {"outline panel-a.png --map panel-a.reference.png --view 240 -o out/",
          "what is wrong in a class map, on a smaller view"}},
    .results = outline_results,
    .declare = declare_outline,
    .run = do_outline,
    .print = print_outline,
    .refuses = {{"figures", "hue-floor", "let", "alpha"}, "outline shows pixels as they are"},
    .traits = {Trait::kReadsSamples},
};

}  // namespace chalcedony::cli
