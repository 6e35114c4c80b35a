#include "job/learn/train_report.h"

#include <cmath>

#include "core/feature/features.h"
#include "core/learn/feature_advice.h"
#include "core/learn/separability.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

void add_statistics(const Model& model, const char* pixels, const SampleTable& samples,
                    CsvTable& table) {
  const std::vector<Feature> features = features_of(model.features);
  for (std::size_t c = 0; c < model.classes.size(); ++c) {
    const ClassStatistics s = samples.statistics(c);
    for (std::size_t f = 0; f < features.size(); ++f) {
      const auto i = static_cast<Eigen::Index>(f);
      std::vector<CsvField> row{
          model.classes[c].name,         features[f].name(), pixels,      s.count, s.mean[i],
          std::sqrt(s.covariance(i, i)), s.smallest[i],      s.largest[i]};
      for (Eigen::Index j = 0; j < s.mean.size(); ++j) row.emplace_back(s.covariance(i, j));
      table.add(row);
    }
  }
}

void add_confusion(const char* pixels, const ErrorMatrix& matrix, const Model& model,
                   CsvTable& table) {
  for (std::size_t c = 0; c < matrix.columns(); ++c) {
    std::vector<CsvField> row{pixels, model.classes[c].name, matrix.column_total(c)};
    for (std::size_t r = 0; r < matrix.rows(); ++r) row.emplace_back(matrix.at(r, c));
    table.add(row);
  }
}

CsvField percent_field(const std::optional<double>& share) {
  return share ? CsvField(100 * *share) : CsvField();
}

/// The largest share of a class that is taken for one other class, or left without one.
struct Confusion {
  std::size_t of = 0, taken_for = 0;
  double share = 0;
};

Confusion worst_confusion(const ErrorMatrix& matrix) {
  Confusion worst;
  for (std::size_t c = 0; c < matrix.columns(); ++c)
    for (std::size_t r = 0; r < matrix.rows(); ++r) {
      if (r == c || matrix.column_total(c) == 0) continue;
      const double share =
          static_cast<double>(matrix.at(r, c)) / static_cast<double>(matrix.column_total(c));
      if (share > worst.share) worst = {c, r, share};
    }
  return worst;
}

std::string class_name(const Model& model, std::size_t row) {
  return row < model.classes.size() ? model.classes[row].name : "unclassified";
}

/// For every two classes how far apart they are.
Json separability_pairs(const Model& model) {
  Json pairs = Json::array();
  const Eigen::VectorXd floor = smallest_spread(model);
  const Model divided = scaled(model);
  for (std::size_t a = 0; a < model.classes.size(); ++a)
    for (std::size_t b = a + 1; b < model.classes.size(); ++b) {
      const ModelClass &first = divided.classes[a], &second = divided.classes[b];
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

Json feature_advice(const Model& model) {
  const std::vector<Feature> features = features_of(model.features);
  Json json{{"lone_features", Json::array()}};
  for (const LoneFeature& lone : lone_features(model))
    json["lone_features"].push_back({{"first", model.classes[lone.first].name},
                                     {"second", model.classes[lone.second].name},
                                     {"feature", features[lone.feature].name()},
                                     {"with", lone.with},
                                     {"without", lone.without}});
  if (const auto needless = needless_lightness(model)) {
    json["needless_lightness"] = {{"with", needless->with}, {"without", needless->without}};
    for (const std::size_t f : needless->features)
      json["needless_lightness"]["features"].push_back(features[f].channel.name());
  }
  return json;
}

}  // namespace

void write_sample_statistics(const std::filesystem::path& path, const Model& model,
                             const SampleTable& all, const SampleTable* kept) {
  std::vector<std::string> header{
      "class", "feature", "pixels", "count", "mean", "standard_deviation", "minimum", "maximum"};
  for (const Feature& feature : features_of(model.features))
    header.push_back("covariance_" + feature.name());
  CsvTable table(header);
  add_statistics(model, "all", all, table);
  if (kept) add_statistics(model, "kept", *kept, table);
  table.write(path);
}

void write_confusion(const std::filesystem::path& path, const TrainedScore& score) {
  std::vector<std::string> header{"pixels", "class", "count"};
  for (std::size_t r = 0; r < score.samples.rows(); ++r)
    header.push_back("as_" + class_name(score.model, r));
  CsvTable table(header);
  add_confusion("trained", score.samples, score.model, table);
  if (score.held) add_confusion("held_out", *score.held, score.model, table);
  table.write(path);
}

void write_methods(const std::filesystem::path& path, const std::vector<TrainedScore>& scores) {
  CsvTable table({"method", "held_out_pixels", "overall_percent", "kappa", "most_confused",
                  "taken_for", "confused_percent", "problem"});
  for (const TrainedScore& score : scores) {
    if (!score.held) {
      table.add({score.model.method, CsvField(), CsvField(), CsvField(), CsvField(), CsvField(),
                 CsvField(), score.problem});
      continue;
    }
    const Confusion worst = worst_confusion(*score.held);
    const auto kappa = score.held->kappa();
    table.add({score.model.method, score.held->total(), percent_field(score.held->overall()),
               kappa ? CsvField(*kappa) : CsvField(),
               worst.share > 0 ? class_name(score.model, worst.of) : "",
               worst.share > 0 ? class_name(score.model, worst.taken_for) : "", 100 * worst.share,
               CsvField()});
  }
  table.write(path);
}

void write_separability(const std::filesystem::path& path, const Json& pairs) {
  CsvTable table({"first", "second", "jeffries_matusita", "transformed_divergence",
                  "confusion_bound_percent"});
  for (const Json& pair : pairs) {
    const auto field = [&](const char* name) {
      return pair.contains(name) ? CsvField(pair[name].get<double>()) : CsvField();
    };
    table.add({pair["first"].get<std::string>(), pair["second"].get<std::string>(),
               field("jeffries_matusita"), field("transformed_divergence"),
               field("confusion_bound_percent")});
  }
  table.write(path);
}

Json score_json(const ErrorMatrix& matrix, const Model& model) {
  Json json{{"pixels", matrix.total()}};
  if (const auto overall = matrix.overall()) json["overall_percent"] = 100 * *overall;
  if (const auto kappa = matrix.kappa()) json["kappa"] = *kappa;
  const Confusion worst = worst_confusion(matrix);
  if (worst.share > 0)
    json["most_confused"] = {{"class", class_name(model, worst.of)},
                             {"taken_for", class_name(model, worst.taken_for)},
                             {"percent", 100 * worst.share}};
  return json;
}

Json methods_json(const std::vector<TrainedScore>& scores) {
  Json list = Json::array();
  for (const TrainedScore& score : scores) {
    Json& json = list.emplace_back();
    json["method"] = score.model.method;
    if (score.held) {
      json["held_out"] = score_json(*score.held, score.model);
    } else {
      json["problem"] = score.problem;
    }
  }
  return list;
}

Json model_json(const TrainedScore& score) {
  const Model& model = score.model;
  Json json{{"method", model.method},
            {"features", Json::array()},
            {"scaling", model.scaling},
            {"divisors", model.divisors},
            {"classes", Json::array()},
            {"separability", separability_pairs(model)},
            {"samples", score_json(score.samples, model)}};
  if (score.held) json["held_out"] = score_json(*score.held, model);
  json["advice"] = feature_advice(model);
  for (const Feature& feature : features_of(model.features))
    json["features"].push_back(feature.name());
  for (const ModelClass& c : model.classes) {
    const auto& mean = c.statistics.mean;
    json["classes"].push_back({{"name", c.name},
                               {"color", c.color},
                               {"pixels", c.statistics.count},
                               {"mean", std::vector<double>(mean.begin(), mean.end())}});
  }
  return json;
}

}  // namespace chalcedony
