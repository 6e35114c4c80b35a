#include "job/select/slice.h"

#include <fmt/format.h>

#include <optional>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/selected_class_options.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "core/palette/selection_colors.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostSlices = 64;

void declare_slice(po::options_description& options) {
  add_option<std::string>(options, "channel", "CHANNEL", "whose values are sliced");
  add_option<std::string>(
      options, "cuts", "A,B,C,...",
      "slices from A to B, from B to C, and so on; of a hue also from the last one round to "
      "the first");
  add_repeated_option(
      options, "range", "NAME=A..B",
      "a slice of this name; may be repeated. A hue may run from a higher to a lower value");
  add_option<std::string>(options, "equal", "N", "N slices of one width over the usual range");
  add_option<std::string>(options, "quantiles", "N",
                          "N slices of as many pixels each, for each picture");
  add_repeated_option(options, "where", "NAME=SELECTION",
                      "the pixels of a selection as a class of this name, in place of --channel; "
                      "may be repeated: what several take is of the first");
  add_repeated_option(options, "color", "NAME=COLOR",
                      "the color of a class, as CSS; may be repeated");
}

double number_of(const std::string& option, const std::string& text) {
  const auto value = read_number<double>(text);
  if (!value)
    throw UsageError("--" + option + ": '" + text + "' is not a number",
                     "write values of the channel, in its units");
  return *value;
}

std::vector<double> cuts_of(const std::string& text) {
  std::vector<double> cuts;
  for (const std::string& cut : split_list(text)) {
    cuts.push_back(number_of("cuts", cut));
    if (cuts.size() > 1 && cuts.back() <= cuts[cuts.size() - 2])
      throw UsageError("--cuts: " + cut + " does not lie above the value before it",
                       "write the cuts in rising order");
  }
  if (cuts.size() < 2) throw UsageError("--cuts needs two values or more", "as in --cuts 0,50,100");
  return cuts;
}

Slice range_of(const Channel& channel, const std::string& text, std::size_t index) {
  const auto [name, values] = named_value("--range", text);
  const std::size_t dots = values.find("..");
  if (dots == std::string::npos)
    throw UsageError("--range: '" + values + "' is no interval", "write it as in dark=0..30");
  const double low = number_of("range", values.substr(0, dots)),
               high = number_of("range", values.substr(dots + 2));
  if (low >= high && !channel.is_hue())
    throw UsageError("--range: " + values + " holds no value", "write the smaller value first");
  return {name, slice_color(channel, low, high, class_color(index)), low, high};
}

std::vector<Slice> equal_slices(const Channel& channel, std::size_t count) {
  if (channel.is_stored())
    throw UsageError("--equal: " + channel.name() + " has no usual range", "give --cuts");
  const ChannelInfo& usual = channel.info();
  std::vector<double> ends;
  for (std::size_t s = 0; s <= count; ++s)
    ends.push_back(usual.low +
                   (usual.high - usual.low) * static_cast<double>(s) / static_cast<double>(count));
  return slices_between(channel, ends);
}

void read_slices(const po::variables_map& given, SliceOptions& options) {
  if (!given.count("channel"))
    throw UsageError("slice needs --channel, or --where with names",
                     "say which values, as in --channel lab.l or --where \"dark=lab.l < 30\"");
  options.channel = channel_option("--channel", given["channel"].as<std::string>(), options.shared);
  std::size_t ways = 0;
  for (const char* option : {"cuts", "range", "equal", "quantiles"})
    ways += given.count(option) > 0;
  if (ways != 1)
    throw UsageError("slice takes one of --cuts, --range, --equal and --quantiles",
                     "as in --cuts 0,30,60,100");
  if (given.count("cuts"))
    options.slices =
        slices_between(options.channel,
                       round_the_circle(options.channel, cuts_of(given["cuts"].as<std::string>())));
  for (const auto& text : texts_of(given, "range"))
    options.slices.push_back(range_of(options.channel, text, options.slices.size()));
  if (given.count("equal"))
    options.slices = equal_slices(
        options.channel, whole_number("--equal", given["equal"].as<std::string>(), 1, kMostSlices));
  if (given.count("quantiles")) {
    if (options.channel.is_hue())
      throw UsageError("--quantiles: a hue has no lowest value to begin with", "give --cuts");
    options.quantiles =
        whole_number("--quantiles", given["quantiles"].as<std::string>(), 1, kMostSlices);
  }
  color_classes(given, options.slices);
}

void read_selections(const po::variables_map& given, SliceOptions& options) {
  for (const char* option : {"channel", "cuts", "range", "equal", "quantiles"})
    if (given.count(option))
      throw UsageError(fmt::format("--where and --{} each say what the classes are", option),
                       "give one of them");
  options.selected = selections_of_where(given, options.shared);
  for (const SelectedClass& one : options.selected) require_name(one);
  color_classes(given, options.selected);
  give_colors(options.selected);
}

Json do_slice(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  SliceOptions options;
  options.shared = shared;
  (given.count("where") ? read_selections : read_slices)(given, options);
  if (options.slices.size() > kMostSlices)
    throw UsageError(
        fmt::format("there are {} slices, more than {}", options.slices.size(), kMostSlices),
        "give fewer");
  return run_slice(options, context);
}

/// One end of every interval of a class.
std::string limits_of(const std::string& name, const Json& slices, const char* end) {
  std::vector<std::string> limits;
  for (const Json& slice : slices)
    if (slice["name"] == name) limits.push_back(fmt::format("{:.6g}", slice[end]));
  return fmt::format("{}", fmt::join(limits, ", "));
}

/// The selections of a class, as it takes what any of them takes.
std::string selections_of(const std::string& name, const Json& selections) {
  std::vector<std::string> texts;
  for (const Json& one : selections)
    if (one["name"] == name) texts.push_back(one["where"]);
  return fmt::format("{}", fmt::join(texts, "; or "));
}

void print_selected(const Json& p, const Json& selections, std::ostream& out) {
  out << fmt::format("{}: {} by {}, {:.2f} % in none\n", p["file"], plural(p["counted"], "pixel"),
                     plural(selections.size(), "selection"), p["unclassified_percent"]);
  print_left_out(p, out);
  TextTable(p["classes"])
      .words("class", "name")
      .counts("pixels", "pixels")
      .percents("share of counted", "percent")
      .words("selection", [&](const Json& c) { return selections_of(c["name"], selections); })
      .print(out);
  std::vector<std::string> channels;
  for (const Json& one : selections)
    for (const Json& channel : one["channels"]) channels.push_back(channel);
  print_whites(channels, out);
  if (p["contested"] > 0)
    out << fmt::format("  {} in several of them; each is of the first that takes it\n",
                       plural(p["contested"], "pixel"));
}

void print_slice(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"]) {
    if (summary.contains("selections")) {
      print_selected(p, summary["selections"], out);
      continue;
    }
    out << fmt::format("{}: {} sliced by {}, {:.2f} % in no slice\n", p["file"],
                       plural(p["counted"], "pixel"), summary["channel"],
                       p["unclassified_percent"]);
    print_left_out(p, out);
    TextTable(p["classes"])
        .words("class", "name")
        .cells("from", [&](const Json& c) { return limits_of(c["name"], p["slices"], "from"); })
        .cells("to", [&](const Json& c) { return limits_of(c["name"], p["slices"], "to"); })
        .counts("pixels", "pixels")
        .percents("share of counted", "percent")
        .print(out);
    print_whites({summary["channel"]}, out);
  }
  print_class_shares_of_all(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSlice;
const Command kSlice{
    .name = "slice",
    .summary = "intervals of one channel, or selections, as classes",
    .operands = "INPUT... --channel CHANNEL --cuts A,B,C | --where NAME=SELECTION",
    .purpose =
        "Makes a class map of value intervals of one channel: given ones, equal ones, or such that "
        "hold as many pixels each. An interval holds its lower end, and its upper end when it is "
        "the last. Or of selections as mask takes them, each with the name of its class. Pixels in "
        "none of them have no class.",
    .examples =
        {{"slice panel-a.png --channel lab.l --cuts 0,30,60,100 -o out/", "dark, middle and light"},
         {"slice panel-a.png --where \"ruby=hsv.h in 340..20 and hsv.s >= 50\" --where "
          "\"cobalt=hsv.h in 200..260 and hsv.s >= 40\" --where \"lead=lab.l < 25\" -o out/",
          "two kinds of glass and the lead, each by a selection"},
         {"slice panel-a.png --channel gray --quantiles 4",
          "quarters of the pixels, from dark to light"}},
    .results = slice_results,
    .declare = declare_slice,
    .run = do_slice,
    .print = print_slice,
    .traits = {Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
