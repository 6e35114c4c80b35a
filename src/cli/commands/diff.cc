#include "job/look/diff.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_diff(po::options_description& options) {
  add_option<std::string>(options, "to", "PICTURE|FOLDER",
                          "hold every input against this picture, or against the one of a folder "
                          "or a pattern that goes with its name");
  add_option<std::string>(options, "formula", "ciede2000|cie94|cie76|oklab",
                          "how differences are measured (default ciede2000)");
  add_option<std::string>(
      options, "tolerance", "N",
      "count the pixels that differ by more (default 3; oklab 0.03); 0: at all");
}

Json do_diff(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  DiffOptions options;
  options.shared = shared;
  if (given.count("to")) options.to = given["to"].as<std::string>();
  if (!options.to && shared.inputs.size() != 2)
    throw UsageError(fmt::format("diff takes two pictures, not {}", shared.inputs.size()),
                     "give the two that are to be held against each other, or say with --to what "
                     "each is held against");
  if (!options.to && (shared.resume || shared.shard))
    throw UsageError("--resume and --shard need --to here",
                     "name what the pictures are held against");
  options.formula_name = text_of(given, "formula", "ciede2000");
  options.formula = choice_of<DifferenceFormula>("--formula", options.formula_name,
                                                 {{"ciede2000", DifferenceFormula::kCiede2000},
                                                  {"cie94", DifferenceFormula::kCie94},
                                                  {"cie76", DifferenceFormula::kCie76},
                                                  {"oklab", DifferenceFormula::kOklab}});
  options.tolerance = usual_tolerance(options.formula);
  if (given.count("tolerance"))
    options.tolerance = number_in("--tolerance", given["tolerance"].as<std::string>(),
                                  {.low = 0, .high = 1000, .with_low = true, .with_high = true});
  return run_diff(options, context);
}

void print_diff(const Json& summary, std::ostream& out) {
  const Json& pictures = summary["inputs"];
  if (pictures.empty()) return print_outputs(summary, out);
  const Json& p = pictures[0];
  TextTable table(pictures);
  if (pictures.size() == 1) {
    out << fmt::format("{} against {}: {} compared by {}\n", p["first"], p["second"],
                       plural(p["counted"], "pixel"), p["formula"]);
  } else {
    out << fmt::format("{} compared by {}\n", plural(pictures.size(), "picture"), p["formula"]);
    table.words("picture", "first").words("against", "second").counts("pixels", "counted");
  }
  table.numbers("mean", "mean")
      .numbers("rms", "root_mean_square")
      .numbers("median", "median")
      .numbers("95 %", "percentile_95")
      .numbers("largest", "largest")
      .filled("at", "{},{}", {"largest_at/0", "largest_at/1"})
      .percents(fmt::format("above {:g}", p["tolerance"]), "above_tolerance_percent")
      .print(out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kDiff;
const Command kDiff{
    .name = "diff",
    .summary = "how different two pictures of one size are, pixel by pixel",
    .operands = "FIRST SECOND | INPUT... --to PICTURE|FOLDER",
    .purpose =
        "Measures the color difference of each pixel of two pictures: statistics, the share above "
        "a tolerance, and a map of the differences. With --to any number of pictures is held "
        "against one, or each against its own.",
    .examples =
        {{"diff panel-a.png panel-b.png -o out/", "two panels pixel by pixel"},
         {"diff panel-a.png panel-b.png --formula oklab --tolerance 0.1", "by distance in oklab"},
         {"diff panel-b.png panel-c.png panel-d.png --to panel-a.png --region percent:25,25,50,50 "
          "-o out/",
          "the middle of three panels, each against the first one"}},
    .results = diff_results,
    .declare = declare_diff,
    .run = do_diff,
    .print = print_diff,
    .refuses = {{"hue-floor", "let"}, "diff measures colors, not channels"},
};

}  // namespace chalcedony::cli
