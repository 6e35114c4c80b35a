#include "job/region/tidy.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/steps_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_tidy(po::options_description& options) {
  add_option<std::string>(
      options, "steps", "STEPS",
      "what to do, in order, separated by semicolons: dilate, erode, open or "
      "close R [disk|box|diamond|line [0|45|90|135]]; fill [PIXELS]; drop "
      "PIXELS; keep N; majority R; part PIXELS; clear-edge; invert. To some classes "
      "only: \"drop 40 of ruby,lead\"");
  add_option<std::string>(options, "drawn", "FILE|FOLDER",
                          "a sample file whose regions are of their class after the steps, "
                          "whatever the map says, or of none when they are called unclassified; "
                          "those of a mask are selected or unselected; of several maps a folder or "
                          "a pattern");
  declare_pixel_size(options);
}

Json do_tidy(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  if (!given.count("steps") && !given.count("drawn"))
    throw UsageError("tidy needs --steps or --drawn",
                     "say what to do, as in --steps \"open 2; fill; drop 40\"");
  TidyOptions options;
  options.shared = shared;
  if (given.count("steps"))
    options.steps =
        read_option("--steps", [&] { return parse_tidy_steps(given["steps"].as<std::string>()); });
  options.drawn = file_for_each(given, "drawn", shared);
  options.pixel_size = pixel_size_option(given);
  return run_tidy(options, context);
}

/// Pixels before and after, and areas when the size of a pixel is known.
void print_classes(const Json& picture, std::ostream& out) {
  Json classes = picture["classes"];
  if (picture.contains("unclassified") &&
      (picture["unclassified"]["before"] > 0 || picture["unclassified"]["pixels"] > 0)) {
    classes.push_back(picture["unclassified"]);
    classes.back()["name"] = "unclassified";
  }
  TextTable(classes)
      .words("class", "name")
      .counts("before", "before")
      .counts("after", "pixels")
      .percents("share of all", "percent")
      .areas(picture["unit"])
      .print(out);
}

void print_tidy(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {}, {} of {} changed\n", p["file"], p["kind"], counted(p["changed"]),
                       plural(p["pixels"], "pixel"));
    print_steps(p["steps"], out);
    print_classes(p, out);
  }
  print_class_shares_of_all(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kTidy;
const Command kTidy{
    .name = "tidy",
    .summary = "masks and class maps without specks, holes and frayed edges",
    .operands = "INPUT... --steps STEPS | --drawn FILE|FOLDER",
    .purpose =
        "Cleans masks, class maps and drawn regions by steps in the order you give. Radii and "
        "sizes are pixels. Each class is cleaned by itself: pixels that lose their class have "
        "none, and a class grows only into pixels that have none. What is still wrong can be drawn "
        "right on a page of outline.",
    .examples = {{"tidy panel-a.rough.png --steps \"drop 20; fill 20\" -o out/",
                  "specks and pinholes away, edges as they are"},
                 {"tidy panel-a.rough.png --steps \"open 2; close 2\" -o out/",
                  "smoother edges, thin parts away"},
                 {"tidy panel-a.reference.png --steps \"majority 3; keep 5\" --drawn "
                  "panel-a.samples.geojson -o out/",
                  "a class map smoothed, five regions of each class, and what was drawn as it is"}},
    .results = tidy_results,
    .declare = declare_tidy,
    .run = do_tidy,
    .print = print_tidy,
    .refuses = {{"region", "within", "alpha", "hue-floor", "let", "assume", "full-scale", "bands",
                 "page"},
                "tidy works on whole masks and class maps"},
    .traits = {Trait::kReadsSamples},
};

}  // namespace chalcedony::cli
