#include "job/learn/train.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "core/error.h"
#include "core/learn/classifier.h"
#include "core/learn/feature_advice.h"
#include "core/learn/model.h"
#include "core/learn/sample_matrix.h"
#include "core/nearest_name.h"
#include "core/palette/figure_colors.h"
#include "figure/sample_figure.h"
#include "figure/scatter_figure.h"
#include "io/document/model_file.h"
#include "io/document/sample_table_file.h"
#include "job/learn/earlier_samples.h"
#include "job/learn/model_fit.h"
#include "job/learn/sample_pixels.h"
#include "job/learn/train_report.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/repeat/bad_inputs.h"
#include "job/repeat/pictures_at_once.h"
#include "job/run/input_list.h"

namespace chalcedony {
namespace {

constexpr std::size_t kScatterPointsPerClass = 1500;
constexpr std::uint64_t kDensityPixels = 60000;  // of each picture
// Up to here agreement is called fair at most (Landis and Koch, Biometrics 33, 1977).
constexpr double kFairKappa = 0.4;

/// At most so many pixels of a class, evenly picked, in two features.
ScatterPoints points_of(const ClassSamples& samples, const FeaturePair& features) {
  const std::uint64_t step = std::max<std::uint64_t>(1, samples.pixels() / kScatterPointsPerClass);
  ScatterPoints points;
  std::uint64_t passed = 0, next = 0;
  for (std::size_t i = 0; i < samples.rows(); ++i) {
    passed += samples.counts[i];
    if (passed <= next) continue;
    points.push_back({samples.row(i)[features.x], samples.row(i)[features.y]});
    next = std::max(next + step, passed);
  }
  return points;
}

class Training {
 public:
  Training(const TrainOptions& options, const Context& context, Results& results,
           const FigureFormats& figures)
      : options_(options),
        sources_(options.sources),
        context_(context),
        results_(results),
        shows_samples_(figures.of_each != FigureFormat::kNone),
        plot_(figures.of_all),
        pixels_(options.features, options.held_share, draws() ? kDensityPixels : 0,
                options.mean_colors, options.shared) {
    frame_.features = options.features;
    if (!sources_.model.empty())
      sources_.earlier = earlier_samples(sources_.model, options.shared.inputs);
  }

  Json run(Json& summary) {
    stopped_by_bad(options_.shared, [&] { read_inputs(usable(summary), summary["inputs"]); });
    pixels_.finish();
    warn_of_unknown_classes();
    color_classes();
    if (pixels_.training().drawn())
      context_.warn("there are more sample colors than are held; " +
                    std::to_string(pixels_.training().rows()) +
                    " were drawn, each with all its pixels");
    if (options_.trim > 0) trimmed_ = trimmed(pixels_.training(), options_.trim);
    check_classes();
    train();
    warn_of_mixed_up_samples();
    Json json = model_json(best());
    write(json["separability"]);
    if (draws()) draw();
    if (options_.trim > 0) json["trimmed_pixels"] = trimmed_pixels();
    if (options_.method == kAllMethods) json["methods"] = methods_json(scores_);
    return json;
  }

 private:
  bool draws() const { return plot_.format() != FigureFormat::kNone; }

  const SampleTable& samples() const { return trimmed_ ? *trimmed_ : pixels_.training(); }

  std::vector<std::size_t> usable(Json& summary) const {
    return usable_inputs(options_.shared, context_, summary,
                         [&](const std::filesystem::path& input) {
                           check_input(input, options_.shared, context_,
                                       [&] { read_sample_table(input, frame_.features); });
                         });
  }

  /// A picture whose samples are read.
  struct InHand {
    std::optional<CountedPicture> picture;
    std::optional<Preview> preview;
    NamedSamples named;
    SamplePixels::Samples samples;
    SamplePixels::Added added;
    Json json;  // what the summary says of it
  };

  void read_inputs(const std::vector<std::size_t>& places, Json& summaries) {
    const auto& inputs = options_.shared.inputs;
    // Pictures are numbered without the tables among the inputs, as their sample files are.
    std::vector<std::size_t> numbers;
    std::size_t pictures = 0;
    for (const auto& input : inputs) numbers.push_back(is_table_name(input) ? 0 : pictures++);
    std::vector<InHand> all(places.size());
    const auto begin = [&](std::size_t i) {
      const std::filesystem::path& input = inputs[places[i]];
      if (is_table_name(input)) {
        all[i].json = read_table(input);
      } else {
        all[i] = opened(input, numbers[places[i]]);
      }
    };
    const auto work = [&](std::size_t i) {
      InHand& one = all[i];
      if (one.picture)
        one.added = errors_at(inputs[places[i]].string(), [&] {
          return pixels_.add(*one.picture, one.samples, *one.preview, context_);
        });
    };
    const auto end = [&](std::size_t i) {
      if (all[i].picture) take_picture(inputs[places[i]], all[i]);
      summaries.push_back(std::move(all[i].json));
      all[i] = {};
    };
    for_pictures_at_once(options_.shared, places.size(),
                         {.begin = begin, .work = work, .end = end});
  }

  InHand opened(const std::filesystem::path& input, std::size_t number) {
    InHand one;
    one.picture.emplace(open_counted(input, options_.shared, context_));
    one.named = samples_of_input(sources_, number, *one.picture, options_.shared, context_);
    one.samples.picture = number;
    one.samples.runs = runs_of(one.named, one.picture->shape(), context_);
    for (const SampleClass& c : one.named.samples.classes)
      one.samples.class_of.push_back(class_index(c));
    one.preview.emplace(one.picture->file.info, shows_samples_);
    return one;
  }

  /// Our number of a class by its name; classes of several pictures are one by name.
  std::size_t class_index(const SampleClass& sample_class) {
    for (std::size_t c = 0; c < frame_.classes.size(); ++c)
      if (frame_.classes[c].name == sample_class.name) return c;
    if (frame_.classes.size() == kMostClasses)
      throw InputError("there are more than " + std::to_string(kMostClasses) + " classes",
                       "a class map holds no more");
    frame_.classes.push_back({sample_class.name, sample_class.color, {}});
    return frame_.classes.size() - 1;
  }

  /// A name that is mistyped would have no say.
  void warn_of_unknown_classes() const {
    std::vector<std::string> names;
    for (const ModelClass& known : frame_.classes) names.push_back(known.name);
    for (const auto& [name, color] : sources_.colors)
      if (std::find(names.begin(), names.end(), name) == names.end())
        context_.warn("--class: no sample is of a class '" + name + "'; " +
                      suggest_name(name, names));
  }

  /// Those that were given no color.
  void color_classes() {
    for (std::size_t c = 0; c < frame_.classes.size(); ++c)
      if (std::string& color = frame_.classes[c].color; color.empty())
        color = css_hex(colors_.mean(c).value_or(class_color(c)));
  }

  /// Samples that an earlier training kept.
  Json read_table(const std::filesystem::path& input) {
    const StoredSamples stored = read_sample_table(input, frame_.features);
    Json json{{"file", input.string()}, {"samples", input.string()}, {"classes", Json::array()}};
    std::vector<std::size_t> class_of;
    for (std::size_t c = 0; c < stored.classes.size(); ++c) {
      class_of.push_back(class_index({stored.classes[c].name, stored.classes[c].color}));
      json["classes"].push_back(
          {{"name", stored.classes[c].name}, {"pixels", stored.samples.added(c)}});
    }
    pixels_.add(stored.samples, class_of);
    return json;
  }

  void take_picture(const std::filesystem::path& input, InHand& one) {
    const RasterShape& shape = one.picture->shape();
    const SampleSet& samples = one.named.samples;
    density_.insert(density_.end(), one.added.density.begin(), one.added.density.end());
    frame_.trained_on.push_back({one.picture->name(), shape.width, shape.height, samples,
                                 shape.channels, depth_of(one.picture->file.info)});
    colors_.add(one.added.colors, one.samples.class_of);
    if (one.preview->wanted())
      shown_.push_back({results_.path(input, "samples.figure", extension_of(plot_.format())),
                        frame_.trained_on.size() - 1, one.samples.class_of, one.added.counts,
                        one.preview->thumbnail()});
    one.json = {{"file", input.string()},
                {"samples", one.named.from},
                {"regions", samples.shapes.size()},
                {"left_out", one.added.left_out},
                {"classes", Json::array()}};
    for (std::size_t c = 0; c < samples.classes.size(); ++c)
      one.json["classes"].push_back(
          {{"name", samples.classes[c].name}, {"pixels", one.added.counts[c]}});
  }

  /// A picture as the figure of its samples shows it, which waits for the colors of the classes.
  struct ShownSamples {
    std::filesystem::path figure;
    std::size_t picture = 0;  // in trained_on of the frame
    std::vector<std::size_t> class_of;
    std::vector<std::uint64_t> counts;
    Thumbnail thumbnail;
  };

  void draw_samples(const ShownSamples& shown) {
    std::vector<std::string> colors;
    for (const std::size_t c : shown.class_of) colors.push_back(frame_.classes[c].color);
    const TrainingPicture& picture = frame_.trained_on[shown.picture];
    add_samples_figure(plot_, shown.figure, picture.name, picture.samples, colors, shown.counts,
                       shown.thumbnail);
  }

  void check_classes() const {
    for (std::size_t c = 0; c < frame_.classes.size(); ++c) {
      const std::string& name = frame_.classes[c].name;
      if (pixels_.training().added(c) + pixels_.held().added(c) == 0)
        throw InputError("class '" + name + "' has no sample pixels that count",
                         "draw larger samples of it");
      if (samples().of(c).rows() == 0)
        throw InputError("class '" + name + "' has no sample pixels left to train with",
                         "draw larger samples of it, or hold out or trim fewer");
      if (options_.held_share > 0 && pixels_.held().of(c).rows() == 0)
        throw InputError("no sample pixels of class '" + name + "' were held out",
                         "draw larger samples of it, or hold out more");
    }
  }

  TrainedScore scored(Model model) const {
    const auto classifier = make_classifier(model);
    ErrorMatrix own = sample_matrix(*classifier, model, samples());
    std::optional<ErrorMatrix> held;
    if (options_.held_share > 0) held = sample_matrix(*classifier, model, pixels_.held());
    return {std::move(model), std::move(own), std::move(held), ""};
  }

  /// The method asked for, or all of them: then the best on the held-out samples comes first to
  /// use, and the first of equals.
  void train() {
    if (options_.method != kAllMethods) {
      scores_.push_back(scored(trained_model(frame_, options_.method, samples(), options_.rules)));
      return;
    }
    for (const std::string& method : classifier_methods()) {
      try {
        scores_.push_back(scored(trained_model(frame_, method, samples(), options_.rules)));
      } catch (const InputError& error) {
        Model failed;
        failed.method = method;
        scores_.push_back({failed, ErrorMatrix(0, 0), std::nullopt, error.problem()});
      }
    }
    const auto worth = [](const TrainedScore& score) {
      return score.held ? score.held->overall().value_or(0) : -1;
    };
    for (std::size_t s = 1; s < scores_.size(); ++s)
      if (worth(scores_[s]) > worth(scores_[best_])) best_ = s;
  }

  void warn_of_mixed_up_samples() const {
    const std::optional<double> kappa = best().samples.kappa();
    if (!kappa || *kappa > kFairKappa) return;
    context_.warn(fmt::format(
        "the model hardly tells its own samples apart (kappa {:.3f}); see whether the regions lie "
        "where they belong, or choose other --features",
        *kappa));
  }

  std::vector<MapClass> classes_of_frame() const {
    std::vector<MapClass> classes;
    for (const ModelClass& c : frame_.classes) classes.push_back({c.name, c.color});
    return classes;
  }

  const TrainedScore& best() const { return scores_[best_]; }

  void write(const Json& separability) {
    if (results_.wants("model")) {
      write_model(results_.path("model.json"), best().model);
      if (options_.method == kAllMethods)
        for (const TrainedScore& score : scores_)
          if (score.held)
            write_model(results_.path(score.model.method + ".model.json"), score.model);
    }
    const Model& model = best().model;
    if (options_.keep_samples && results_.wants("table"))
      write_sample_table(results_.path("sample-table.csv"), classes_of_frame(), frame_.features,
                         pixels_.training());
    if (results_.wants("samples"))
      write_sample_statistics(results_.path("samples.csv"), model, pixels_.training(),
                              trimmed_ ? &*trimmed_ : nullptr);
    if (results_.wants("separability"))
      write_separability(results_.path("separability.csv"), separability);
    if (results_.wants("confusion")) write_confusion(results_.path("confusion.csv"), best());
    if (options_.method == kAllMethods && results_.wants("methods"))
      write_methods(results_.path("methods.csv"), scores_);
  }

  FeaturePair scatter_features(const Model& model) const {
    const auto [x, y] = options_.scatter ? *options_.scatter : most_telling_features(model);
    return {x, y};
  }

  void draw() {
    for (const ShownSamples& shown : shown_) draw_samples(shown);
    const Model& model = best().model;
    const std::size_t features = pixels_.training().features();
    if (features > 1) {
      const FeaturePair pair = scatter_features(model);
      ScatterContent content;
      for (std::size_t c = 0; c < model.classes.size(); ++c)
        content.samples.push_back(points_of(samples().of(c), pair));
      for (std::size_t at = 0; at < density_.size(); at += features)
        content.everything.push_back({density_[at + pair.x], density_[at + pair.y]});
      add_scatter_figure(plot_, results_.path("scatter.figure." + extension_of(plot_.format())),
                         model, pair, content);
    }
    draw_figures(plot_, context_);
  }

  std::uint64_t trimmed_pixels() const {
    std::uint64_t pixels = 0;
    for (std::size_t c = 0; c < frame_.classes.size(); ++c)
      pixels += pixels_.training().of(c).pixels() - samples().of(c).pixels();
    return pixels;
  }

  const TrainOptions& options_;
  SampleSources sources_;
  const Context& context_;
  Results& results_;
  bool shows_samples_;  // on each picture
  Plot plot_;
  SamplePixels pixels_;
  std::vector<float> density_;  // drawn pixels of all pictures, a row of features each
  std::optional<SampleTable> trimmed_;
  Model frame_;  // what all methods share
  ClassColors colors_;
  std::vector<ShownSamples> shown_;
  std::vector<TrainedScore> scores_;
  std::size_t best_ = 0;  // in scores_
};

}  // namespace

const std::vector<ResultKind>& train_results() {
  static const std::vector<ResultKind> kinds{
      {"model", "model.json: what classify needs; with --method all METHOD.model.json too"},
      {"samples", "samples.csv: the statistics of every class and feature"},
      {"table", "sample-table.csv: the sample pixels themselves, to train with others later",
       "keep-samples"},
      {"separability", "separability.csv: how far apart every two classes are"},
      {"confusion", "confusion.csv: what the model takes the sample pixels for"},
      {"methods", "methods.csv: all methods on the held-out samples", "method all"},
      {"figure",
       "<stem>.samples.figure.png and scatter.figure.png: the samples on the picture and "
       "among the features"}};
  return kinds;
}

Json run_train(const TrainOptions& options, const Context& context) {
  Results results(options.shared, context, train_results(), ResultNames::kPictures);
  const FigureFormats figures = figure_formats(results, options.shared, context);
  Json summary = summary_frame("train");
  summary["model"] = Training(options, context, results, figures).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
