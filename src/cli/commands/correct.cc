// `chalcedony correct`: colors brought to what patches are known to be.
#include "job/prepare/correct.h"

#include <fmt/format.h>

#include <cstdint>
#include <ostream>
#include <string>
#include <vector>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "io/text/number_text.h"

namespace chalcedony::cli {
namespace {

void declare_correct(po::options_description& options) {
  add_option<std::string>(options, "samples", "FILE",
                          "the patches of the one input, each a class, as GeoJSON or as a picture "
                          "of labels");
  add_repeated_option(options, "sample", "NAME=PLACE",
                      "a patch: X,Y,RADIUS or X,Y,W,H; may be repeated");
  add_option<std::string>(
      options, "layout", "COLUMNSxROWS=X,Y,W,H",
      "patches in even rows that fill this rectangle, or what lies between four corners, clockwise "
      "from the top left, as in \"6x4=56,40 610,62 598,470 40,455\"; in the order of the "
      "known colors, row by row; the middle third of each is looked at");
  add_option<std::string>(options, "known", "FILE",
                          "the colors that patches are known to have: a CSV table with a name and "
                          "the three channels of a space in each line");
  add_flag(options, "tone", "undo the tone curve of the camera too; takes 8 patches or more");
  add_option<std::string>(options, "save", "FILE", "write the correction for other pictures");
  add_option<std::string>(options, "apply", "FILE", "use a correction that was saved");
}

PatchSource patches_of(const po::variables_map& given) {
  PatchSource patches;
  if (given.count("samples")) patches.places.samples.files = {{given["samples"].as<std::string>()}};
  for (const auto& text : texts_of(given, "sample"))
    patches.places.samples.places.push_back(named_value("--sample", text));
  if (given.count("layout")) {
    refuse_options(given, {"samples", "sample"}, "--layout says where the patches are");
    patches.places.layout = layout_option(given["layout"].as<std::string>());
  }
  if (patches.places.empty() || !given.count("known"))
    throw UsageError("correct needs patches and --known, or --apply",
                     "say where the patches are with --samples, --sample or --layout");
  patches.known = given["known"].as<std::string>();
  return patches;
}

Json do_correct(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  CorrectOptions options;
  options.shared = shared;
  if (given.count("apply")) {
    refuse_options(given, {"samples", "sample", "layout", "known", "tone", "save"},
                   "--apply takes the correction from a file");
    options.apply = given["apply"].as<std::string>();
    return run_correct(options, context);
  }
  options.patches = patches_of(given);
  if (given.count("tone")) options.kind = CorrectionKind::kToneAndMatrix;
  if (shared.inputs.size() > 1)
    throw UsageError("patches are on one picture",
                     "--save the correction it takes, and --apply that to the others");
  if (given.count("save")) options.save = given["save"].as<std::string>();
  return run_correct(options, context);
}

void print_patches(const Json& p, std::ostream& out) {
  const auto lab = [](const Json& patch, const char* which) {
    const auto text = [&](const char* channel) { return fixed_text(patch[which][channel], 2); };
    return fmt::format("{:>6} {:>7} {:>7}", text("l"), text("a"), text("b"));
  };
  TextTable(p["patches"])
      .words("patch", "name")
      .counts("pixels", "pixels")
      .cells("known L a b", [&](const Json& patch) { return lab(patch, "known"); })
      .cells("found L a b", [&](const Json& patch) { return lab(patch, "found"); })
      .decimals("before", "before", 2)
      .decimals("after", "after", 2)
      .decimals("left out", "left_out", 2)
      .print(out);
  const auto line = [&](const char* title, const char* field, const char* meaning) {
    if (!p.contains(field)) return;
    out << fmt::format("  {:<9} mean {:.2f}, largest {:.2f}{}\n", title,
                       p[field]["mean"].get<double>(), p[field]["max"].get<double>(), meaning);
  };
  out << "  differences are delta E 2000, white of Lab D50\n";
  line("before", "before", "");
  line("after", "after", "");
  line("left out", "left_out",
       ": each by the correction of all others, as to expect of other colors");
  if (p.contains("left_out_mean_with_tone"))
    out << fmt::format(
        "  --tone would help: with the tone curve of the camera undone, left out has a mean of "
        "{:.2f}\n",
        p["left_out_mean_with_tone"].get<double>());
}

void print_tone(const Json& p, std::ostream& out) {
  std::vector<std::string> codes;
  for (const Json& code : p["tone"]["codes"])
    codes.push_back(
        fmt::format("{:.0f} to {:.1f}", code["found"].get<double>(), code["undone"].get<double>()));
  out << fmt::format("  tone curve undone, in codes of srgb: {}\n", fmt::join(codes, ", "));
}

void print_correct(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}\n", p["file"]);
    print_left_out(p, out);
    if (p.contains("patches")) print_patches(p, out);
    if (p.contains("tone")) print_tone(p, out);
    print_cut_off(p["out_of_gamut_percent"], out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kCorrect;
const Command kCorrect{
    .name = "correct",
    .summary = "colors brought to those that patches are known to have",
    .operands = "INPUT --layout COLUMNSxROWS=X,Y,W,H --known FILE -o PATH",
    .purpose =
        "Holds patches of a picture, such as those of a color target, against the colors they are "
        "known to have; finds the matrix of linear light that brings them nearest, and corrects "
        "the picture by it; --tone undoes the tone curve of the camera first. Says how far each "
        "patch is off before and after, and by the correction of all others, which is what to "
        "expect of colors that are not among them. --apply corrects other pictures taken in the "
        "same light. A figure beside the picture shows the patches.",
    .examples = {{"correct target.png --layout 5x4=4,4,420,336 --known target.known.csv "
                  "--save light.correction.json -o right.png",
                  "a photographed target brought to its known colors, and the correction kept"},
                 {"correct target.png --samples target.samples.geojson --known target.known.csv -o "
                  "right.png",
                  "the same with regions that were drawn"},
                 {"correct target.png --sample white=46,46,20 --sample ruby=130,46,20 "
                  "--sample amber=298,46,20 --sample leaf=46,130,20 --sample sky=214,130,20 "
                  "--known target.known.csv -o right.png",
                  "by five patches that are pointed at"}},
    .declare = declare_correct,
    .run = do_correct,
    .print = print_correct,
    .refuses = {{"hue-floor", "let", "write"},
                "correct writes one picture of r, g and b, and its figure"},
    .traits = {Trait::kReadsSamples},
};

}  // namespace chalcedony::cli
