// `chalcedony histogram`: channel and joint histograms.
#include "job/histogram/histogram.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/options/shared_flags.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/split_list.h"
#include "io/text/number_text.h"
#include "job/histogram/histogram_merge.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostBins = 65536, kMostJointBins = 4096, kMostPeaks = 100,
                        kMostCubeBins = 64;

void declare_histogram(po::options_description& options) {
  add_option<std::string>(options, "channels", "LIST",
                          "channels or whole spaces, separated by commas (default the picture's "
                          "own; none when --joint is given)");
  add_option<std::string>(options, "bins", "N", "bins of every channel (default 256)");
  add_repeated_option(options, "joint", "A,B",
                      "count two channels together; may be repeated. all: the three pairs of "
                      "--space");
  add_flag(options, "matrix", "write joint counts as matrices too");
  add_flag(options, "merge", "the inputs are histogram tables of one layout: add up their counts");
  add_flag(options, "skip-bad",
           "for --merge: leave out tables that cannot be used; else the first one stops the run");
  add_option<std::string>(options, "joint-bins", "N,M",
                          "bins of the two (default 120,50 for hue and saturation, else 64,64)");
  add_option<std::string>(options, "cube", "N",
                          "count the three channels of a space together, in N x N x N bins");
  add_option<std::string>(
      options, "space", "SPACE",
      "whose channels are meant where none are named, and may be named without it; "
      "the space of the cube and of --joint all (default oklab)");
  add_flag(options, "log", "show the counts of channels on a logarithmic axis");
  add_flag(options, "shares", "show shares of the counted pixels on that axis, not pixels");
  add_option<std::string>(options, "heat", "log|linear",
                          "how the colors of joint histograms follow the counts (default log)");
  add_flag(options, "disc", "draw joint histograms of a hue as a disc too");
  add_flag(options, "colors",
           "write the distinct colors with their pixels, which cluster and palette take in place "
           "of pictures");
  add_option<std::string>(options, "peaks", "N",
                          "find the N main peaks of every histogram, and a --where text for each");
}

std::pair<Channel, Channel> channel_pair(const std::string& text, const SharedOptions& shared) {
  const auto channels = channels_option("--joint", text, shared);
  if (channels.size() != 2)
    throw UsageError("--joint: '" + text + "' is not two channels", "write two, as in hsv.h,hsv.s");
  return {channels[0], channels[1]};
}

void read_joint(const po::variables_map& given, HistogramOptions& options) {
  const auto joint = texts_of(given, "joint");
  const bool joint_all = std::find(joint.begin(), joint.end(), "all") != joint.end();
  if (given.count("cube") || joint_all)
    options.cube_space = &three_channel_space("--space", text_of(given, "space", "oklab"));
  for (const std::string& text : joint) {
    if (text != "all") {
      options.joint.push_back(channel_pair(text, options.shared));
      continue;
    }
    const auto three = channels_of(*options.cube_space);
    for (const auto& [a, b] : {std::pair{0u, 1u}, {0u, 2u}, {1u, 2u}})
      options.joint.emplace_back(three[a], three[b]);
  }
  options.joint_matrix = given.count("matrix") > 0;
  options.disc = given.count("disc") > 0;
  if (options.disc && std::none_of(options.joint.begin(), options.joint.end(),
                                   [](const auto& pair) { return pair.first.is_hue(); }))
    throw UsageError("--disc is of a hue and another channel", "add --joint hsv.h,hsv.s");
}

/// The channels that are counted by themselves, once the other histograms are known.
void read_channels(const po::variables_map& given, HistogramOptions& options) {
  const SharedOptions& shared = options.shared;
  if (given.count("channels") || (options.joint.empty() && options.cube == 0 && !options.colors)) {
    options.own_channels = !given.count("channels") && !shared.names.bare_space;
    if (!options.own_channels) options.channels = channels_or_space(given, "channels", shared, "");
  }
  if (shared.asks_for("channels") && options.channels.empty() && !options.own_channels)
    throw UsageError("--write: no 'channels' are counted here by themselves",
                     "name them with --channels, or leave 'channels' out");
}

/// Options that say how histograms of a kind are made or shown mean nothing where there are none.
///
/// Errors    UsageError
void check_kinds(const po::variables_map& given, const HistogramOptions& options) {
  const bool joint = !options.joint.empty(),
             channels = options.own_channels || !options.channels.empty();
  const auto check = [&](bool has, const char* option, const char* kind, const char* add) {
    if (!has && given.count(option))
      throw UsageError(fmt::format("--{} is of {} histograms, and none is asked for", option, kind),
                       std::string("add ") + add);
  };
  for (const char* option : {"matrix", "joint-bins", "heat"})
    check(joint, option, "joint", "--joint A,B");
  for (const char* option : {"bins", "log", "shares"})
    check(channels, option, "channel", "--channels LIST");
  check(joint || channels, "peaks", "channel and joint", "--channels LIST or --joint A,B");
}

void read_joint_bins(const std::string& text, HistogramOptions& options) {
  const auto parts = split_list(text);
  if (parts.size() != 2)
    throw UsageError("--joint-bins: '" + text + "' is not two numbers", "write N,M");
  options.joint_bins = {whole_number("--joint-bins", parts[0], 1, kMostJointBins),
                        whole_number("--joint-bins", parts[1], 1, kMostJointBins)};
}

Json do_histogram(const po::variables_map& given, const SharedOptions& shared,
                  const Context& context) {
  if (given.count("merge")) {
    refuse_options(given,
                   {"channels", "bins", "joint", "joint-bins", "cube", "space", "peaks", "matrix",
                    "colors", "log", "shares", "heat", "disc", "region", "within"},
                   "--merge adds up tables");
    return merge_histograms(shared, context);
  }
  refuse_options(given, {"skip-bad"}, "of several pictures, those that are bad are left out");
  HistogramOptions options;
  options.shared = shared;
  read_joint(given, options);
  if (given.count("cube"))
    options.cube = whole_number("--cube", given["cube"].as<std::string>(), 1, kMostCubeBins);
  options.counts = {given.count("log") > 0, given.count("shares") > 0};
  options.linear_heat =
      one_of("--heat", text_of(given, "heat", "log"), {"log", "linear"}) == "linear";
  options.colors = given.count("colors") > 0;
  read_channels(given, options);
  check_kinds(given, options);
  if (given.count("bins"))
    options.bins = whole_number("--bins", given["bins"].as<std::string>(), 1, kMostBins);
  if (given.count("joint-bins")) read_joint_bins(text_of(given, "joint-bins", ""), options);
  if (given.count("peaks"))
    options.peaks = whole_number("--peaks", given["peaks"].as<std::string>(), 1, kMostPeaks);
  return run_histogram(options, context);
}

void print_peaks(const Json& all, std::ostream& out) {
  for (const Json& of_one : all) {
    out << fmt::format("  peaks of {}, smoothed by {}\n", of_one["histogram"],
                       of_one["smoothed_by"]);
    std::size_t number = 0;
    TextTable(of_one["peaks"])
        .words("peak, as a --where text",
               [&](const Json& peak) { return fmt::format("{}  {}", ++number, peak["where"]); })
        .percents("share", "percent")
        .words("mean color", "css")
        .print(out);
  }
}

std::string interval(const Json& from, const Json& below) {
  return rounded_text(from, 4) + " to " + rounded_text(below, 4);
}

void print_histogram(const Json& summary, std::ostream& out) {
  if (summary.contains("merged"))
    out << fmt::format("{} added up: {}\n", plural(summary["merged"]["tables"], "table"),
                       plural(summary["merged"]["pixels"], "pixel"));
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} counted\n", p["file"], plural(p["counted"], "pixel"));
    print_left_out(p, out);
    if (!p["channels"].empty()) {
      TextTable(p["channels"])
          .channels("channel", "channel")
          .counts("bins", "bins")
          .numbers_by_row({{"median from", "median_bin_from"}}, 4)
          .cells(
              "fullest bin",
              [](const Json& c) { return interval(c["fullest_bin_from"], c["fullest_bin_below"]); })
          .percents("holds", "fullest_bin_percent")
          .counts("below", "below")
          .counts("above", "above")
          .counts("no hue", "no_hue")
          .print(out);
    }
    for (const Json& j : p["joint"]) {
      out << fmt::format("  {} with {}: fullest at {} and {}, {:.2f} %", j["first"], j["second"],
                         interval(j["fullest_first"][0], j["fullest_first"][1]),
                         interval(j["fullest_second"][0], j["fullest_second"][1]),
                         j["fullest_percent"]);
      const auto no_hue = j["no_hue"].get<std::uint64_t>();
      out << (no_hue > 0 ? "; " + plural(no_hue, "pixel") + " without hue\n" : "\n");
    }
    if (p.contains("cube"))
      out << fmt::format(
          "  cube of {}: {} of {} bins hold pixels\n", p["cube"]["space"],
          counted(p["cube"]["filled_bins"]),
          counted(static_cast<std::uint64_t>(std::pow(p["cube"]["bins"].get<double>(), 3))));
    if (p.contains("peaks")) print_peaks(p["peaks"], out);
  }
  print_outputs(summary, out);
  print_use_of_selections(summary, ".peaks.yaml", out);
}

}  // namespace

extern const Command kHistogram;
const Command kHistogram{
    .name = "histogram",
    .summary = "channel and joint histograms, as tables and figures",
    .operands = "INPUT...",
    .purpose =
        "Counts the values of channels in equal bins, alone or two together. Bins are half-open "
        "and the last one closed; pixels without hue are counted apart. Rows of a table sum to the "
        "counted pixels.",
    .examples =
        {{"histogram panel-a.png -o out/", "red, green and blue"},
         {"histogram panel-a.png --channels lab --joint hsv.h,hsv.s --region percent:25,25,50,50 "
          "-o "
          "out/",
          "lightness, the two Lab axes, and hue against saturation, of the middle of the picture"},
         {"histogram panel-b.png --joint hsv.h,hsv.s --peaks 6 -o out/",
          "the six main colors, each with a selection that mask takes as it stands"}},
    .results = histogram_results,
    .declare = declare_histogram,
    .run = do_histogram,
    .print = print_histogram,
    .traits = {Trait::kNamesChannels, Trait::kOwnSpace},
};

}  // namespace chalcedony::cli
