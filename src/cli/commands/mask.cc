// `chalcedony mask`: the pixels a selection takes.
#include "job/select/mask.h"

#include <fmt/format.h>

#include <algorithm>
#include <memory>
#include <ostream>
#include <string>
#include <utility>
#include <vector>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/selected_class_options.h"
#include "cli/options/shared_flags.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/steps_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/select/mask_variants.h"

namespace chalcedony::cli {
namespace {

void declare_mask(po::options_description& options) {
  add_repeated_option(options, "where", "SELECTION",
                      "which pixels: tests on channels joined by and, or, not and brackets");
  add_repeated_option(
      options, "like", "PLACE",
      "pixels like those here: x,y or x,y,radius or x,y,w,h on the first picture, or samples, as "
      "FILE.geojson:CLASS on the picture that it is called after, or on each as "
      "\"*.samples.geojson:CLASS\"; may be repeated");
  add_repeated_option(options, "unlike", "PLACE", "and unlike those here; may be repeated");
  add_option<std::string>(options, "channels", "LIST", "channels --like looks at (default lab)");
  add_option<std::string>(options, "by", "ranges|gaussian",
                          "what --like finds: a range of each channel, or a Gaussian of three "
                          "(default ranges)");
  add_option<std::string>(options, "coverage", "PERCENT",
                          "how much of the samples a range holds, or of its bell a Gaussian "
                          "(default 98; gaussian 99.5)");
  add_option<std::string>(options, "auto", "CHANNEL",
                          "the pixels above the threshold that parts this channel best");
  add_repeated_option(
      options, "vary", "NAME=A..B/N",
      "try N values for {NAME} in --where: a sheet of masks and their coverage instead of a "
      "mask; may be given twice");
  add_flag(options, "invert", "select what the selection leaves");
  add_repeated_option(options, "and", "MASK|FOLDER",
                      "only where this mask is on, or the one of a folder or a pattern, as "
                      "\"masks/*.mask.png\", that goes with the picture; may be repeated");
  add_repeated_option(options, "or", "MASK|FOLDER",
                      "also where this mask is on, after --and; may be repeated");
  add_repeated_option(options, "minus", "MASK|FOLDER",
                      "not where this mask is on, after --or; may be repeated");
  add_option<std::string>(options, "tidy", "STEPS",
                          "clean what is selected before it is written, by the steps of tidy: "
                          "\"drop 20; fill\"");
  add_option<std::string>(options, "background", "transparent|gray|dimmed|COLOR|PICTURE",
                          "what the cut-out shows where nothing is selected (default "
                          "transparent); a picture must be of the same size");
}

LikeOptions like_from(const po::variables_map& given, const SharedOptions& shared) {
  LikeOptions like;
  like.like = texts_of(given, "like");
  like.unlike = texts_of(given, "unlike");
  like.by = choice_of<LikeBy>("--by", text_of(given, "by", "ranges"),
                              {{"ranges", LikeBy::kRanges}, {"gaussian", LikeBy::kGaussian}});
  if (like.by == LikeBy::kGaussian) like.coverage = 99.5;
  if (given.count("coverage"))
    like.coverage = number_in("--coverage", given["coverage"].as<std::string>(),
                              {.low = 0, .high = 100, .with_high = like.by == LikeBy::kRanges});
  like.channels = channels_or_space(given, "channels", shared, "lab");
  const bool hue = std::any_of(like.channels.begin(), like.channels.end(),
                               [](const Channel& c) { return c.is_hue(); });
  if (like.by == LikeBy::kGaussian && (like.channels.size() != 3 || hue))
    throw UsageError("--by gaussian takes three channels, none of them a hue",
                     "name three others, as in --channels oklab");
  return like;
}

/// The text of the one selection of --where; those of several classes are for slice.
std::string where_text(const po::variables_map& given) {
  const std::vector<std::string> texts = texts_of(given, "where");
  if (texts.size() > 1)
    throw UsageError(fmt::format("--where says {} selections, and a mask is one", texts.size()),
                     "give one, or all to slice, which makes a class of each");
  return texts.front();
}

/// Without the name of a class, which masks do not have.
Expression unnamed_selection(const po::variables_map& given, const SharedOptions& shared) {
  SelectedClass selected = std::move(selections_of_where(given, shared).at(0));
  if (!selected.name.empty())
    throw UsageError("--where: '" + selected.name + "' names a class, and a mask has none",
                     "leave the name out, or use slice");
  return std::move(selected.where);
}

/// Exactly one of --where, --like and --auto.
void read_selection(const po::variables_map& given, MaskOptions& options) {
  const std::size_t ways =
      (given.count("where") ? 1 : 0) + (given.count("like") ? 1 : 0) + given.count("auto");
  if (ways == 0)
    throw UsageError("mask needs --where, --like or --auto",
                     "say which pixels, as in --where \"hsv.h in 200..260\"");
  if (ways > 1)
    throw UsageError("--where, --like and --auto each say which pixels", "give one of them");
  if (!given.count("like"))
    refuse_options(given, {"unlike", "channels", "by", "coverage"}, "it belongs to --like");
  if (given.count("like")) {
    options.like = like_from(given, options.shared);
    return;
  }
  if (given.count("where")) {
    const std::string text = where_text(given);
    read_option("--where", [&] { variants_of(text, {}); });  // nothing varies without --vary
    options.where = unnamed_selection(given, options.shared);
    return;
  }
  options.threshold = channel_option("--auto", given["auto"].as<std::string>(), options.shared);
  if (options.threshold->is_hue())
    throw UsageError("--auto: " + options.threshold->name() +
                         " is a hue, which goes round and has no upper part",
                     "choose a lightness, a chroma or another channel");
}

CutoutOptions cutout_from(const std::string& text) {
  if (text == "transparent") return {};
  if (text == "gray") return {.rest = CutoutRest::kGray};
  if (text == "dimmed") return {.rest = CutoutRest::kDimmed};
  if (is_picture_name(text)) return {.rest = CutoutRest::kPicture, .picture = text};
  try {
    return {.rest = CutoutRest::kColor, .color = css_color(text)};
  } catch (const UsageError& error) {
    throw UsageError(
        "--background: '" + text +
            "' is neither transparent, gray, dimmed, a color nor the name of a picture",
        error.remedy());
  }
}

Json run_variants(const po::variables_map& given, const SharedOptions& shared,
                  const Context& context) {
  if (!given.count("where"))
    throw UsageError("--vary needs --where", "as in --where \"gray > {low}\" --vary low=10..50/5");
  refuse_options(given, {"like", "auto", "invert", "and", "or", "minus", "tidy", "background"},
                 "--vary only tries selections");
  const std::string where = where_text(given);
  MaskVariantOptions options;
  options.shared = shared;
  options.variants = read_option("--vary", [&] {
    for (const std::string& text : texts_of(given, "vary"))
      options.variables.push_back(parse_variable(text));
    return variants_of(where, options.variables);
  });
  if (options.variables.size() > 2)
    throw UsageError("--vary may be given twice, not more often", "vary two numbers at a time");
  read_option("--where", [&] {
    for (const Variant& variant : options.variants) parse_expression(variant.text, shared.names);
  });
  return run_mask_variants(options, context);
}

std::vector<std::shared_ptr<const PartnerFiles>> masks_named(const po::variables_map& given,
                                                             const char* option) {
  std::vector<std::shared_ptr<const PartnerFiles>> masks;
  for (const std::string& named : texts_of(given, option))
    masks.push_back(
        std::make_shared<PartnerFiles>(named, is_picture_name, "mask", NameCuts::kPoints));
  return masks;
}

Json do_mask(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  if (given.count("vary")) return run_variants(given, shared, context);
  MaskOptions options;
  options.shared = shared;
  read_selection(given, options);
  options.invert = given.count("invert") > 0;
  options.only_in = masks_named(given, "and");
  options.also_in = masks_named(given, "or");
  options.not_in = masks_named(given, "minus");
  if (given.count("tidy"))
    options.tidy =
        read_option("--tidy", [&] { return parse_tidy_steps(given["tidy"].as<std::string>()); });
  for (const TidyStep& step : options.tidy)
    if (!step.classes.empty())
      throw UsageError("--tidy: the step '" + step.text + "' names a class, and a mask has none",
                       "leave out 'of' and what follows");
  options.cutout = cutout_from(text_of(given, "background", "transparent"));
  return run_mask(options, context);
}

/// How a selection that was found came about.
void print_found(const Json& p, std::ostream& out) {
  if (p.contains("like_pixels")) {
    out << fmt::format("  keeps {:.2f} % of {}", p["like_kept_percent"],
                       plural(p["like_pixels"], "sample pixel"));
    if (p.contains("unlike_pixels"))
      out << fmt::format(", lets {:.2f} % of {} through", p["unlike_passed_percent"],
                         counted(p["unlike_pixels"]));
    out << "\n";
  }
  if (p.contains("threshold"))
    out << fmt::format("  the threshold explains {:.1f} % of the variance\n", p["parted_percent"]);
  if (p.contains("like_pixels") || p.contains("threshold"))
    out << fmt::format("  --where \"{}\"\n", p["where"]);
}

void print_variants(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} selections of {}\n", p["file"], p["variants"].size(),
                       plural(p["counted"], "counted pixel"));
    TextTable table(p["variants"]);
    for (std::size_t v = 0; v < summary["variables"].size(); ++v)
      table.numbers(summary["variables"][v]["name"], fmt::format("values/{}", v), 6);
    table.counts("selected", "selected").percents("share of counted", "selected_percent");
    table.print(out);
  }
  print_outputs(summary, out);
}

void print_mask(const Json& summary, std::ostream& out) {
  if (summary.contains("variables")) {
    print_variants(summary, out);
    return;
  }
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} of {} counted pixels selected, {:.2f} %\n", p["file"],
                       counted(p["selected"]), counted(p["counted"]), p["selected_percent"]);
    print_found(p, out);
    if (p.contains("tidy")) {
      out << fmt::format("  {} before tidying\n", counted(p["tidy"]["selected_before"]));
      print_steps(p["tidy"]["steps"], out);
    }
    print_left_out(p, out);
  }
  print_selected_shares_of_all(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kMask;
const Command kMask{
    .name = "mask",
    .summary = "the pixels a selection takes, as a mask and as a cut-out",
    .operands = "INPUT... --where SELECTION | --like PLACE | --auto CHANNEL",
    .purpose =
        "Selects pixels by their channels. An interval holds both its ends; an interval of a hue "
        "from a higher to a lower value runs through 360. near(COLOR, N) takes the colors within N "
        "of CIEDE2000 from a CSS color. A pixel without hue passes no test on a hue. --like and "
        "--auto find a selection and print it, to be edited and kept.",
    .examples =
        {{"mask panel-a.png --where \"hsv.h in 340..20 and hsv.s > 50\" -o out/", "the red glass"},
         {"mask panel-a.png --like panel-a.samples.geojson:cobalt --by gaussian --tidy \"drop 20; "
          "fill "
          "80\" "
          "-o out/",
          "what is like the samples of the blue glass, without specks and small holes, and the "
          "selection that takes it"},
         {"mask panel-b.png --where \"near(#d68e18, 15)\" --background dimmed -o out/",
          "what is like amber, the rest dimmed"}},
    .results = mask_results,
    .declare = declare_mask,
    .run = do_mask,
    .print = print_mask,
    .traits = {Trait::kReadsSamples, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
