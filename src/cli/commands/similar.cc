#include "job/histogram/similar.h"

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

constexpr std::uint64_t kMostDescribedCube = 16, kMostDescribedJoint = 256,
                        kMostHistogramBins = 1024;

void declare_similar(po::options_description& options) {
  add_option<std::string>(options, "to", "PICTURE", "the picture the others are held against");
  add_option<std::string>(
      options, "cube", "N",
      "compare the three channels of --space together, in N x N x N bins (default 6 of oklab)");
  add_option<std::string>(options, "joint", "A,B", "compare two channels together instead");
  add_option<std::string>(options, "channels", "LIST", "compare channels one by one instead");
  add_option<std::string>(options, "bins", "N",
                          "bins of each of those channels (default 24 of two, 64 of one)");
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
  options.space = &three_channel_space("--space", text_of(given, "space", "oklab"));
}

void read_bins(const po::variables_map& given, SimilarOptions& options) {
  // Transport over all bins of several axes is exact, and its time grows with their cube.
  const bool exact = options.distance == HistogramDistance::kTransport;
  const bool cube = options.by == DescribedBy::kCube;
  if (cube && given.count("bins"))
    throw UsageError("--bins is of --joint and --channels", "write --cube N for bins of a cube");
  const char* const option = cube ? "cube" : "bins";
  const std::uint64_t most = cube ? (exact ? 8 : kMostDescribedCube)
                             : options.by == DescribedBy::kJoint
                                 ? (exact ? 24 : kMostDescribedJoint)
                                 : kMostHistogramBins;
  if (given.count(option))
    options.bins =
        whole_number("--" + std::string(option), given[option].as<std::string>(), 1, most);
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
  read_bins(given, options);
  return run_similar(options, context);
}

void print_similar(const Json& summary, std::ostream& out) {
  if (summary["ranking"].empty()) return;
  out << fmt::format("like {}, by {}\n", summary["query"], summary["distance"]);
  TextTable(summary["ranking"])
      .words("picture", "file")
      .decimals("distance", "distance", 4)
      .print(out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kSimilar;
const Command kSimilar{
    .name = "similar",
    .summary = "pictures in the order of how much their colors are like those of one picture",
    .operands = "INPUT... --to PICTURE",
    .purpose =
        "Ranks pictures by the distance of their color histograms to that of one picture: of three "
        "channels together, of two, or one by one. 0 is the same; all but transport end at 1.",
    .examples =
        {{"similar panel-b.png panel-c.png panel-d.png --to panel-a.png -o out/",
          "which panel has the colors of panel A"},
         {"similar panel-b.png panel-c.png panel-d.png --to panel-a.png --joint hsv.h,hsv.s "
          "--distance overlap",
          "by hue and saturation together"},
         {"similar panel-b.png panel-c.png --to panel-a.png --channels hsv.h,lab.l --distance "
          "transport",
          "how far hue and lightness must move"}},
    .results = similar_results,
    .declare = declare_similar,
    .run = do_similar,
    .print = print_similar,
    .traits = {Trait::kJoinsInputs, Trait::kSkipsBad, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
