#include "job/cluster/cluster.h"

#include <algorithm>
#include <cmath>

#include "core/arena.h"
#include "core/error.h"
#include "core/learn/class_names.h"
#include "core/learn/classifier.h"
#include "figure/cluster_figure.h"
#include "figure/sheet_figure.h"
#include "io/document/color_table_file.h"
#include "io/document/model_file.h"
#include "job/cluster/cluster_maps.h"
#include "job/cluster/cluster_report.h"
#include "job/cluster/color_points.h"
#include "job/cluster/group_choice.h"
#include "job/cluster/group_search.h"
#include "job/map/class_shares.h"
#include "job/map/picture_shares.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/bad_inputs.h"
#include "job/repeat/pictures_at_once.h"
#include "job/run/input_list.h"
#include "job/run/long_table.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

class ClusterJob {
 public:
  ClusterJob(const ClusterOptions& options, const Context& context, Results& results)
      : options_(options),
        context_(context),
        results_(results),
        colors_(features(options), options.shared.hue_floor, options.shared.seed) {}

  void run(Json& summary) {
    figures_ = figure_formats(results_, options_.shared, context_);
    stopped_by_bad(options_.shared, [&] { gather(); });
    in_arena(options_.shared.threads, [&] { find(); });
    name_groups();
    if (!given_ && results_.wants("model"))
      in_arena(options_.shared.threads, [&] { complete_model(found_.choice(), colors_); });
    Plot plot(figures_.of_all);
    map_pictures(plot, summary["inputs"]);
    if (results_.wants("model")) write_model(results_.path("clusters.model.json"), chosen().model);
    if (results_.wants("centers"))
      write_centers(results_.path("clusters.centers.csv"), chosen(), colors_);
    if (results_.wants("shares")) write_all_shares(summary["inputs"]);
    report_class_shares(summary, summary["inputs"], {"groups", "clusters.figure"}, plot, results_);
    if (found_.groupings.size() > 1) finish_choice(plot, summary);
    if (found_.most_k) summary["most_k"] = *found_.most_k;
    draw_figures(plot, context_);
    for (const auto& input : options_.shared.inputs)
      for (const auto& path : context_.ledger->take_written(input))
        summary["outputs"].push_back(path.string());
    summary["clusters"] = grouping_json(chosen(), colors_);
  }

 private:
  std::vector<Channel> features(const ClusterOptions& options) {
    if (options.model) {
      given_ = read_model(*options.model);
      errors_at(options.model->string(), [&] { check_given(options); });
      return given_->features;
    }
    knows_likelihood_ = options.method == ClusterMethod::kMixture;
    return options.features.empty() ? channels_of(spaces::kOklab) : options.features;
  }

  void check_given(const ClusterOptions& options) {
    if (const std::size_t classes = given_->classes.size(); classes > kMostGroupNumbers)
      throw InputError("has " + std::to_string(classes) + " classes, and there are at most " +
                           std::to_string(kMostGroupNumbers) + " groups",
                       "map the pictures with classify");
    knows_likelihood_ = make_classifier(*given_)->knows_likelihood();
    if (!knows_likelihood_ && asks_for_likelihood(options))
      throw InputError("does not know how likely a pixel is in a group",
                       "leave the certainty and the probabilities out, or give the model of a "
                       "mixture");
  }

  static bool asks_for_likelihood(const ClusterOptions& options) {
    return options.probabilities != ProbabilityPictures::kNone ||
           options.shared.asks_for("certainty");
  }

  bool alone() const { return options_.shared.inputs.size() == 1; }

  void gather() {
    const auto& inputs = options_.shared.inputs;
    pictures_.resize(inputs.size());
    std::vector<ColorPoints::Place> places(inputs.size());
    const auto begin = [&](std::size_t i) {
      if (is_table_name(inputs[i])) {
        colors_.add(read_color_table(inputs[i]));
        return;
      }
      pictures_[i].emplace(open_counted(inputs[i], options_.shared, context_));
      if (alone()) keep_rows(*pictures_[i]);
      errors_at(inputs[i].string(),
                [&] { places[i] = colors_.place_for(pictures_[i]->file.info); });
    };
    const auto work = [&](std::size_t i) {
      if (!pictures_[i]) return;
      errors_at(inputs[i].string(),
                [&] { colors_.add(places[i], *pictures_[i], options_.shared, context_); });
      if (!alone()) pictures_[i].reset();
    };
    const auto end = [&](std::size_t i) {
      if (places[i].picture) colors_.take(places[i]);
      tell_done(i + 1);
    };
    tell_done(0);
    for_pictures_at_once(options_.shared, inputs.size(),
                         {.begin = begin, .work = work, .end = end});
    colors_.finish(options_.shared.threads);
    if (colors_.points().size == 0)
      throw InputError("no pixel has a number for every feature", "choose other --features");
  }

  /// Both passes go through all pictures.
  void tell_done(std::size_t pictures) const {
    if (context_.pictures && !alone())
      context_.pictures({.done = pictures, .all = options_.shared.inputs.size()});
  }

  void find() {
    found_ = given_ ? errors_at(options_.model->string(),
                                [&] { return groups_of_model(*given_, colors_); })
                    : find_groups(options_, colors_, context_);
  }

  const Grouping& chosen() const { return found_.choice(); }

  void name_groups() {
    Model& model = found_.choice().model;
    // Merging first, so that numbers are those that were printed.
    for (const auto& [name, numbers] : options_.merges) merge_classes(model, name, numbers);
    for (const auto& [number, name] : options_.names) name_class(model, number, name);
  }

  bool wants_pictures() const {
    const bool files = results_.wants("classes") || results_.wants("recolored") ||
                       results_.wants("certainty") ||
                       options_.probabilities != ProbabilityPictures::kNone;
    return files || figures_.of_each != FigureFormat::kNone;
  }

  ClusterMapFiles files_for(const std::filesystem::path& input) {
    ClusterMapFiles files;
    if (results_.wants("classes")) files.classes = results_.path(input, "clusters", "png");
    if (results_.wants("recolored")) files.recolored = results_.path(input, "recolored", "png");
    if (knows_likelihood_ && results_.wants("certainty"))
      files.certainty = results_.path(input, "certainty", "png");
    if (options_.probabilities == ProbabilityPictures::kNone || options_.shared.output.empty())
      return files;
    files.probabilities_as_float = options_.probabilities == ProbabilityPictures::kFloat;
    const std::size_t classes = map_classes(chosen().model).size();
    for (std::size_t c = 1; c <= classes; ++c)
      files.probabilities.push_back(results_.path(input, "probability-" + std::to_string(c),
                                                  files.probabilities_as_float ? "tif" : "png"));
    return files;
  }

  /// The maps of all pictures, and what the summary says of each.
  void map_pictures(Plot& plot, Json& summaries) {
    const auto& inputs = options_.shared.inputs;
    const Context quiet = without_warnings(context_);
    const bool figures = figures_.of_each != FigureFormat::kNone;
    std::vector<ClusterMapFiles> files(inputs.size());
    std::vector<ClusterMaps> maps(inputs.size());
    lone_.resize(found_.groupings.size());
    // What cannot be written is found out before later pictures are begun.
    const auto begin = [&](std::size_t i) {
      if (told_by_colors(i)) return;
      if (!pictures_[i]) pictures_[i].emplace(open_counted(inputs[i], options_.shared, quiet));
      files[i] = files_for(inputs[i]);
      if (!lookup_)
        in_arena(options_.shared.threads, [&] { lookup_.emplace(colors_, found_.groupings); });
    };
    const auto work = [&](std::size_t i) {
      if (!told_by_colors(i))
        maps[i] = map_clusters(*pictures_[i], *lookup_, found_.groupings, found_.chosen, files[i],
                               figures, options_.shared, quiet);
    };
    const auto end = [&](std::size_t i) {
      summaries.push_back(told_by_colors(i) ? json_by_colors(i) : mapped_json(i, maps[i]));
      if (figures && pictures_[i]) draw(plot, *pictures_[i], maps[i]);
      pictures_[i].reset();
      maps[i] = {};
      tell_done(i + 1);
    };
    tell_done(0);
    for_pictures_at_once(options_.shared, inputs.size(),
                         {.begin = begin, .work = work, .end = end});
  }

  /// A table, or one whole picture without results of its own, tells its shares by its colors.
  bool told_by_colors(std::size_t i) const {
    if (is_table_name(options_.shared.inputs[i])) return true;
    return !wants_pictures() && alone() && found_.groupings.size() == 1 && !colors_.sampled();
  }

  /// Of several inputs the colors of a table are not told from the others, so its classes are not
  /// counted.
  Json json_by_colors(std::size_t i) const {
    const std::filesystem::path& input = options_.shared.inputs[i];
    if (alone()) return picture_json(input, class_pixels(), colors_.excluded(i), 0);
    return {{"file", input.string()},     {"counted", colors_.counted(i)},
            {"excluded", Json::object()}, {"clipped", 0},
            {"unclassified", 0},          {"unclassified_percent", 0},
            {"classes", Json::array()}};
  }

  Json mapped_json(std::size_t i, const ClusterMaps& maps) {
    const std::uint64_t counted = pictures_[i]->shape().pixels() - maps.excluded.total();
    for (std::size_t g = 0; g < lone_.size(); ++g) lone_[g] += maps.lone[g];
    lone_of_ += counted;
    Json json = picture_json(options_.shared.inputs[i], maps.counts, maps.excluded, maps.clipped);
    json["lone_percent"] = percent(maps.lone[found_.chosen], counted);
    return json;
  }

  /// Pixels of each class of the map, unclassified first.
  std::vector<std::uint64_t> class_pixels() const {
    std::vector<std::uint64_t> pixels(map_classes(chosen().model).size() + 1);
    pixels[0] = colors_.left_out();
    const auto numbers = class_numbers(chosen().model);
    for (std::size_t e = 0; e < numbers.size(); ++e)
      pixels[numbers[e]] += static_cast<std::uint64_t>(std::llround(chosen().looks[e].pixels));
    return pixels;
  }

  Json picture_json(const std::filesystem::path& input, const std::vector<std::uint64_t>& counts,
                    const Excluded& excluded, std::uint64_t clipped) const {
    std::uint64_t counted = 0;
    for (const std::uint64_t count : counts) counted += count;
    return {{"file", input.string()},
            {"counted", counted},
            {"excluded", excluded_json(excluded)},
            {"clipped", clipped},
            {"unclassified", counts[0]},
            {"unclassified_percent", percent(counts[0], counted)},
            {"classes", classes_json(map_classes(chosen().model), counts, counted)}};
  }

  /// A table for each picture, and of several one of all.
  void write_all_shares(const Json& pictures) {
    std::vector<PictureResults> tables;
    for (const Json& picture : pictures) {
      if (picture["classes"].empty()) continue;  // of a table of colors among pictures
      const std::filesystem::path input = picture["file"].get<std::string>();
      const std::filesystem::path table = results_.path(input, "clusters", "csv");
      write_shares(table, picture);
      tables.push_back({input, result_stem(options_.shared, input), {table}});
    }
    if (tables.size() < 2) return;
    results_.path("clusters.csv");
    write_long_tables(tables, options_.shared.output, context_.warn);
  }

  void draw(Plot& plot, const CountedPicture& picture, const ClusterMaps& maps) {
    const std::string extension = extension_of(plot.format());
    std::uint64_t counted = 0;
    for (const std::uint64_t count : maps.counts) counted += count;
    const auto legend = classes_legend(map_classes(chosen().model), maps.counts, counted);
    add_cluster_figure(plot, results_.path(picture.file.path, "clusters.figure", extension),
                       picture.name(), legend, *maps.picture, *maps.recolored);
    if (found_.groupings.size() < 2) return;
    std::vector<SheetCell> choices{{"picture", *maps.picture}};
    for (std::size_t g = 0; g < found_.groupings.size(); ++g)
      choices.push_back(
          {choice_title(found_.groupings[g].k, percent(maps.lone[g], counted)), maps.choices[g]});
    add_sheet(plot, results_.path(picture.file.path, "choices.figure", extension),
              picture.name() + " with each number of groups",
              "lone: pixels unlike all their neighbors; many of them look like salt and pepper",
              choices);
  }

  void finish_choice(Plot& plot, Json& summary) {
    for (std::size_t g = 0; g < found_.criteria.size() && lone_of_ > 0; ++g)
      found_.criteria[g].lone_percent = percent(lone_[g], lone_of_);
    if (results_.wants("criteria"))
      write_criteria(results_.path("clusters.criteria.csv"), found_.criteria);
    if (plot.format() != FigureFormat::kNone) {
      std::vector<double> numbers;
      for (const GroupCriteria& one : found_.criteria)
        numbers.push_back(static_cast<double>(one.k));
      add_criteria_figure(plot, results_.path("criteria.figure." + extension_of(plot.format())),
                          numbers, criterion_curves(found_.criteria), found_.suggestion->reason);
    }
    summary["choices"] = criteria_json(found_.criteria);
    summary["suggestion"] = {{"k", chosen().k},
                             {"reason", found_.suggestion->reason},
                             {"silhouette_pixels", kSilhouettePixels}};
  }

  const ClusterOptions& options_;
  const Context& context_;
  Results& results_;
  std::optional<Model> given_;
  FigureFormats figures_;
  bool knows_likelihood_ = false;  // of a pixel in its group
  ColorPoints colors_;
  std::vector<std::optional<CountedPicture>> pictures_;  // those under way
  FoundGroups found_;
  std::optional<GroupLookup> lookup_;
  std::vector<std::uint64_t> lone_;
  std::uint64_t lone_of_ = 0;
};

}  // namespace

const std::vector<ResultKind>& cluster_results() {
  static const std::vector<ResultKind> kinds{
      {"classes", "<stem>.clusters.png: the class map, with names and colors inside"},
      {"recolored", "<stem>.recolored.png: each pixel in the color of its group"},
      {"certainty", "<stem>.certainty.png: how likely each pixel is in its group",
       "method gaussian-mixture,model"},
      {"model", "clusters.model.json: for classify, or to name groups later"},
      {"centers", "clusters.centers.csv: color, share, spread and center of every group"},
      {"shares",
       "<stem>.clusters.csv: the share of every group in the picture; of several pictures also "
       "clusters.csv"},
      {"criteria", "clusters.criteria.csv: what speaks for each number of groups of a range"},
      {"figure",
       "<stem>.clusters.figure.png: picture, recolored and colors; of several pictures also "
       "clusters.figure.png: the shares of all; for a range also criteria.figure.png and "
       "<stem>.choices.figure.png"}};
  return kinds;
}

Json run_cluster(const ClusterOptions& options, const Context& context) {
  Results results(options.shared, context, cluster_results(), ResultNames::kPictures);
  Json summary = summary_frame("cluster");
  ClusterOptions usable = options;
  usable.shared.inputs.clear();
  const auto check = [&](const std::filesystem::path& input) {
    check_input(input, options.shared, context, [&] { read_color_table(input); });
  };
  for (const std::size_t i : usable_inputs(options.shared, context, summary, check))
    usable.shared.inputs.push_back(options.shared.inputs[i]);
  ClusterJob(usable, context, results).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
