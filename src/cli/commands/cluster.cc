// `chalcedony cluster`: groups of colors, found without samples.
#include "job/cluster/cluster.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/channel_text.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/shares_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"
#include "core/split_list.h"

namespace chalcedony::cli {
namespace {

constexpr std::uint64_t kMostGroups = 64, kMostRestarts = 1000, kMostIterations = 100000;

void declare_cluster(po::options_description& options) {
  add_option<std::string>(options, "method", "METHOD",
                          "k-means or gaussian-mixture (default k-means)");
  add_option<std::string>(options, "k", "N|A..B",
                          "how many groups, or a range to choose from (default 1..10)");
  add_option<std::string>(options, "features", "LIST",
                          "channels to group in (default oklab.l,oklab.a,oklab.b)");
  add_option<std::string>(options, "scaling", "none|spread|range",
                          "what features are divided by (default none; spread when their units "
                          "differ)");
  add_option<std::string>(options, "shape", "own|axes|round|shared",
                          "covariances of a mixture: each its own, along the axes, round, or one "
                          "for all (default own)");
  add_option<std::string>(options, "start", "spread|random",
                          "how the first centers are drawn (default spread)");
  add_option<std::string>(options, "restarts", "N",
                          "runs from different starts; the best is kept (default 5)");
  add_option<std::string>(options, "iterations", "N",
                          "most iterations of a run (default 200; for mixtures 300, after 15 from "
                          "each start)");
  add_option<std::string>(options, "order", "share|lightness",
                          "number groups by share, or from light to dark (default share)");
  add_option<std::string>(options, "colors", "centers|distinct",
                          "color of a group: its mean, or one easy to tell from the others "
                          "(default centers)");
  add_option<std::string>(options, "probabilities", "16|float",
                          "write how likely each pixel is in each group of a mixture, a picture "
                          "for each");
  add_option<std::string>(options, "model", "FILE",
                          "take the groups from a clusters.model.json instead of finding them");
  add_repeated_option(options, "name", "N=NAME", "name group N; may be repeated");
  add_repeated_option(options, "merge", "NAME=N,M,...",
                      "make several groups one class; may be repeated");
}

std::pair<std::size_t, std::size_t> group_range(const std::string& text) {
  const std::size_t dots = text.find("..");
  if (dots == std::string::npos) {
    const std::uint64_t k = whole_number("--k", text, 1, kMostGroups);
    return {k, k};
  }
  const std::uint64_t first = whole_number("--k", text.substr(0, dots), 1, kMostGroups);
  const std::uint64_t last = whole_number("--k", text.substr(dots + 2), 1, kMostGroups);
  if (last < first)
    throw UsageError("--k: the range '" + text + "' is empty",
                     "write the smaller number first, as in 2..8");
  return {first, last};
}

void read_mixture(const po::variables_map& given, ClusterOptions& options) {
  if (options.method != ClusterMethod::kMixture) {
    for (const char* option : {"shape", "probabilities"})
      if (given.count(option) && !(options.model && option == std::string("probabilities")))
        throw UsageError("--" + std::string(option) + " is for mixtures only",
                         "leave it out, or give --method gaussian-mixture");
  }
  options.mixture.shape = choice_of<MixtureShape>("--shape", text_of(given, "shape", "own"),
                                                  {{"own", MixtureShape::kOwn},
                                                   {"axes", MixtureShape::kAxes},
                                                   {"round", MixtureShape::kRound},
                                                   {"shared", MixtureShape::kShared}});
  if (!given.count("probabilities")) return;
  options.probabilities = choice_of<ProbabilityPictures>(
      "--probabilities", given["probabilities"].as<std::string>(),
      {{"16", ProbabilityPictures::k16}, {"float", ProbabilityPictures::kFloat}});
}

void read_search(const po::variables_map& given, ClusterOptions& options) {
  std::tie(options.first_k, options.last_k) = group_range(text_of(given, "k", "1..10"));
  options.features = channels_or_space(given, "features", options.shared, "");
  options.scaling = scaling_option(given);
  options.groups.start =
      choice_of<CenterStart>("--start", text_of(given, "start", "spread"),
                             {{"spread", CenterStart::kSpread}, {"random", CenterStart::kRandom}});
  if (given.count("restarts"))
    options.groups.restarts = static_cast<unsigned>(
        whole_number("--restarts", given["restarts"].as<std::string>(), 1, kMostRestarts));
  if (given.count("iterations"))
    options.groups.most_iterations = options.mixture.most_iterations = static_cast<unsigned>(
        whole_number("--iterations", given["iterations"].as<std::string>(), 1, kMostIterations));
}

void read_names(const po::variables_map& given, ClusterOptions& options) {
  for (const auto& text : texts_of(given, "name")) {
    const auto [number, name] = named_value("--name", text);
    options.names.emplace_back(whole_number("--name", number, 1, kMostGroups), name);
  }
  for (const auto& text : texts_of(given, "merge")) {
    const auto [name, list] = named_value("--merge", text);
    auto& numbers = options.merges.emplace_back(name, std::vector<std::size_t>{}).second;
    for (const std::string& number : split_list(list))
      numbers.push_back(whole_number("--merge", number, 1, kMostGroups));
  }
}

/// One number of groups is held against no other.
void check_criteria(const ClusterOptions& options) {
  const bool one = options.model || options.first_k == options.last_k;
  if (one && options.shared.asks_for("criteria"))
    throw UsageError("--write: 'criteria' are of a range of numbers of groups",
                     "give one, as in --k 2..8, or leave 'criteria' out");
}

Json do_cluster(const po::variables_map& given, const SharedOptions& shared,
                const Context& context) {
  ClusterOptions options;
  options.shared = shared;
  if (given.count("model")) {
    for (const char* option : {"method", "k", "space", "features", "scaling", "start", "restarts",
                               "iterations", "order", "colors"})
      if (given.count(option))
        throw UsageError(
            "--" + std::string(option) + " is for finding groups, and --model has them",
            "leave one of the two out");
    options.model = given["model"].as<std::string>();
  }
  options.method = choice_of<ClusterMethod>(
      "--method", text_of(given, "method", "k-means"),
      {{"k-means", ClusterMethod::kMeans}, {"gaussian-mixture", ClusterMethod::kMixture}});
  read_mixture(given, options);
  read_search(given, options);
  options.order =
      choice_of<GroupOrder>("--order", text_of(given, "order", "share"),
                            {{"share", GroupOrder::kShare}, {"lightness", GroupOrder::kLightness}});
  options.colors = choice_of<GroupColors>(
      "--colors", text_of(given, "colors", "centers"),
      {{"centers", GroupColors::kCenters}, {"distinct", GroupColors::kDistinct}});
  read_names(given, options);
  check_criteria(options);
  return run_cluster(options, context);
}

std::string list_of(const Json& names) {
  std::string list;
  for (const Json& name : names) list += (list.empty() ? "" : ", ") + name.get<std::string>();
  return list;
}

void print_choices(const Json& summary, std::ostream& out) {
  if (!summary.contains("choices")) return;
  TextTable table(summary["choices"]);
  table.words("groups", "k")
      .percents("explained", "explained_percent", 1)
      .decimals("silhouette", "silhouette", 3)
      .percents("lone", "lone_percent");
  if (summary["choices"][0].contains("bic"))
    table.numbers("BIC", "bic", 6).numbers("AIC", "aic", 6).numbers("ICL", "icl", 6);
  out << fmt::format("how many groups? (silhouette of {} drawn pixels)\n",
                     counted(summary["suggestion"]["silhouette_pixels"]));
  table.print(out);
  out << fmt::format("suggested: {}. {}\n", summary["suggestion"]["k"],
                     summary["suggestion"]["reason"]);
}

void print_search(const Json& clusters, std::ostream& out) {
  if (clusters.contains("sampled"))
    out << fmt::format("  {} of {} drawn, by --seed\n",
                       plural(clusters["sampled"]["drawn"], "pixel"),
                       counted(clusters["sampled"]["of"]));
  std::vector<std::string> divisors;
  for (const Json& divisor : clusters["divisors"])
    divisors.push_back(fmt::format("{:.4g}", divisor));
  if (clusters["scaling"] != "none")
    out << fmt::format("  features are divided by their {} ({})\n",
                       clusters["scaling"] == "spread" ? "standard deviation" : "range",
                       fmt::join(divisors, ", "));
  if (!clusters.contains("runs")) return;
  const bool mixture = clusters.contains("bic");
  std::vector<double> runs;
  for (const Json& run : clusters["runs"])
    runs.push_back(run[mixture ? "log_likelihood" : "sum_of_squares"]);
  const Json& kept =
      mixture ? clusters : clusters["runs"][clusters["best_run"].get<std::size_t>() - 1];
  out << fmt::format("  {} of each start: {}; kept: {}{}\n",
                     mixture ? "log-likelihood" : "sum of squares",
                     fmt::join(aligned_numbers(runs, 6), ", "), clusters["best_run"],
                     kept.value("regrouped", false) ? ", regrouped to what it says" : "");
  out << fmt::format("  it ended after {} because {}\n", plural(kept["iterations"], "iteration"),
                     !kept["settled"].get<bool>() ? "no more were allowed"
                     : mixture                    ? "nothing was gained any more"
                                                  : "the centers stood still");
}

void print_groups(const Json& clusters, std::ostream& out) {
  TextTable table(clusters["groups"]);
  table.words("group", "index")
      .words("name", "name")
      .words("color", "color")
      .percents("share", "percent")
      .decimals("spread", "spread", 1)
      .decimals("95 %", "percentile_95", 1)
      .filled("nearest", "{} at {:.1f}", {"nearest", "nearest_delta_e"});
  for (std::size_t f = 0; f < clusters["features"].size(); ++f)
    table.values_of(clusters["features"][f], fmt::format("center/{}", f));
  table.print(out);
}

void print_cluster(const Json& summary, std::ostream& out) {
  const Json& clusters = summary["clusters"];
  print_choices(summary, out);
  if (summary.contains("most_k"))
    out << fmt::format("there are too few different colors for more than {}\n",
                       plural(summary["most_k"], "group"));
  out << fmt::format("{} by {} in {}, from {} of {}; spreads and distances are delta E\n",
                     plural(clusters["groups"].size(), "group"), clusters["method"],
                     list_of(clusters["features"]), plural(clusters["points"], "point"),
                     plural(clusters["pixels"], "pixel"));
  print_search(clusters, out);
  print_groups(clusters, out);
  const bool several = summary["inputs"].size() > 1;
  for (const Json& p : summary["inputs"]) {
    out << fmt::format("{}: {} counted", p["file"], plural(p["counted"], "pixel"));
    if (p.contains("lone_percent"))
      out << fmt::format(", {:.2f} % lone (unlike all their neighbors)", p["lone_percent"]);
    out << "\n";
    print_left_out(p, out);
    if (!several && p["classes"].size() == clusters["groups"].size()) continue;
    if (p["classes"].empty()) continue;  // a table among others
    print_class_shares(p, out);
  }
  print_class_shares_of_all(summary, out);
  print_outputs(summary, out);
}

}  // namespace

extern const Command kCluster;
const Command kCluster{
    .name = "cluster",
    .summary = "groups of colors, found without samples",
    .operands = "INPUT... --k N|A..B",
    .purpose =
        "Finds groups of similar colors in one or more pictures together: a class map, the picture "
        "recolored, the colors with their shares, and a model that classify applies to other "
        "pictures. For a range of numbers it says what speaks for each and suggests one; you "
        "decide.",
    .examples = {{"cluster panel-a.png --k 2..9 -o out/", "what speaks for each number of groups"},
                 {"cluster panel-a.png panel-b.png --method gaussian-mixture --k 6 -o out/",
                  "one mixture for two panels, with the certainty of every pixel"},
                 {"cluster panel-a.png --k 7 --name 1=ruby --merge lead=6,7 -o out/",
                  "named groups; two of them are one class"}},
    .results = cluster_results,
    .declare = declare_cluster,
    .run = do_cluster,
    .print = print_cluster,
    .traits = {Trait::kJoinsInputs, Trait::kSkipsBad, Trait::kDraws, Trait::kNamesChannels},
};

}  // namespace chalcedony::cli
