// `chalcedony classify`: class maps by a model.
#include "job/map/classify.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/read_number.h"

namespace chalcedony::cli {
namespace {

void declare_classify(po::options_description& options) {
  add_option<std::string>(options, "model", "FILE", "the model.json that train wrote");
  add_option<std::string>(options, "reject", "PERCENT",
                          "leave pixels unclassified that are farther from their class than this "
                          "share of its samples: 90, 95, 99, 99.9 or 100 (default: none is)");
  add_flag(options, "confidence", "measure how sure each pixel is, and write it as a picture");
  add_option<std::string>(options, "blend", "SHARE",
                          "write the picture with so much of the class colors over it, above 0 "
                          "and up to 1");
  add_option<std::string>(options, "suggest", "N",
                          "say where samples would help: at most N places that stand for most of "
                          "what is doubtful");
  declare_pixel_size(options);
}

constexpr std::uint64_t kMostSuggested = 100;

double reject_option(const po::variables_map& given) {
  if (!given.count("reject")) return 0;
  const auto text = given["reject"].as<std::string>();
  const auto percent = read_number<double>(text);
  if (!percent ||
      std::find(kReachPercents.begin(), kReachPercents.end(), *percent) == kReachPercents.end())
    throw UsageError("--reject: '" + text + "' is no share that models know",
                     "use 90, 95, 99, 99.9 or 100");
  return *percent;
}

double blend_option(const po::variables_map& given) {
  if (!given.count("blend")) return 0;
  return number_in("--blend", given["blend"].as<std::string>(),
                   {.low = 0, .high = 1, .with_high = true});
}

Json do_classify(const po::variables_map& given, const SharedOptions& shared,
                 const Context& context) {
  if (!given.count("model")) throw UsageError("classify needs --model", "name a model.json");
  ClassifyOptions options;
  options.shared = shared;
  options.model = given["model"].as<std::string>();
  options.reject_percent = reject_option(given);
  options.map.confidence = given.count("confidence") > 0;
  options.map.blend = blend_option(given);
  if (given.count("suggest"))
    options.map.suggest =
        whole_number("--suggest", given["suggest"].as<std::string>(), 1, kMostSuggested);
  options.map.pixel_size = pixel_size_option(given);
  return run_classify(options, context);
}

std::string guess_text(const Json& place) {
  return place["guess"] == "" ? "none" : place["guess"].get<std::string>();
}

void print_suggested(const Json& picture, std::ostream& out) {
  out << fmt::format("  {} of pixels are doubtful; ", rough_percent(picture["doubtful_percent"]));
  if (picture["suggested"].empty()) {
    out << "no place stands for enough of them to sample it\n";
    return;
  }
  out << "where samples would help\n";
  TextTable table(picture["suggested"]);
  table.counts("number", "number")
      .decimals("x", "x", 1)
      .decimals("y", "y", 1)
      .cells("guess", guess_text)
      .percents("stands for", "percent");
  table.print(out);
}

/// Of several pictures.
void print_check_first(const Json& summary, std::ostream& out) {
  Json places = summary["check_first"];
  if (places.empty()) return;
  out << "Places to check first, with what they stand for in all pictures\n";
  for (std::size_t i = 0; i < places.size(); ++i) places[i]["check"] = i + 1;
  TextTable table(places);
  table.counts("check", "check")
      .words("picture", "file")
      .counts("number", "number")
      .cells("guess", guess_text)
      .percents("stands for", "percent");
  table.print(out);
}

/// How to go on with what was suggested.
void print_next_step(const Json& summary, std::ostream& out) {
  for (const Json& file : summary["outputs"])
    if (file.get<std::string>().ends_with(".suggested.geojson")) {
      out << fmt::format(
          "then train with those whose guesses are right, as --from {} --samples "
          "{}:1,2=OTHER-CLASS\n",
          summary["model"], file);
      return;
    }
}

void print_classify(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} counted, {}\n", p["file"], plural(p["counted"], "pixel"),
                       summary["method"]);
    print_left_out(p, out);
    if (p.contains("note")) out << fmt::format("  note: {}\n", p["note"]);
    print_class_shares(p, out);
    if (p["contested"] > 0)
      out << fmt::format("  {} in the boxes of several classes; each went to the nearest middle\n",
                         plural(p["contested"], "pixel"));
    if (p["far"] > 0)
      out << fmt::format("  {} of pixels are farther from every class than 99 % of its samples\n",
                         rough_percent(p["far_percent"]));
    if (p.contains("confidence"))
      out << fmt::format(
          "  confidence: mean {:.1f} %, median {:.1f} %, lowest 5 % at most {:.1f} %\n",
          p["confidence"]["mean_percent"], p["confidence"]["median_percent"],
          p["confidence"]["percentile_5"]);
    if (p.contains("suggested")) print_suggested(p, out);
  }
  print_class_shares_of_all(summary, out);
  if (summary.contains("check_first")) print_check_first(summary, out);
  print_next_step(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kClassify;
const Command kClassify{
    .name = "classify",
    .summary = "class maps of pictures by a model",
    .operands = "INPUT... --model FILE",
    .purpose =
        "Assigns every pixel to a class of a model that train wrote: a class map with names and "
        "colors inside, the areas of the classes, and a figure with a legend.",
    .examples =
        {{"classify panel-b.png --model glass.model.json -o out/", "the map of another panel"},
         {"classify panel-a.png panel-b.png panel-c.png --model glass.model.json --reject 99.9 "
          "--confidence --blend 0.5 --pixel-size 0.5mm -o out/",
          "three maps without what is like no sample, how sure they are, and areas in square "
          "millimeters"},
         {"classify panel-c.png --model glass.model.json --region 40,40,200,120",
          "only the shares in a part, without writing anything"}},
    .results = classify_results,
    .declare = declare_classify,
    .run = do_classify,
    .print = print_classify,
    .refuses = {{"let"}, "the model holds what its channels are"},
};

}  // namespace chalcedony::cli
