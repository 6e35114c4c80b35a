#include "job/assess/assess.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "core/error.h"
#include "core/pixel/pixel_hash.h"
#include "core/stats/proportion.h"
#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "job/assess/assess_pictures.h"
#include "job/assess/assessed_labels.h"
#include "job/assess/assessment.h"
#include "job/assess/draw_plan.h"
#include "job/picture/inputs.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

constexpr std::uint64_t kFewReferencePixels = 30;

/// What the first pass counts.
struct LabelTally {
  LabelCounts assessed;
  LabelCounts others;  // pixels that count but have no reference, or trained the model
  std::array<std::uint64_t, 5> kinds{};  // by Assessed

  void merge(const LabelTally& other) {
    assessed.merge(other.assessed);
    others.merge(other.others);
    for (std::size_t i = 0; i < kinds.size(); ++i) kinds[i] += other.kinds[i];
  }
  std::uint64_t of(Assessed kind) const { return kinds[static_cast<std::size_t>(kind)]; }
};

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
  AssessJob(const AssessOptions& options, const Context& context, Results& results)
      : options_(options),
        context_(context),
        results_(results),
        labels_(options, context),
        name_(options.shared.inputs.front().filename().string()) {}

  Json run() {
    count();
    match();
    const FigureFormat figures =
        results_.wants("figure") ? settle_figures(options_.shared, context_) : FigureFormat::kNone;
    AssessPictures pictures(labels_, assessment_.map, results_, figures);
    if (options_.design == SampleDesign::kGrid) {
      take_grid();
    } else if (draws()) {
      draw_sample();
    }
    if (pictures.wanted()) paint(pictures);
    judge();
    write();
    if (figures != FigureFormat::kNone) {
      Plot plot(figures);
      pictures.add_figures(plot, name_, assessment_);
      draw_figures(plot, context_);
    }
    return report();
  }

 private:
  bool draws() const { return options_.design != SampleDesign::kAll; }

  RoadOptions road() const {
    RoadOptions road;
    road.threads = options_.shared.threads;
    road.stop = context_.stop;
    if (context_.progress)
      road.progress = [this](std::uint64_t done) {
        context_.progress(name_, done, labels_.height());
      };
    return road;
  }

  void count() {
    Tallies<LabelTally> tallies{LabelTally{}};
    const auto make_worker = [&] {
      return [&](const Band& band) {
        LabelTally& tally = tallies.local();
        std::array<std::uint64_t, 5> kinds{};
        labels_.for_each_run(
            band, [&](std::uint64_t, std::uint32_t n, const Labels& labels, Assessed assessed) {
              kinds[static_cast<std::size_t>(assessed)] += n;
              if (assessed == Assessed::kYes) {
                tally.assessed.add(labels, n);
              } else if (assessed == Assessed::kUnlabelled || assessed == Assessed::kTrained) {
                tally.others.add({labels[0], 0, 0}, n);
              }
            });
        for (std::size_t i = 0; i < kinds.size(); ++i) tally.kinds[i] += kinds[i];
        return true;
      };
    };
    travel(labels_.rows(), road(), make_worker, [](bool) {});
    tally_ = tallies.merged([](LabelTally& total, const LabelTally& one) { total.merge(one); });
    if (tally_.of(Assessed::kYes) == 0)
      throw InputError("no labelled pixel can be assessed",
                       "check --region, --within and the reference's labels",
                       options_.reference.string());
  }

  /// Numbers that occur in picture p, whether a legend lists them or not.
  std::vector<unsigned> found_in(std::size_t p) const {
    std::set<unsigned> found;
    const auto add = [&](const Labels& labels, std::uint64_t) {
      if (labels[p] != 0) found.insert(labels[p]);
    };
    tally_.assessed.for_each(add);
    if (p == 0) tally_.others.for_each(add);
    return {found.begin(), found.end()};
  }

  Agreement agreement_with(std::size_t map_picture) const {
    Agreement agreement;
    agreement.matching = match_classes(labels_.classes(map_picture, found_in(map_picture)),
                                       labels_.classes(1, found_in(1)), options_.match);
    const std::size_t classes = agreement.matching.names.size();
    agreement.matrix = ErrorMatrix(classes + 1, classes);
    return agreement;
  }

  void match() {
    assessment_.map = agreement_with(0);
    if (assessment_.map.matching.by == MatchedBy::kNumber)
      context_.warn("classes of map and reference are matched by number, as no names are common");
    if (options_.versus) assessment_.second = agreement_with(2);
    strata_.resize(assessment_.map.matrix.rows());
    std::vector<std::uint64_t> mapped(strata_.size());
    tally_.assessed.for_each([&](const Labels& labels, std::uint64_t n) {
      strata_[assessment_.map.row_of(labels[0])] += n;
      mapped[assessment_.map.row_of(labels[0])] += n;
    });
    tally_.others.for_each([&](const Labels& labels, std::uint64_t n) {
      mapped[assessment_.map.row_of(labels[0])] += n;
    });
    const auto all = std::accumulate(mapped.begin(), mapped.end(), std::uint64_t{0});
    for (const std::uint64_t pixels : mapped)
      assessment_.mapped_shares.push_back(static_cast<double>(pixels) / static_cast<double>(all));
  }

  void draw_sample() {
    std::vector<std::string> rows;
    for (std::size_t r = 0; r < strata_.size(); ++r) rows.push_back(assessment_.map.row_name(r));
    const DrawPlan plan = plan_draw(options_, rows, strata_);
    if (plan.total() == 0)
      throw InputError("no pixel would be drawn", "ask for more pixels, or of other classes",
                       options_.shared.inputs.front().string());
    if (plan.total() < plan.asked)
      context_.warn("only " + std::to_string(plan.total()) + " of " + std::to_string(plan.asked) +
                    " pixels can be drawn: some classes have no more");
    SampleDraw draw(options_.shared.seed, plan.pools, plan.wanted);
    while (assessment_.sampled.empty()) {
      const auto candidates = candidates_by(
          plan.pools.size(), [&](std::uint64_t pixel, const Labels& labels, DrawnPixel& drawn) {
            drawn.hash = draw.hash_of(pixel);
            const std::size_t pool = plan.by_class ? assessment_.map.row_of(labels[0]) : 0;
            return draw.may_take(pool, drawn.hash) ? std::optional(pool) : std::nullopt;
          });
      assessment_.sampled = draw.drawn(candidates);
      draw.widen();
    }
  }

  void take_grid() {
    const std::uint64_t start = mixed_bits(options_.shared.seed), every = options_.every;
    assessment_.sampled =
        candidates_by(1, [&](std::uint64_t pixel, const Labels&, DrawnPixel&) {
          const std::uint64_t x = pixel % labels_.width(), y = pixel / labels_.width();
          const bool on = x % every == start % every && y % every == (start >> 32) % every;
          return on ? std::optional(std::size_t{0}) : std::nullopt;
        }).front();
    if (assessment_.sampled.empty())
      throw InputError("no pixel with a label lies on the grid", "make --every smaller",
                       options_.shared.inputs.front().string());
  }

  /// A pass that collects pixels: `pool_of(pixel, labels, drawn)` says into which of the pools one
  /// goes, if any, and may fill in its hash.
  template <class PoolOf>
  std::vector<std::vector<DrawnPixel>> candidates_by(std::size_t pools, PoolOf pool_of) {
    std::vector<std::vector<DrawnPixel>> candidates(pools);
    const auto make_worker = [&] {
      return [&](const Band& band) {
        std::vector<std::vector<DrawnPixel>> found(pools);
        labels_.for_each_run(band, [&](std::uint64_t first, std::uint32_t n, const Labels& labels,
                                       Assessed assessed) {
          if (assessed != Assessed::kYes) return;
          for (std::uint64_t pixel = first; pixel < first + n; ++pixel) {
            DrawnPixel drawn{0, pixel, labels};
            if (const auto pool = pool_of(pixel, labels, drawn)) found[*pool].push_back(drawn);
          }
        });
        return found;
      };
    };
    labels_.rows().rewind();
    travel(labels_.rows(), road(), make_worker, [&](std::vector<std::vector<DrawnPixel>>&& found) {
      for (std::size_t p = 0; p < pools; ++p)
        candidates[p].insert(candidates[p].end(), found[p].begin(), found[p].end());
    });
    return candidates;
  }

  void paint(AssessPictures& pictures) {
    const auto make_worker = [&] {
      return [&, painter = pictures.painter()](const Band& band) mutable {
        painter.begin(band);
        labels_.for_each_run(
            band, [&](std::uint64_t, std::uint32_t n, const Labels& labels, Assessed assessed) {
              painter.add(labels, assessed == Assessed::kYes, n);
            });
        return painter.end(band);
      };
    };
    labels_.rows().rewind();
    travel(labels_.rows(), road(), make_worker, [&](EncodedRows&& rows) { pictures.take(rows); });
    pictures.finish();
  }

  void judge() {
    const auto add = [this](const Labels& labels, std::uint64_t n) {
      Agreement& map = assessment_.map;
      const std::size_t row = map.row_of(labels[0]), column = map.column_of(labels[1]);
      map.matrix.add(row, column, n);
      if (!assessment_.second) return;
      Agreement& second = *assessment_.second;
      const std::size_t row2 = second.row_of(labels[2]), column2 = second.column_of(labels[1]);
      second.matrix.add(row2, column2, n);
      if (row == column && row2 != column2) assessment_.only_first += n;
      if (row != column && row2 == column2) assessment_.only_second += n;
    };
    if (draws()) {
      for (const DrawnPixel& drawn : assessment_.sampled) add(drawn.labels, 1);
    } else {
      tally_.assessed.for_each(add);
    }
    assessment_.map.accuracy = accuracy_of(assessment_.map.matrix, options_.level);
    if (assessment_.second)
      assessment_.second->accuracy = accuracy_of(assessment_.second->matrix, options_.level);
    if (draws())
      assessment_.adjusted = area_adjusted(assessment_.map.matrix, assessment_.mapped_shares);
    warn_of_small_classes();
  }

  void warn_of_small_classes() const {
    std::string small;
    for (std::size_t c = 0; c < assessment_.map.matching.names.size(); ++c)
      if (const std::uint64_t n = assessment_.map.accuracy.classes[c].reference;
          n < kFewReferencePixels)
        small += (small.empty() ? "" : ", ") + assessment_.map.matching.names[c] + " " +
                 std::to_string(n);
    if (!small.empty())
      context_.warn("fewer than 30 reference pixels, so little can be said of: " + small);
  }

  void write() {
    if (results_.wants("matrix")) write_matrix(results_.path("matrix.csv"), assessment_.map);
    if (results_.wants("accuracy")) {
      write_accuracy(results_.path("accuracy.csv"), assessment_);
      write_text_file(results_.path("accuracy.json"), json_text(report(), 2) + "\n");
    }
    if (results_.wants("sampled") && draws())
      write_sampled(results_.path("sampled.csv"), assessment_, labels_.width());
  }

  Json report() const {
    const std::uint64_t counted = tally_.of(Assessed::kYes) + tally_.of(Assessed::kUnlabelled) +
                                  tally_.of(Assessed::kTrained);
    Json excluded = Json::object();
    const auto put = [&](const char* name, Assessed kind) {
      if (tally_.of(kind) > 0) excluded[name] = tally_.of(kind);
    };
    put("outside_region", Assessed::kOutsideRegion);
    put("outside_mask", Assessed::kOutsideMask);
    put("unlabelled", Assessed::kUnlabelled);
    put("trained", Assessed::kTrained);
    Json json{{"file", options_.shared.inputs.front().string()},
              {"against", options_.reference.string()},
              {"design", name_of(options_)},
              {"level", options_.level},
              {"counted", counted},
              {"excluded", excluded}};
    if (labels_.trained_on()) json["trained_on"] = *labels_.trained_on();
    json.update(assessment_json(assessment_));
    if (assessment_.second) json["versus"]["file"] = options_.versus->string();
    if (options_.plan) json["plan"] = plan_json();
    if (options_.show > 0) json["shown"] = shown_json();
    return json;
  }

  Json plan_json() const {
    const double right = assessment_.map.accuracy.overall.value_or(0);
    Json json{{"half_width", *options_.plan},
              {"random", sample_size_for(right, *options_.plan, options_.level)}};
    if (assessment_.adjusted || !draws())
      json["stratified"] = stratified_sample_size(assessment_.map.matrix, assessment_.mapped_shares,
                                                  *options_.plan, options_.level);
    return json;
  }

  Json shown_json() const {
    Json shown = Json::array();
    for (std::size_t i = 0; i < std::min(options_.show, assessment_.sampled.size()); ++i) {
      const DrawnPixel& drawn = assessment_.sampled[i];
      shown.push_back(
          {{"x", drawn.pixel % labels_.width()},
           {"y", drawn.pixel / labels_.width()},
           {"mapped", assessment_.map.row_name(assessment_.map.row_of(drawn.labels[0]))},
           {"reference",
            assessment_.map.matching.names[assessment_.map.column_of(drawn.labels[1])]}});
    }
    return shown;
  }

  const AssessOptions& options_;
  const Context& context_;
  Results& results_;
  AssessedLabels labels_;
  std::string name_;
  LabelTally tally_;
  std::vector<std::uint64_t> strata_;  // pixels that can be drawn, by row of the matrix
  Assessment assessment_;
};

}  // namespace

const std::vector<ResultKind>& assess_results() {
  static const std::vector<ResultKind> kinds{
      {"matrix", "matrix.csv: the error matrix, counts and shares"},
      {"accuracy", "accuracy.csv and accuracy.json: every measure, over all and by class"},
      {"sampled", "sampled.csv: the pixels that were drawn, with both labels",
       "count,fraction,stratified,every"},
      {"errors", "<stem>.errors.png: right, unclassified, and wrong as the class it should be"},
      {"figure",
       "matrix.figure.png, accuracy.figure.png, errors.figure.png and, for a sample, "
       "sampled.figure.png"}};
  return kinds;
}

Json run_assess(const AssessOptions& options, const Context& context) {
  Results results(options.shared, context, assess_results());
  Json summary = summary_frame("assess");
  summary["inputs"].push_back(AssessJob(options, context, results).run());
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
