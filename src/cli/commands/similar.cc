#include "job/similar.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/command.h"
#include "cli/outputs_text.h"
#include "cli/shared_flags.h"
#include "cli/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostCubeBins = 16, kMostHistogramBins = 1024;

void declare_similar(po::options_description& options) {
  add_option<std::string>(options, "to", "PICTURE", "the picture the others are held against");
  add_option<std::string>(
      options, "cube", "SPACE",
      "compare all three channels of a space together (default oklab, or that of --space)");
  add_option<std::string>(options, "joint", "A,B", "compare two channels together instead");
  add_option<std::string>(options, "channels", "LIST", "compare channels one by one instead");
  add_option<std::string>(options, "bins", "N",
                          "bins of each channel (default 6 for a cube, 24 for two, 64 for one)");
  add_option<std::string>(options, "distance", "overlap|jensen-shannon|hellinger|transport",
                          "how histograms are compared (default jensen-shannon)");
}

std::vector<Channel> channels_in(const std::string& option, const std::string& text,
                                 const SharedOptions& shared) {
  const auto channels = channels_option(option, text, shared);
  for (const Channel& channel : channels)
    if (channel.is_stored())
      throw UsageError(option + ": " + channel.name() + " has no usual range to compare over",
                       "name channels of a space");
  return channels;
}

void read_kind(const po::variables_map& given, SimilarOptions& options) {
  if (given.count("cube") + given.count("joint") + given.count("channels") > 1)
    throw UsageError("--cube, --joint and --channels each say what is compared",
                     "give one of them");
  if (given.count("joint")) {
    options.by = DescribedBy::kJoint;
    options.channels = channels_in("--joint", given["joint"].as<std::string>(), options.shared);
    if (options.channels.size() != 2)
      throw UsageError("--joint takes two channels", "write two, as in hsv.h,hsv.s");
    return;
  }
  if (given.count("channels")) {
    options.by = DescribedBy::kChannels;
    options.channels =
        channels_in("--channels", given["channels"].as<std::string>(), options.shared);
    return;
  }
  const char* const names_it = given.count("space") && !given.count("cube") ? "space" : "cube";
  options.space =
      &three_channel_space("--" + std::string(names_it), text_of(given, names_it, "oklab"));
}

Json do_similar(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  if (!given.count("to"))
    throw UsageError("similar needs --to", "name the picture the others are held against");
  SimilarOptions options;
  options.shared = shared;
  options.query = given["to"].as<std::string>();
  read_kind(given, options);
  options.distance_name = text_of(given, "distance", "jensen-shannon");
  options.distance =
      choice_of<HistogramDistance>("--distance", options.distance_name,
                                   {{"overlap", HistogramDistance::kOverlap},
                                    {"jensen-shannon", HistogramDistance::kJensenShannon},
                                    {"hellinger", HistogramDistance::kHellinger},
                                    {"transport", HistogramDistance::kTransport}});
  // Transport over all bins of several axes is exact, and its time grows with their cube.
  const bool exact = options.distance == HistogramDistance::kTransport;
  const std::uint64_t most = options.by == DescribedBy::kCube    ? (exact ? 8 : kMostCubeBins)
                             : options.by == DescribedBy::kJoint ? (exact ? 24 : 256)
                                                                 : kMostHistogramBins;
  if (given.count("bins"))
    options.bins = whole_number("--bins", given["bins"].as<std::string>(), 1, most);
  return run_similar(options, context);
}

void print_similar(const Json& summary, std::ostream& out) {
  if (summary["ranking"].empty()) return;
  out << fmt::format("like {}, by {}\n", summary["query"].get<std::string>(),
                     summary["distance"].get<std::string>());
  TextTable table({"picture", "distance"});
  for (const Json& one : summary["ranking"])
    table.add(
        {one["file"].get<std::string>(), fmt::format("{:.4f}", one["distance"].get<double>())});
  table.print(out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSimilar;
const Command kSimilar{
    "similar",
    "pictures in the order of how much their colors are like those of one picture",
    "INPUT... --to PICTURE",
    "Ranks pictures by the distance of their color histograms to that of one picture: of three "
    "channels together, of two, or one by one. 0 is the same; all but transport end at 1.",
    {{"similar panel-b.png panel-c.png panel-d.png --to panel-a.png -o out/",
      "which panel has the colors of panel A"},
     {"similar panel-b.png panel-c.png panel-d.png --to panel-a.png --joint hsv.h,hsv.s "
      "--distance overlap",
      "by hue and saturation together"},
     {"similar panel-b.png panel-c.png --to panel-a.png --channels hsv.h,lab.l --distance "
      "transport",
      "how far hue and lightness must move"}},
    true,
    similar_results,
    declare_similar,
    do_similar,
    print_similar,
    {},
    {},
    {Trait::kJoinsInputs, Trait::kNamesChannels}};

}  // namespace chalcedony::cli
