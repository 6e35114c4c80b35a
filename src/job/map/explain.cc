#include "job/map/explain.h"

#include <algorithm>
#include <cmath>

#include "core/error.h"
#include "core/feature/features.h"
#include "core/learn/classifier.h"
#include "core/learn/explanation.h"
#include "core/learn/feature_advice.h"
#include "figure/scatter_figure.h"
#include "io/document/model_file.h"
#include "io/file/whole_file.h"
#include "io/text/json_text.h"
#include "job/learn/model_fit.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/picture_run.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// A pixel to explain: its place and its features, divided as the model's are.
struct ExplainedPixel {
  std::uint32_t x = 0, y = 0;
  std::vector<float> features;
  Label label = 0;
};

class ExplainJob {
 public:
  ExplainJob(const std::filesystem::path& input, const Model& model, const Classifier& classifier,
             const ExplainOptions& options, const Context& context, Results& results,
             FigureFormat format)
      : input_(input),
        model_(model),
        scaled_(scaled(model)),
        features_(features_of(model.features)),
        numbers_(class_numbers(model)),
        classifier_(classifier),
        in_question_(model.classes.size()),
        options_(options),
        context_(context),
        results_(results),
        format_(format),
        picture_(open_counted(input, options.shared, context)) {}

  Json run() {
    note_on_fit(model_, picture_.file.info);
    for (const auto& [x, y] : options_.at) check_place(x, y);
    read_pixels();
    if (pixels_.empty())
      throw InputError("has no pixel that counts and has every feature of the model",
                       "check --region and --within", input_.string());
    Json json{{"file", input_.string()}, {"pixels", Json::array()}};
    for (const ExplainedPixel& pixel : pixels_) json["pixels"].push_back(explained(pixel));
    if (results_.wants("reasons"))
      write_text_file(results_.path(input_, "reasons", "json"),
                      json_text(json["pixels"], 2) + "\n");
    if (format_ != FigureFormat::kNone && features_.size() > 1) draw();
    return json;
  }

 private:
  void check_place(std::int64_t x, std::int64_t y) const {
    const RasterShape& shape = picture_.shape();
    if (x < 0 || y < 0 || x >= shape.width || y >= shape.height)
      throw InputError("--at: the picture is " + shape.size_text() + " pixels",
                       "give x,y inside it", input_.string());
  }

  bool is_asked_for(std::uint32_t x, std::uint32_t y) const {
    if (options_.first > 0) return pixels_.size() < options_.first;
    return std::any_of(options_.at.begin(), options_.at.end(),
                       [&](const auto& at) { return at.first == x && at.second == y; });
  }

  /// Reads rows until all pixels are found; those asked for by place come in the order given.
  void read_pixels() {
    const FeaturePlan plan(picture_.file.info, model_.features, model_.divisors,
                           options_.shared.hue_floor, picture_.counting);
    FeatureEvaluator evaluator(plan);
    BlockReader reader(picture_.file.info, picture_.counting);
    BandReader bands(*picture_.file.rows, plan.halo(), context_.stop);
    Band band = bands.make_band();
    const std::uint32_t last = last_row();
    for (std::uint32_t y = 0; y <= last; ++y) {
      if (y == band.first_row() + band.rows()) bands.read_next(band);
      if (options_.first > 0 && pixels_.size() >= options_.first) break;
      if (options_.first == 0 && !is_asked_row(y)) continue;
      reader.for_each_block_of_row(band, y, [&](const Block& block, std::uint32_t x) {
        evaluator.evaluate(block);
        take(block, x, y, evaluator);
      });
    }
    if (options_.first == 0) put_in_order();
  }

  std::uint32_t last_row() const {
    if (options_.first > 0) return picture_.shape().height - 1;
    std::int64_t last = 0;
    for (const auto& at : options_.at) last = std::max(last, at.second);
    return static_cast<std::uint32_t>(last);
  }
  bool is_asked_row(std::uint32_t y) const {
    return std::any_of(options_.at.begin(), options_.at.end(),
                       [&](const auto& at) { return at.second == y; });
  }

  void take(const Block& block, std::uint32_t first_x, std::uint32_t y,
            const FeatureEvaluator& evaluator) {
    std::vector<Label> labels(kBlockPixels + kPlanePadding);
    bool classified = false;
    for (std::size_t i = 0; i < block.size; ++i) {
      const auto x = static_cast<std::uint32_t>(first_x + i);
      if (!is_asked_for(x, y)) continue;
      if (!block.counts(i) || !evaluator.complete(i)) {
        if (options_.first == 0)
          throw InputError("the pixel at " + std::to_string(x) + "," + std::to_string(y) +
                               " does not count or lacks a feature of the model",
                           "choose another, or check --region and --within", input_.string());
        continue;
      }
      if (!classified) classifier_.classify(evaluator.values(), block.size, labels.data());
      classified = true;
      ExplainedPixel& pixel = pixels_.emplace_back(ExplainedPixel{x, y, {}, labels[i]});
      for (const float* const plane : evaluator.values()) pixel.features.push_back(plane[i]);
    }
  }

  void put_in_order() {
    std::vector<ExplainedPixel> ordered;
    for (const auto& at : options_.at)
      for (const ExplainedPixel& pixel : pixels_)
        if (pixel.x == at.first && pixel.y == at.second) ordered.push_back(pixel);
    pixels_ = std::move(ordered);
  }

  std::string name_of(std::size_t entry) const { return model_.classes[entry].name; }

  Json explained(const ExplainedPixel& pixel) {
    const std::vector<double> features(pixel.features.begin(), pixel.features.end());
    Explanation why = method_of(model_).explain(scaled_, features);
    const std::vector<std::size_t> ranking = ranking_of(why);
    Json json{{"x", pixel.x}, {"y", pixel.y}, {"features", Json::array()}};
    for (std::size_t f = 0; f < features.size(); ++f) {
      const double divisor = model_.divisors.empty() ? 1 : model_.divisors[f];
      json["features"].push_back({{"name", features_[f].name()},
                                  {"value", features[f] * divisor},
                                  {"divided", features[f]}});
    }
    json["classes"] = Json::array();
    for (std::size_t e = 0; e < why.classes.size(); ++e)
      json["classes"].push_back(class_json(e, why.classes[e]));
    for (const Neighbor& neighbor : why.neighbors)
      json["neighbors"].push_back({{"class", name_of(neighbor.entry)},
                                   {"distance", std::sqrt(double{neighbor.squared_distance})},
                                   {"pixels", neighbor.pixels}});
    in_question_[ranking[0]] = true;
    const ClassExplanation& best = why.classes[ranking[0]];
    const bool has_class = pixel.label != 0;
    json["class"] = has_class ? map_classes(model_)[pixel.label - 1u].name : "unclassified";
    json["nearest"] = name_of(ranking[0]);
    // Entries of one class do not compete.
    for (std::size_t k = 1; k < ranking.size(); ++k) {
      if (numbers_[ranking[k]] == numbers_[ranking[0]]) continue;
      in_question_[ranking[k]] = true;
      json["runner_up"] = name_of(ranking[k]);
      json["margin"] = best.score - why.classes[ranking[k]].score;
      break;
    }
    return json;
  }

  Json class_json(std::size_t entry, const ClassExplanation& one) const {
    Json json{{"class", name_of(entry)}, {"terms", Json::array()}};
    for (std::size_t f = 0; f < one.terms.size(); ++f) {
      const FeatureTerm& term = one.terms[f];
      Json out{{"feature", features_[f].name()}, {"middle", term.middle}};
      if (term.low) out["low"] = *term.low;
      if (term.high) out["high"] = *term.high;
      out["difference"] = term.difference;
      out["weighted"] = term.weighted;
      out["part"] = term.part;
      json["terms"].push_back(out);
    }
    json["sum"] = one.sum;
    json["distance"] = one.distance;
    if (one.log_determinant) json["log_determinant"] = *one.log_determinant;
    if (one.log_prior) json["log_prior"] = *one.log_prior;
    json["score"] = one.score;
    if (one.inside) json["inside"] = *one.inside;
    if (one.probability) json["probability"] = *one.probability;
    if (one.votes) json["votes"] = *one.votes;
    const std::vector<double>& reach = model_.classes[entry].reach;
    for (std::size_t r = 0; r < reach.size(); ++r)
      if (one.distance <= reach[r] || r + 1 == reach.size()) {
        json["within_percent"] = one.distance <= reach[r] ? Json(kReachPercents[r]) : Json();
        break;
      }
    return json;
  }

  /// The features that best tell the classes apart that were in question.
  std::pair<std::size_t, std::size_t> telling_features() const {
    Model in_question = model_;
    in_question.classes.clear();
    for (std::size_t e = 0; e < model_.classes.size(); ++e)
      if (in_question_[e]) in_question.classes.push_back(model_.classes[e]);
    return most_telling_features(in_question);
  }

  void draw() {
    const auto [x, y] = telling_features();
    ScatterContent content;
    for (const ExplainedPixel& pixel : pixels_) {
      const auto value = [&](std::size_t f) {
        const double divisor = model_.divisors.empty() ? 1 : model_.divisors[f];
        return static_cast<float>(pixel.features[f] * divisor);
      };
      content.marked.push_back({value(x), value(y)});
    }
    Plot plot(format_);
    add_scatter_figure(plot, results_.path(input_, "reasons.figure", extension_of(format_)), model_,
                       {x, y}, content);
    draw_figures(plot, context_);
  }

  std::filesystem::path input_;
  const Model& model_;
  Model scaled_;
  std::vector<Feature> features_;
  std::vector<Label> numbers_;
  const Classifier& classifier_;
  std::vector<bool> in_question_;  // entries that won or came second
  const ExplainOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  CountedPicture picture_;
  std::vector<ExplainedPixel> pixels_;
};

}  // namespace

const std::vector<ResultKind>& explain_results() {
  static const std::vector<ResultKind> kinds{
      {"reasons", "<stem>.reasons.json: every number on the way to the class"},
      {"figure", "<stem>.reasons.figure.png: the pixels among the classes"}};
  return kinds;
}

Json run_explain(const ExplainOptions& options, const Context& context) {
  PictureRun run("explain", options.shared, context, explain_results());
  const Model model = read_model(options.model);
  const auto classifier = errors_at(options.model.string(), [&] { return make_classifier(model); });
  run.summary()["model"] = options.model.string();
  run.summary()["method"] = model.method;
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return ExplainJob(input, model, *classifier, options, its_context, run.results(),
                      run.figures().of_each)
        .run();
  };
  return run.do_each(do_one);
}

}  // namespace chalcedony
