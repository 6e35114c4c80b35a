// `chalcedony truth`: pixels of maps drawn at random, to say what they truly are.
#include "job/truth/truth.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/draw_option.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "job/run/partner_files.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kUsuallyDrawn = 100;

void declare_truth(po::options_description& options) {
  add_option<std::string>(options, "image", "PICTURE|FOLDER",
                          "the picture that the map is of; of several maps a folder, or a pattern "
                          "as \"panes/*.png\"");
  declare_draw(options, fmt::format("{} from each map, at random", kUsuallyDrawn));
}

Json do_truth(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  TruthOptions options;
  options.shared = shared;
  if (!given.count("image"))
    throw UsageError("truth needs --image", "name the picture in which the pixels are looked at");
  options.image = given["image"].as<std::string>();
  require_one_each("--image", options.image, shared.inputs.size());
  options.draw = draw_option(given);
  if (!options.draw.draws()) {
    options.draw.design = SampleDesign::kRandom;
    options.draw.count = kUsuallyDrawn;
  }
  return run_truth(options, context);
}

void print_truth(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} of {} drawn, {}\n", p["file"], plural(p["drawn"], "pixel"),
                       p["image"], p["design"]);
    TextTable(p["classes"])
        .words("mapped as", "name")
        .counts("pixels", "pixels")
        .counts("drawn", "drawn")
        .print(out);
  }
  print_outputs(summary, out);
  if (!summary["outputs"].empty())
    out << "open the page in a browser, say what each pixel is, save the table in the place of the "
           "empty one,\nand give it to assess as --reference\n";
}

}  // namespace

extern const Command kTruth;
const Command kTruth{
    .name = "truth",
    .summary = "pixels of class maps drawn at random, for you to say what they truly are",
    .operands = "MAP... --image PICTURE|FOLDER",
    .purpose =
        "Draws pixels of class maps, for where no reference is known: a page shows each of them in "
        "the picture, without what the map says, and takes its class from you. The table it saves "
        "is a reference for assess, which tells from it how right the map is and what areas the "
        "classes truly take.",
    .examples =
        {{"truth panel-b.reference.png --image panel-b.png -o out/",
          "100 pixels of a map at random"},
         {"truth panel-b.reference.png --image panel-b.png --count 60 --stratified equal -o out/",
          "10 pixels of each class"},
         {"truth panel-b.reference.png panel-c.reference.png --image . --every 60 -o out/",
          "two maps, a pixel every 60 rows and columns"}},
    .results = truth_results,
    .declare = declare_truth,
    .run = do_truth,
    .print = print_truth,
    .refuses = {{"figures", "hue-floor", "let", "alpha"}, "truth shows pixels as they are"},
    .traits = {Trait::kDraws},
};

}  // namespace chalcedony::cli
