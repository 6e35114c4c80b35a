#include "job/assess/assess.h"

#include <algorithm>
#include <array>
#include <memory>
#include <numeric>
#include <utility>

#include "core/assess/between_maps.h"
#include "core/error.h"
#include "core/stats/proportion.h"
#include "figure/accuracy_figure.h"
#include "figure/maps_figure.h"
#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "job/assess/assess_pictures.h"
#include "job/assess/assessed_maps.h"
#include "job/assess/assessment.h"
#include "job/assess/drawn_sample.h"
#include "job/picture/inputs.h"

namespace chalcedony {
namespace {

constexpr std::uint64_t kFewReferencePixels = 30;

std::string name_of(const AssessOptions& options) {
  switch (options.design) {
    case SampleDesign::kAll:
      return "all";
    case SampleDesign::kRandom:
      return "random";
    case SampleDesign::kEqual:
      return "stratified equal";
    case SampleDesign::kProportional:
      return "stratified proportional";
    case SampleDesign::kGiven:
      return "stratified as given";
    case SampleDesign::kGrid:
      return "grid every " + std::to_string(options.every);
  }
  return "";
}

class AssessJob {
 public:
  AssessJob(const AssessOptions& options, const Context& context, Results& results, Json& summary)
      : options_(options), context_(context), results_(results), maps_(options, context, summary) {}

  void run(Json& summary) {
    match();
    Plot plot(results_.wants("figure") ? settle_figures(options_.shared, context_)
                                       : FigureFormat::kNone);
    if (draws()) sampled_ = drawn_sample(maps_, matched_, strata_, options_, context_);
    judge();
    if (results_.wants("errors") || plot.format() != FigureFormat::kNone) paint(plot);
    write();
    if (plot.format() != FigureFormat::kNone) add_figures(plot);
    draw_figures(plot, context_);
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      summary["inputs"].push_back(map_json(i));
      // In the order of the maps, which those worked on at once do not keep.
      for (const auto& path : context_.ledger->take_written(judged_[i].map))
        summary["outputs"].push_back(path.string());
    }
    if (!maps_.alone()) summary["together"] = together_json();
  }

 private:
  bool draws() const { return options_.design != SampleDesign::kAll; }

  void match() {
    judged_.resize(maps_.size());
    matched_ = maps_.match(0);
    if (matched_.all.by == MatchedBy::kNumber)
      context_.warn("classes of map and reference are matched by number, as no names are common");
    begin(together_.map, matched_.all);
    std::optional<MatchedMaps> second;
    if (options_.versus) {
      second = maps_.match(2);
      begin(together_.second.emplace(), second->all);
    }
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      judged_[i].map = maps_[i].files().map;
      judged_[i].reference = maps_[i].files().reference;
      begin(judged_[i].assessment.map, matched_.each[i]);
      if (second) begin(judged_[i].assessment.second.emplace(), second->each[i]);
    }
    count_strata();
  }

  static void begin(Agreement& agreement, const ClassMatching& matching) {
    agreement.matching = matching;
    agreement.matrix = ErrorMatrix(matching.names.size() + 1, matching.names.size());
  }

  void count_strata() {
    const std::size_t rows = together_.map.matrix.rows();
    strata_.resize(rows);
    std::vector<std::uint64_t> all(rows);
    for (std::size_t i = 0; i < maps_.size(); ++i) {
      std::vector<std::uint64_t> mapped(rows);
      for (const LabelTotal& one : maps_[i].counted().assessed) {
        strata_[matched_.each[i].row_of(one.labels[0])] += one.count;
        mapped[matched_.each[i].row_of(one.labels[0])] += one.count;
      }
      for (const LabelTotal& one : maps_[i].counted().others)
        mapped[matched_.each[i].row_of(one.labels[0])] += one.count;
      judged_[i].assessment.mapped_shares = shares_of(mapped);
      for (std::size_t r = 0; r < rows; ++r) all[r] += mapped[r];
    }
    together_.mapped_shares = shares_of(all);
  }

  static std::vector<double> shares_of(const std::vector<std::uint64_t>& pixels) {
    const auto all =
        static_cast<double>(std::accumulate(pixels.begin(), pixels.end(), std::uint64_t{0}));
    std::vector<double> shares;
    for (const std::uint64_t n : pixels) shares.push_back(static_cast<double>(n) / all);
    return shares;
  }

  void judge() {
    if (draws()) {
      for (const DrawnPixel& drawn : sampled_)
        add(judged_[maps_.numbering().place_of(drawn.pixel).picture].assessment, drawn.labels, 1);
    } else {
      for (std::size_t i = 0; i < maps_.size(); ++i)
        for (const LabelTotal& one : maps_[i].counted().assessed)
          add(judged_[i].assessment, one.labels, one.count);
    }
    for (JudgedMap& one : judged_) {
      finish(one.assessment);
      merge(one.assessment);
    }
    finish(together_);
    if (as_they_come()) compare_maps();
    warn_of_small_classes();
  }

  void compare_maps() {
    std::vector<MapScore> first, second;
    for (const JudgedMap& one : judged_) {
      const auto score = [](const Agreement& agreement) {
        return MapScore{right_pixels(agreement), agreement.accuracy.total};
      };
      first.push_back(score(one.assessment.map));
      if (one.assessment.second) second.push_back(score(*one.assessment.second));
    }
    between_ = between_maps(first, options_.level);
    if (!second.empty()) gain_ = gain_between_maps(first, second, options_.level);
  }

  static void add(Assessment& to, const Labels& labels, std::uint64_t n) {
    const auto cell = [&](const Agreement& agreement, Label map) {
      return std::pair(agreement.matching.row_of(map), agreement.matching.column_of(labels[1]));
    };
    const auto [row, column] = cell(to.map, labels[0]);
    to.map.matrix.add(row, column, n);
    if (!to.second) return;
    const auto [row2, column2] = cell(*to.second, labels[2]);
    to.second->matrix.add(row2, column2, n);
    if (row == column && row2 != column2) to.only_first += n;
    if (row != column && row2 == column2) to.only_second += n;
  }

  void merge(const Assessment& one) {
    together_.map.matrix.merge(one.map.matrix);
    if (one.second) together_.second->matrix.merge(one.second->matrix);
    together_.only_first += one.only_first;
    together_.only_second += one.only_second;
  }

  void finish(Assessment& one) const {
    one.map.accuracy = accuracy_of(one.map.matrix, options_.level);
    if (one.second) one.second->accuracy = accuracy_of(one.second->matrix, options_.level);
    if (draws()) one.adjusted = area_adjusted(one.map.matrix, one.mapped_shares);
  }

  /// Whether every pixel is as likely to be assessed as any other. Where it is not, what was
  /// assessed of a map does not say how much the map weighs.
  bool as_they_come() const {
    return options_.design != SampleDesign::kEqual && options_.design != SampleDesign::kGiven;
  }

  void warn_of_small_classes() const {
    std::string small;
    for (std::size_t c = 0; c < together_.map.matching.names.size(); ++c)
      if (const std::uint64_t n = together_.map.accuracy.classes[c].reference;
          n < kFewReferencePixels)
        small +=
            (small.empty() ? "" : ", ") + together_.map.matching.names[c] + " " + std::to_string(n);
    if (!small.empty())
      context_.warn("fewer than 30 reference pixels, so little can be said of: " + small);
  }

  /// The picture of errors of each map, and the figures that show it.
  void paint(Plot& plot) {
    std::vector<std::unique_ptr<AssessPictures>> painted(maps_.size());
    const auto begin = [&](std::size_t i) {
      painted[i] = std::make_unique<AssessPictures>(
          maps_[i].labels(), matched_.each[i], results_, plot.format(),
          PaintedMap{judged_[i].map, maps_.picture_name(i), maps_.alone()});
    };
    const auto work = [&](std::size_t i) { maps_[i].paint(*painted[i], context_); };
    const auto end = [&](std::size_t i) {
      if (plot.format() != FigureFormat::kNone) {
        Places right, wrong;
        place_sampled(i, right, wrong);
        painted[i]->add_figures(plot, name_of_map(i), right, wrong);
      }
      painted[i].reset();
    };
    maps_.for_each({.begin = begin, .work = work, .end = end});
  }

  /// The drawn pixels of a map.
  void place_sampled(std::size_t map, Places& right, Places& wrong) const {
    const ClassMatching& matching = matched_.each[map];
    for (const DrawnPixel& drawn : sampled_) {
      const auto [picture, x, y] = maps_.numbering().place_of(drawn.pixel);
      if (picture != map) continue;
      const bool agrees = matching.row_of(drawn.labels[0]) == matching.column_of(drawn.labels[1]);
      (agrees ? right : wrong).push_back({x + 0.5, y + 0.5});
    }
  }

  std::string name_of_map(std::size_t map) const { return judged_[map].map.filename().string(); }

  void write() {
    if (results_.wants("matrix")) write_matrix(results_.path("matrix.csv"), together_.map);
    if (results_.wants("accuracy")) {
      write_accuracy(results_.path("accuracy.csv"), together_);
      write_text_file(results_.path("accuracy.json"), json_text(all_json(), 2) + "\n");
    }
    if (results_.wants("maps") && (!maps_.alone() || options_.shared.asks_for("maps")))
      write_maps(results_.path("maps.csv"), judged_);
    if (results_.wants("sampled") && draws())
      write_sampled(results_.path("sampled.csv"), sampled_.size(),
                    [this](std::size_t i) { return told(i); });
  }

  ToldPixel told(std::size_t i) const {
    const DrawnPixel& drawn = sampled_[i];
    const auto [map, x, y] = maps_.numbering().place_of(drawn.pixel);
    const ClassMatching& matching = matched_.each[map];
    return {maps_.alone() ? "" : judged_[map].map.string(), x, y,
            matching.row_name(matching.row_of(drawn.labels[0])),
            matching.names[matching.column_of(drawn.labels[1])]};
  }

  void add_figures(Plot& plot) {
    const std::string extension = extension_of(plot.format());
    const std::string name =
        maps_.alone() ? name_of_map(0) : std::to_string(maps_.size()) + " maps together";
    const std::vector<std::string>& classes = matched_.all.names;
    std::vector<std::string> rows = classes;
    rows.push_back(matched_.all.row_name(classes.size()));
    add_matrix_figure(plot, results_.path("matrix.figure." + extension), name, rows,
                      together_.map.matrix, together_.map.accuracy);
    add_accuracy_figure(plot, results_.path("accuracy.figure." + extension), name, classes,
                        together_.map.accuracy);
    if (maps_.alone()) return;
    std::vector<MapAccuracy> maps;
    for (std::size_t i = 0; i < judged_.size(); ++i) {
      const Assessment& one = judged_[i].assessment;
      maps.push_back({name_of_map(i), one.map.accuracy,
                      one.second ? one.second->accuracy.overall : std::nullopt});
    }
    add_maps_figure(plot, results_.path("maps.figure." + extension), classes, maps,
                    together_.map.accuracy, between_);
  }

  /// How the pixels of some of the maps came to be assessed.
  Json taken_json(std::size_t first_map, std::size_t end) const {
    std::array<std::uint64_t, 5> kinds{};
    for (std::size_t i = first_map; i < end; ++i)
      for (std::size_t k = 0; k < kinds.size(); ++k) kinds[k] += maps_[i].counted().kinds[k];
    const auto of = [&](Assessed kind) { return kinds[static_cast<std::size_t>(kind)]; };
    Json excluded = Json::object();
    const auto put = [&](const char* name, Assessed kind) {
      if (of(kind) > 0) excluded[name] = of(kind);
    };
    put("outside_region", Assessed::kOutsideRegion);
    put("outside_mask", Assessed::kOutsideMask);
    put("unlabelled", Assessed::kUnlabelled);
    put("trained", Assessed::kTrained);
    return {{"design", name_of(options_)},
            {"level", options_.level},
            {"counted", of(Assessed::kYes) + of(Assessed::kUnlabelled) + of(Assessed::kTrained)},
            {"excluded", excluded}};
  }

  Json map_json(std::size_t i) const {
    const AssessedFiles& files = maps_[i].files();
    Json json{{"file", files.map.string()}, {"against", files.reference.string()}};
    json.update(taken_json(i, i + 1));
    if (maps_[i].trained_on()) json["trained_on"] = *maps_[i].trained_on();
    json.update(assessment_json(judged_[i].assessment));
    if (files.versus) json["versus"]["file"] = files.versus->string();
    if (maps_.alone()) add_plan_and_shown(json);
    return json;
  }

  Json together_json() const {
    Json json{{"maps", maps_.size()}, {"against", options_.reference.string()}};
    json.update(taken_json(0, maps_.size()));
    json.update(assessment_json(together_));
    if (between_)
      json["between_maps"] = {{"maps", between_->maps},
                              {"standard_error", between_->standard_error},
                              {"overall_low", between_->interval.low},
                              {"overall_high", between_->interval.high}};
    if (options_.versus) {
      json["versus"]["file"] = options_.versus->string();
      add_gain(json["versus"]);
    }
    add_plan_and_shown(json);
    return json;
  }

  /// How much better the second maps are, and on how many.
  void add_gain(Json& json) const {
    std::uint64_t better = 0, worse = 0;
    for (const JudgedMap& one : judged_) {
      better += one.assessment.only_second > one.assessment.only_first;
      worse += one.assessment.only_second < one.assessment.only_first;
    }
    json["better_on"] = better;
    json["worse_on"] = worse;
    if (!gain_) return;
    json["gain"] = gain_->share;
    json["gain_standard_error"] = gain_->standard_error;
    json["gain_low"] = gain_->interval.low;
    json["gain_high"] = gain_->interval.high;
  }

  /// What accuracy.json holds.
  Json all_json() const {
    if (maps_.alone()) return map_json(0);
    Json json = together_json();
    json["each"] = Json::array();
    for (std::size_t i = 0; i < maps_.size(); ++i) json["each"].push_back(map_json(i));
    return json;
  }

  void add_plan_and_shown(Json& json) const {
    if (options_.plan) json["plan"] = plan_json();
    if (options_.show > 0) json["shown"] = shown_json();
  }

  Json plan_json() const {
    const double right = together_.map.accuracy.overall.value_or(0);
    Json json{{"half_width", *options_.plan},
              {"random", sample_size_for(right, *options_.plan, options_.level)}};
    if (together_.adjusted || !draws())
      json["stratified"] = stratified_sample_size(together_.map.matrix, together_.mapped_shares,
                                                  *options_.plan, options_.level);
    return json;
  }

  Json shown_json() const {
    Json shown = Json::array();
    for (std::size_t i = 0; i < std::min(options_.show, sampled_.size()); ++i) {
      const ToldPixel one = told(i);
      shown.push_back(
          {{"x", one.x}, {"y", one.y}, {"mapped", one.mapped}, {"reference", one.reference}});
      if (!one.map.empty()) shown.back()["map"] = one.map;
    }
    return shown;
  }

  const AssessOptions& options_;
  const Context& context_;
  Results& results_;
  AssessedMaps maps_;
  MatchedMaps matched_;
  std::vector<JudgedMap> judged_;       // one a map
  Assessment together_;                 // of the pixels of all maps
  std::vector<std::uint64_t> strata_;   // pixels that can be drawn, by row of the matrix
  std::vector<DrawnPixel> sampled_;     // in the order they were drawn, numbered through all maps
  std::optional<BetweenMaps> between_;  // the accuracy of several maps, by how much they differ
  std::optional<BetweenMaps> gain_;     // of the second maps
};

}  // namespace

const std::vector<ResultKind>& assess_results() {
  static const std::vector<ResultKind> kinds{
      {"matrix", "matrix.csv: the error matrix, counts and shares"},
      {"accuracy", "accuracy.csv and accuracy.json: every measure, over all and by class"},
      {"maps", "maps.csv: of several maps the accuracies of each"},
      {"sampled", "sampled.csv: the pixels that were drawn, with both labels",
       "count,fraction,stratified,every"},
      {"errors", "<picture>.errors.png: right, unclassified, and wrong as the class it should be"},
      {"figure",
       "matrix.figure.png, accuracy.figure.png, errors.figure.png, for a sample "
       "sampled.figure.png; of several maps also maps.figure.png, and the others for each"}};
  return kinds;
}

Json run_assess(const AssessOptions& options, const Context& context) {
  Results results(options.shared, context, assess_results());
  Json summary = summary_frame("assess");
  AssessJob(options, context, results, summary).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
