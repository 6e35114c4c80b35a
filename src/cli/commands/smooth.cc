// `chalcedony smooth`: a filtered picture.
#include "job/prepare/smooth.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr double kMostRadius = 100;

void declare_smooth(po::options_description& options) {
  add_option<std::string>(
      options, "filter", "mean|gaussian|median|minimum|maximum|opening|closing",
      "what a pixel becomes: a mean of the pixels around it, all alike or by a Gaussian; their "
      "median; their least or greatest value; opening takes away what is bright and smaller than "
      "the window, closing what is dark");
  add_option<std::string>(options, "radius", "PIXELS",
                          "how far the window reaches; of a Gaussian, the standard deviation");
  add_option<std::string>(options, "window", "disk|box", "the shape of the window (default disk)");
}

Json do_smooth(const po::variables_map& given, const SharedOptions& shared,
               const Context& context) {
  for (const char* needed : {"filter", "radius"})
    if (!given.count(needed))
      throw UsageError("smooth needs --" + std::string(needed), "as in --filter median --radius 2");
  SmoothOptions options;
  options.shared = shared;
  options.filter.kind = choice_of<FilterKind>("--filter", given["filter"].as<std::string>(),
                                              {{"mean", FilterKind::kMean},
                                               {"gaussian", FilterKind::kGaussian},
                                               {"median", FilterKind::kMedian},
                                               {"minimum", FilterKind::kMinimum},
                                               {"maximum", FilterKind::kMaximum},
                                               {"opening", FilterKind::kOpening},
                                               {"closing", FilterKind::kClosing}});
  if (options.filter.kind == FilterKind::kGaussian && given.count("window"))
    throw UsageError("--window means nothing for a Gaussian, which fades out", "leave it out");
  options.filter.element.shape =
      choice_of<ElementShape>("--window", text_of(given, "window", "disk"),
                              {{"disk", ElementShape::kDisk}, {"box", ElementShape::kBox}});
  options.filter.element.radius = number_in("--radius", given["radius"].as<std::string>(),
                                            {.low = 0, .high = kMostRadius, .with_high = true});
  return run_smooth(options, context);
}

void print_smooth(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} x {} pixels\n", p["file"], p["width"], p["height"]);
    print_left_out(p, out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSmooth;
const Command kSmooth{
    .name = "smooth",
    .summary = "a picture with less noise, or without small bright or dark things",
    .operands = "INPUT... --filter NAME --radius PIXELS -o PATH",
    .purpose =
        "Filters each channel of a picture as it is stored. Pixels that do not count (transparent, "
        "outside --region or --within) stay as they are and lend nothing to their neighbors; "
        "beyond its edges a picture goes on as its mirror image. With one input, -o names the "
        "file; with several, a folder. Masks and class maps are cleaned by tidy.",
    .examples = {{"smooth panel-a.png --filter median --radius 2 -o calm.png",
                  "grain taken down, edges kept"},
                 {"smooth panel-a.png --filter opening --radius 4 -o no-highlights.png",
                  "highlights up to 8 pixels wide taken away"},
                 {"smooth panel-a.png panel-b.png --filter gaussian --radius 1.5 -o soft/",
                  "two pictures into a folder"}},
    .declare = declare_smooth,
    .run = do_smooth,
    .print = print_smooth,
    .refuses = {{"hue-floor", "let", "figures", "write"},
                "smooth filters the channels of the file, and writes one picture"},
};

}  // namespace chalcedony::cli
