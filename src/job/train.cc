#include "job/train.h"

#include <algorithm>

#include "core/color/channel_plan.h"
#include "core/error.h"
#include "core/learn/classifier.h"
#include "core/learn/model.h"
#include "core/learn/sample_shape.h"
#include "core/learn/separability.h"
#include "core/palette/figure_colors.h"
#include "figure/map_figure.h"
#include "figure/scatter_figure.h"
#include "io/csv.h"
#include "io/model_file.h"
#include "io/sample_file.h"
#include "job/inputs.h"
#include "job/preview.h"
#include "job/sample_places.h"

namespace chalcedony {
namespace {

constexpr std::size_t kScatterPointsPerClass = 1500;

/// Sample pixels of one picture: their sums and some of them to draw.
struct SampleBand {
  std::vector<ClassSums> sums;
  std::vector<std::vector<std::array<float, 2>>> points;
  std::uint64_t left_out = 0;  // sample pixels that do not count or lack a feature
  Excluded excluded;
};

class Training {
 public:
  Training(const TrainOptions& options, const Context& context, Results& results)
      : options_(options), context_(context), results_(results) {
    model_.method = options.method;
    model_.box_spread = options.box_spread;
    model_.features = options.features.empty() ? channels_of(spaces::kLab) : options.features;
    features_ = features_of(model_.features);
  }

  Json run(Json& summary) {
    const FigureFormat format =
        results_.wants("figure") ? settle_figures(options_.shared, context_) : FigureFormat::kNone;
    Plot plot(format);
    for (std::size_t i = 0; i < options_.shared.inputs.size(); ++i)
      summary["inputs"].push_back(read_picture(i, plot));
    finish_classes();
    write_tables();
    if (format != FigureFormat::kNone) {
      if (features_.size() > 1) {
        const auto [x, y] = most_telling_features();
        add_scatter_figure(plot, results_.path("scatter.figure." + extension_of(format)), model_, x,
                           y, points_in(x, y));
      }
      draw_figures(plot, context_);
    }
    return report();
  }

 private:
  /// Our number of a class by its name; classes of several pictures are one by name.
  std::size_t class_index(const SampleClass& sample_class) {
    for (std::size_t c = 0; c < model_.classes.size(); ++c)
      if (model_.classes[c].name == sample_class.name) return c;
    std::string color = sample_class.color;
    if (color.empty()) color = css_hex(class_color(model_.classes.size()));
    model_.classes.push_back({sample_class.name, color, {}});
    sums_.emplace_back(features_.size());
    points_.emplace_back();
    return model_.classes.size() - 1;
  }

  /// What the sample file of a picture and the options say.
  SampleSet samples_of(std::size_t i, const RasterShape& shape) const {
    SampleSet samples;
    if (!options_.samples.empty())
      samples = read_samples(options_.samples[i], shape.width, shape.height);
    for (const auto& [name, place] : options_.places)
      add_places(place, samples.class_named(name), shape.width, shape.height, samples);
    return samples;
  }

  Json read_picture(std::size_t i, Plot& plot) {
    const std::filesystem::path& input = options_.shared.inputs[i];
    CountedPicture picture = open_counted(input, options_.shared, context_);
    const RasterShape& shape = picture.shape();
    const std::string from = options_.samples.empty() ? "--sample" : options_.samples[i].string();
    const SampleSet samples = samples_of(i, shape);
    std::vector<SampleRun> runs;
    try {
      runs = sample_runs(samples, shape.width, shape.height);
    } catch (const InputError& error) {
      throw at_place(error, from);
    }
    if (const std::uint64_t shared = shared_pixels(runs); shared > 0)
      context_.warn(from + ": " + std::to_string(shared) +
                    " pixels belong to samples of two classes and train both");
    std::vector<std::size_t> class_of_sample;
    for (const SampleClass& c : samples.classes) class_of_sample.push_back(class_index(c));
    Preview preview(picture.file.info, plot.format() != FigureFormat::kNone);
    const std::vector<std::uint64_t> counts = gather(picture, runs, class_of_sample, preview);
    model_.trained_on.push_back({picture.name(), shape.width, shape.height, samples});
    if (preview.wanted()) {
      std::vector<std::string> colors;
      for (const std::size_t c : class_of_sample) colors.push_back(model_.classes[c].color);
      add_samples_figure(plot, results_.path(input, "samples.figure", extension_of(plot.format())),
                         picture.name(), samples, colors, counts, preview.thumbnail());
    }
    Json json{{"file", input.string()},
              {"samples", from},
              {"regions", samples.shapes.size()},
              {"left_out", left_out_},
              {"classes", Json::array()}};
    for (std::size_t c = 0; c < samples.classes.size(); ++c)
      json["classes"].push_back({{"name", samples.classes[c].name}, {"pixels", counts[c]}});
    return json;
  }

  /// Adds the sample pixels of a picture to the sums; returns their counts by class of its samples.
  std::vector<std::uint64_t> gather(CountedPicture& picture, const std::vector<SampleRun>& runs,
                                    const std::vector<std::size_t>& class_of_sample,
                                    Preview& preview) {
    const PictureInfo& info = picture.file.info;
    const FeaturePlan plan(info, model_.features, {}, options_.shared.hue_floor);
    const std::size_t classes = class_of_sample.size();
    const auto make_worker = [&] {
      return [&, reader = BlockReader(info, picture.counting), features = FeatureEvaluator(plan),
              collector = Preview::Collector(preview)](const Band& band) mutable {
        SampleBand out{std::vector<ClassSums>(classes, ClassSums(features_.size())), {}, 0, {}};
        out.points.resize(classes);
        reader.for_each_block(band, [&](const Block& block) {
          collector.add(block);
          add_samples(block, runs, features, out);
        });
        out.excluded = reader.take_excluded();
        return out;
      };
    };
    std::vector<std::uint64_t> counts(classes);
    left_out_ = 0;
    travel(*picture.file.rows, road_for(picture, options_.shared, context_), make_worker,
           [&](const SampleBand& band) {
             left_out_ += band.left_out;
             for (std::size_t c = 0; c < classes; ++c) {
               counts[c] += band.sums[c].count();
               sums_[class_of_sample[c]] += band.sums[c];
               auto& values = points_[class_of_sample[c]];
               values.insert(values.end(), band.points[c].begin(), band.points[c].end());
             }
           });
    return counts;
  }

  void add_samples(const Block& block, const std::vector<SampleRun>& runs,
                   FeatureEvaluator& evaluator, SampleBand& out) const {
    const std::uint64_t first = block.first_pixel, end = first + block.size;
    // Runs are sorted by their begin and none is longer than a row.
    auto run = std::lower_bound(runs.begin(), runs.end(), first,
                                [&](const SampleRun& r, std::uint64_t pixel) {
                                  return r.begin + block.picture_width < pixel;
                                });
    bool evaluated = false;
    std::vector<double> features(features_.size());
    for (; run != runs.end() && run->begin < end; ++run) {
      if (run->end <= first) continue;
      if (!evaluated) evaluator.evaluate(block);
      evaluated = true;
      for (std::uint64_t p = std::max(run->begin, first); p < std::min(run->end, end); ++p) {
        const std::size_t i = static_cast<std::size_t>(p - first);
        if (!block.counts(i) || !evaluator.complete(i)) {
          ++out.left_out;
          continue;
        }
        for (std::size_t f = 0; f < features.size(); ++f) features[f] = evaluator.values()[f][i];
        out.sums[run->sample_class].add(features.data());
        keep_point(features, out.points[run->sample_class]);
      }
    }
  }

  /// Keeps all features of a pixel as pairs; only figures use them.
  void keep_point(const std::vector<double>& features,
                  std::vector<std::array<float, 2>>& to) const {
    if (!results_.wants("figure")) return;
    for (std::size_t f = 0; f < features.size(); f += 2)
      to.push_back({static_cast<float>(features[f]),
                    static_cast<float>(f + 1 < features.size() ? features[f + 1] : 0)});
  }

  /// At most so many pixels of each class, evenly picked, in two features.
  std::vector<ScatterPoints> points_in(std::size_t x, std::size_t y) const {
    const std::size_t per_pixel = (features_.size() + 1) / 2;
    std::vector<ScatterPoints> out(points_.size());
    for (std::size_t c = 0; c < points_.size(); ++c) {
      const std::size_t pixels = points_[c].size() / per_pixel;
      const std::size_t step = std::max<std::size_t>(1, pixels / kScatterPointsPerClass);
      for (std::size_t p = 0; p < pixels; p += step) {
        const auto* features = points_[c].data() + p * per_pixel;
        out[c].push_back({features[x / 2][x % 2], features[y / 2][y % 2]});
      }
    }
    return out;
  }

  void finish_classes() {
    for (std::size_t c = 0; c < model_.classes.size(); ++c) {
      if (sums_[c].count() == 0)
        throw InputError("class '" + model_.classes[c].name + "' has no sample pixels that count",
                         "draw larger samples of it");
      model_.classes[c].statistics = sums_[c].statistics();
    }
    set_priors();
    make_classifier(model_);  // says now what classify would say
    if (model_.classes.size() > 255)
      throw InputError("there are " + std::to_string(model_.classes.size()) + " classes",
                       "a class map of this version holds up to 255");
  }

  void set_priors() {
    double all = 0;
    for (std::size_t c = 0; c < model_.classes.size(); ++c) {
      double& prior = model_.classes[c].prior;
      if (options_.priors == Priors::kSamples) prior = static_cast<double>(sums_[c].count());
      if (options_.priors == Priors::kGiven) prior = given_prior(model_.classes[c].name);
      all += prior;
    }
    for (ModelClass& c : model_.classes) c.prior /= all;
  }

  double given_prior(const std::string& name) const {
    for (const auto& [given, prior] : options_.given_priors)
      if (given == name) return prior;
    throw InputError("--priors says nothing of class '" + name + "'",
                     "give every class a number, as in " + name + "=0.2");
  }

  /// The two features whose class means lie widest apart, by the spread within classes.
  std::pair<std::size_t, std::size_t> most_telling_features() const {
    std::vector<std::pair<double, std::size_t>> ranking;
    for (std::size_t f = 0; f < features_.size(); ++f) {
      const auto i = static_cast<Eigen::Index>(f);
      double mean = 0, between = 0, within = 1e-12;
      for (const ModelClass& c : model_.classes) mean += c.statistics.mean[i];
      mean /= static_cast<double>(model_.classes.size());
      for (const ModelClass& c : model_.classes) {
        between += (c.statistics.mean[i] - mean) * (c.statistics.mean[i] - mean);
        within += c.statistics.covariance(i, i);
      }
      ranking.emplace_back(-between / within, f);
    }
    std::sort(ranking.begin(), ranking.end());
    return std::minmax(ranking[0].second, ranking[1].second);
  }

  void write_tables() {
    if (results_.wants("model")) write_model(results_.path("model.json"), model_);
    if (results_.wants("samples")) write_sample_statistics();
    pairs_ = separability_pairs();
    if (!results_.wants("separability")) return;
    CsvTable table({"first", "second", "jeffries_matusita", "transformed_divergence",
                    "confusion_bound_percent"});
    for (const Json& pair : pairs_) {
      const auto field = [&](const char* name) {
        return pair.contains(name) ? CsvField(pair[name].get<double>()) : CsvField();
      };
      table.add({pair["first"].get<std::string>(), pair["second"].get<std::string>(),
                 field("jeffries_matusita"), field("transformed_divergence"),
                 field("confusion_bound_percent")});
    }
    table.write(results_.path("separability.csv"));
  }

  void write_sample_statistics() {
    std::vector<std::string> header{"class",   "feature", "count", "mean", "standard_deviation",
                                    "minimum", "maximum"};
    for (const Feature& feature : features_) header.push_back("covariance_" + feature.name());
    CsvTable table(header);
    for (const ModelClass& c : model_.classes)
      for (std::size_t f = 0; f < features_.size(); ++f) {
        const auto i = static_cast<Eigen::Index>(f);
        const ClassStatistics& s = c.statistics;
        std::vector<CsvField> row{c.name,      features_[f].name(),           s.count,
                                  s.mean[i],   std::sqrt(s.covariance(i, i)), s.smallest[i],
                                  s.largest[i]};
        for (Eigen::Index j = 0; j < s.mean.size(); ++j) row.emplace_back(s.covariance(i, j));
        table.add(row);
      }
    table.write(results_.path("samples.csv"));
  }

  Json separability_pairs() const {
    Json pairs = Json::array();
    const Eigen::VectorXd floor = smallest_spread(model_);
    for (std::size_t a = 0; a < model_.classes.size(); ++a)
      for (std::size_t b = a + 1; b < model_.classes.size(); ++b) {
        const ModelClass &first = model_.classes[a], &second = model_.classes[b];
        Json pair{{"first", first.name}, {"second", second.name}};
        if (const auto s = separability(first.statistics, second.statistics, floor)) {
          pair["jeffries_matusita"] = s->jeffries_matusita;
          pair["transformed_divergence"] = s->transformed_divergence;
          pair["confusion_bound_percent"] = s->confusion_bound;
        }
        pairs.push_back(pair);
      }
    return pairs;
  }

  Json report() const {
    Json json{{"method", model_.method},
              {"features", Json::array()},
              {"classes", Json::array()},
              {"separability", pairs_}};
    for (const Feature& feature : features_) json["features"].push_back(feature.name());
    for (const ModelClass& c : model_.classes) {
      const auto& mean = c.statistics.mean;
      json["classes"].push_back({{"name", c.name},
                                 {"color", c.color},
                                 {"pixels", c.statistics.count},
                                 {"mean", std::vector<double>(mean.begin(), mean.end())}});
    }
    return json;
  }

  const TrainOptions& options_;
  const Context& context_;
  Results& results_;
  Model model_;
  std::vector<Feature> features_;
  std::vector<ClassSums> sums_;
  std::vector<std::vector<std::array<float, 2>>> points_;
  std::uint64_t left_out_ = 0;
  Json pairs_;
};

}  // namespace

const std::vector<ResultKind>& train_results() {
  static const std::vector<ResultKind> kinds{
      {"model", "model.json: what classify needs"},
      {"samples", "samples.csv: the statistics of every class and feature"},
      {"separability", "separability.csv: how far apart every two classes are"},
      {"figure",
       "<stem>.samples.figure.png and scatter.figure.png: the samples on the picture and "
       "among the features"}};
  return kinds;
}

Json run_train(const TrainOptions& options, const Context& context) {
  Results results(options.shared, train_results());
  Json summary = summary_frame("train");
  summary["model"] = Training(options, context, results).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
