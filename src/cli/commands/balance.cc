// `chalcedony balance`: even light, common medians, contrast.
#include "job/prepare/balance.h"

#include <fmt/format.h>

#include <optional>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/read_number.h"

namespace chalcedony::cli {
namespace {

void declare_balance(po::options_description& options) {
  add_option<std::string>(options, "curve", "gain|power|asinh|none",
                          "how channels are bent to a common median: a factor on linear light "
                          "(default with --neutral), a power (default without), or asinh, which "
                          "leaves dark values straight");
  add_option<std::string>(options, "target", "VALUE",
                          "the common median, 0-255, or 0-100 of lightness (default the mean of "
                          "the channel medians)");
  add_option<std::string>(options, "like", "PICTURE",
                          "give each channel the values that it has in this picture, as many dark, "
                          "middle and bright ones; with --curve only their median");
  add_option<std::string>(options, "neutral", "X,Y,W,H",
                          "take the medians of this patch, which should be gray");
  add_option<std::string>(options, "black", "POINT",
                          "what becomes 0: a value, or a percentile as in 0.5%");
  add_option<std::string>(
      options, "white", "POINT",
      "what becomes the end of the range: a value, or a percentile as in 99.5%");
  add_flag(options, "equalize", "spread the values evenly instead of bending to a median");
  add_option<std::string>(options, "on", "channels|lightness",
                          "what is changed: r, g and b (default), or Lab lightness, which keeps "
                          "the colors");
  add_option<std::string>(options, "flat", "BLANK|fit",
                          "first even the light out: by a picture of an evenly bright surface, or "
                          "by a surface fitted to the counted pixels");
  add_option<std::string>(options, "dark", "PICTURE", "the same as BLANK, without light");
  add_option<std::string>(options, "save", "FILE", "write the curves for other pictures");
  add_option<std::string>(options, "apply", "FILE", "use curves that were saved");
}

LevelPoint point_of(const std::string& option, const std::string& text) {
  const bool percentile = !text.empty() && text.back() == '%';
  const auto value = read_number<double>(percentile ? text.substr(0, text.size() - 1) : text);
  if (!value)
    throw UsageError(option + ": '" + text + "' is no value and no percentile",
                     "write it as 12 or as 0.5%");
  const LevelPoint point{*value, percentile};
  if (point.percentile && !(point.value > 0 && point.value <= 100))
    throw UsageError(option + ": there is no percentile " + text, "give one above 0, up to 100%");
  return point;
}

FlatField flat_of(const po::variables_map& given) {
  FlatField flat;
  const auto text = given["flat"].as<std::string>();
  flat.fit = text == "fit";
  if (!flat.fit) flat.blank = text;
  if (given.count("dark")) flat.dark = given["dark"].as<std::string>();
  if (flat.fit && flat.dark)
    throw UsageError("--dark goes with a blank, not with a fitted surface", "leave it out");
  return flat;
}

/// What bends the channels, with what contradicts it refused.
CurveKind curve_of(const po::variables_map& given, const BalanceOptions& options) {
  const bool levels = options.curves.black || options.curves.white;
  if (given.count("equalize")) {
    refuse_options(given, {"curve", "target", "like", "neutral", "black", "white"},
                   "--equalize sets the whole curve");
    return CurveKind::kTable;
  }
  if (options.like) {
    refuse_options(given, {"target", "neutral", "black", "white"},
                   "--like says what values are wanted");
    if (!given.count("curve")) return CurveKind::kTable;
  }
  // Lightness alone has no other channel to agree with.
  const bool bends = !options.on_lightness || options.curves.target || options.like;
  const std::string otherwise = !bends ? "none" : options.curves.neutral ? "gain" : "power";
  const CurveKind curve = choice_of<CurveKind>("--curve", text_of(given, "curve", otherwise),
                                               {{"gain", CurveKind::kGain},
                                                {"power", CurveKind::kPower},
                                                {"asinh", CurveKind::kAsinh},
                                                {"none", CurveKind::kNone}});
  for (const char* wanted : {"target", "like"})
    if (curve == CurveKind::kNone && given.count(wanted))
      throw UsageError(fmt::format("--{} needs a curve", wanted),
                       fmt::format("give --curve power, or leave --{} out", wanted));
  if (curve != CurveKind::kNone && !bends)
    throw UsageError("--on lightness needs --target or --like to bend to", "as in --target 50");
  if (curve == CurveKind::kNone && !levels && !options.flat)
    throw UsageError("nothing is left to do",
                     "give --target, --like, --black, --white, --equalize or --flat");
  return curve;
}

Json do_balance(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  BalanceOptions options;
  options.shared = shared;
  options.on_lightness =
      one_of("--on", text_of(given, "on", "channels"), {"channels", "lightness"}) == "lightness";
  if (given.count("flat")) options.flat = flat_of(given);
  if (given.count("dark") && !options.flat)
    throw UsageError("--dark needs --flat", "give the blank, as in --flat blank.png");
  if (given.count("apply")) {
    refuse_options(given,
                   {"curve", "target", "like", "neutral", "black", "white", "equalize", "save"},
                   "--apply takes the curves from a file");
    options.apply = given["apply"].as<std::string>();
    return run_balance(options, context);
  }
  if (given.count("target"))
    options.curves.target = number_in("--target", given["target"].as<std::string>(),
                                      {0, options.on_lightness ? 100.0 : 255.0});
  if (given.count("like")) options.like = given["like"].as<std::string>();
  if (given.count("neutral")) {
    refuse_options(given, {"region"}, "--neutral says what is looked at");
    options.curves.neutral =
        read_option("--neutral", [&] { return parse_region(given["neutral"].as<std::string>()); });
  }
  if (given.count("black"))
    options.curves.black = point_of("--black", given["black"].as<std::string>());
  if (given.count("white"))
    options.curves.white = point_of("--white", given["white"].as<std::string>());
  if (given.count("save")) {
    if (shared.inputs.size() > 1)
      throw UsageError("--save writes the curves of one picture", "give one input");
    options.save = given["save"].as<std::string>();
  }
  options.curves.kind = curve_of(given, options);
  return run_balance(options, context);
}

void print_balance(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    const bool evened = p["light_evened"];
    out << fmt::format("{}{}\n", p["file"], evened ? ": light evened out" : "");
    print_left_out(p, out);
    // Of light that was evened out, the medians are those of what the curves are given.
    TextTable table(p["curves"]);
    table.channels("channel", "channel")
        .words("curve",
               [](const Json& c) {
                 const std::string curve = c["curve"];
                 if (curve != "table" || !c.contains("median_before")) return curve;
                 return std::string(c.contains("median_wanted") ? "of ranks" : "equalized");
               })
        .cells("strength",
               [](const Json& c) {
                 const bool has_strength = c["curve"] != "none" && c["curve"] != "table";
                 return has_strength ? fmt::format("{:.5g}", c["strength"]) : "";
               })
        .numbers_by_row({{"black", "black"}, {"white", "white"}})
        .numbers_by_row({{evened ? "median evened" : "median before", "median_before"},
                         {"after", "median_after"}});
    if (summary.contains("like"))
      table.numbers_by_row({{"in " + summary["like"].get<std::string>(), "median_wanted"}});
    table.print(out);
    if (p.contains("in_common_after"))
      out << fmt::format("  {:.1f} % of its colors are those of {}, {:.1f} % before\n",
                         p["in_common_after"].get<double>(),
                         summary["like"].get_ref<const std::string&>(),
                         p["in_common_before"].get<double>());
    print_cut_off(p["clipped_percent"], out);
  }
  print_outputs(summary, out);
}

}  // namespace

extern const Command kBalance;
const Command kBalance{
    .name = "balance",
    .summary = "light evened out, casts taken off, contrast set",
    .operands = "INPUT... -o PATH",
    .purpose =
        "Brings the channels of a picture to one median, or to the values that they have in "
        "another picture, by curves that keep the order of values; sets black and white points; "
        "evens out the light. What is learned is learned from the counted pixels (--region, "
        "--within), and all pixels are changed. A figure beside the picture shows both histograms. "
        "With one input, -o names the file; with several, a folder.",
    .examples =
        {{"balance panel-d.png --neutral 56,66,24,24 -o balanced.png --save cast.curves.json",
          "a cast taken off by a patch, the curves kept"},
         {"balance panel-d.png --like panel-a.png --within \"panel-*.samples.geojson\" -o "
          "like-a.png",
          "a panel in the light of another, by samples of the same glass in both"},
         {"balance panel-a.png panel-b.png --flat fit --on lightness --target 45 -o even/",
          "light that falls off toward the corners evened out, and two panels equally bright"}},
    .declare = declare_balance,
    .run = do_balance,
    .print = print_balance,
    .refuses = {{"hue-floor", "let", "write"},
                "balance writes one picture of r, g and b, and its figure"},
};

}  // namespace chalcedony::cli
