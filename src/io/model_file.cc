#include "io/model_file.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/color/css_color.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "io/atomic_file.h"
#include "io/sample_file.h"

namespace chalcedony {
namespace {

using Json = nlohmann::ordered_json;

Json numbers(const Eigen::VectorXd& vector) {
  return Json(std::vector<double>(vector.begin(), vector.end()));
}

Json rows(const Eigen::MatrixXd& matrix) {
  Json out = Json::array();
  for (Eigen::Index r = 0; r < matrix.rows(); ++r) out.push_back(numbers(matrix.row(r)));
  return out;
}

[[noreturn]] void reject(const std::string& problem) {
  throw InputError(problem, "give a model written by 'chalcedony train' or 'cluster'");
}

Eigen::VectorXd vector_of(const Json& json, std::size_t size) {
  if (!json.is_array() || json.size() != size)
    reject("the model's numbers do not fit its features");
  Eigen::VectorXd out(static_cast<Eigen::Index>(size));
  for (std::size_t i = 0; i < size; ++i) out[static_cast<Eigen::Index>(i)] = json[i].get<double>();
  return out;
}

Eigen::MatrixXd matrix_of(const Json& json, std::size_t size) {
  if (!json.is_array() || json.size() != size)
    reject("the model's numbers do not fit its features");
  const auto n = static_cast<Eigen::Index>(size);
  Eigen::MatrixXd out(n, n);
  for (std::size_t r = 0; r < size; ++r)
    out.row(static_cast<Eigen::Index>(r)) = vector_of(json[r], size);
  return out;
}

std::vector<double> divisors_of(const Json& json, std::size_t features) {
  const Eigen::VectorXd divisors = vector_of(json, features);
  if (!(divisors.array() > 0).all()) reject("the model divides by numbers that are not above 0");
  return {divisors.begin(), divisors.end()};
}

ModelClass class_of(const Json& json, std::size_t features) {
  ModelClass out;
  out.name = json.at("name").get<std::string>();
  out.color = css_hex(css_color(json.at("color").get<std::string>()));
  out.statistics.count = json.at("count").get<std::uint64_t>();
  out.statistics.mean = vector_of(json.at("mean"), features);
  out.statistics.covariance = matrix_of(json.at("covariance"), features);
  out.statistics.smallest = vector_of(json.at("smallest"), features);
  out.statistics.largest = vector_of(json.at("largest"), features);
  out.prior = json.at("prior").get<double>();
  if (!(out.prior > 0 && out.prior <= 1)) reject("the model's priors are no shares");
  return out;
}

TrainingPicture training_picture_of(const Json& json) {
  TrainingPicture out{json.at("picture").get<std::string>(),
                      json.at("width").get<std::uint32_t>(),
                      json.at("height").get<std::uint32_t>(),
                      {}};
  out.samples = parse_samples(json.at("samples").dump(), out.width, out.height);
  return out;
}

std::string training_picture_text(const TrainingPicture& picture) {
  const std::string samples = samples_text(picture.samples, picture.width, picture.height);
  return Json{{"picture", picture.name},
              {"width", picture.width},
              {"height", picture.height},
              {"samples", Json::parse(samples)}}
      .dump();
}

Model model_of(const Json& json) {
  if (!json.is_object() || json.value("chalcedony", "") != "model") reject("is not a model");
  if (json.at("version").get<int>() > kModelVersion)
    throw InputError("is a model of version " + std::to_string(json.at("version").get<int>()) +
                         ", this program reads up to " + std::to_string(kModelVersion),
                     "use the newer program that wrote it, or train again");
  Model model;
  model.method = json.at("method").get<std::string>();
  for (const Json& feature : json.at("features"))
    model.features.push_back(channel_named(feature.get<std::string>()));
  const std::size_t dimensions = features_of(model.features).size();
  model.scaling = json.at("scaling").get<std::string>();
  if (json.contains("divisors")) model.divisors = divisors_of(json["divisors"], dimensions);
  model.box_spread = json.value("box_spread", 0.0);
  if (!(model.box_spread >= 0)) reject("the model's boxes have no width");
  for (const Json& one : json.at("classes")) model.classes.push_back(class_of(one, dimensions));
  if (model.features.empty() || model.classes.empty() || model.classes.size() > 255)
    reject("the model has no features or classes, or more than 255 of them");
  for (const Json& picture : json.at("trained_on"))
    model.trained_on.push_back(training_picture_of(picture));
  return model;
}

}  // namespace

std::string model_text(const Model& model) {
  Json json;
  json["chalcedony"] = "model";
  json["version"] = kModelVersion;
  json["method"] = model.method;
  json["features"] = Json::array();
  for (const Channel& feature : model.features) json["features"].push_back(feature.name());
  json["scaling"] = model.scaling;
  if (!model.divisors.empty()) json["divisors"] = model.divisors;
  if (model.box_spread > 0) json["box_spread"] = model.box_spread;
  json["classes"] = Json::array();
  for (const ModelClass& c : model.classes) {
    json["classes"].push_back({{"name", c.name},
                               {"color", c.color},
                               {"prior", c.prior},
                               {"count", c.statistics.count},
                               {"mean", numbers(c.statistics.mean)},
                               {"covariance", rows(c.statistics.covariance)},
                               {"smallest", numbers(c.statistics.smallest)},
                               {"largest", numbers(c.statistics.largest)}});
  }
  // Sample regions are long lists of numbers: a line for each picture, after the rest.
  std::string text = json.dump(2);
  text.resize(text.size() - 2);
  text += ",\n  \"trained_on\": [";
  for (std::size_t i = 0; i < model.trained_on.size(); ++i)
    text += (i ? ",\n    " : "\n    ") + training_picture_text(model.trained_on[i]);
  return text + "\n  ]\n}\n";
}

Model parse_model(std::string_view text) {
  try {
    return model_of(Json::parse(text));
  } catch (const Json::exception&) {
    reject("is not a model, or a damaged one");
  } catch (const UsageError& error) {
    throw InputError(error.problem(), error.remedy());
  }
}

void write_model(const std::filesystem::path& path, const Model& model) {
  write_text_file(path, model_text(model));
}

Model read_model(const std::filesystem::path& path) {
  const std::string text = read_text_file(path);
  try {
    return parse_model(text);
  } catch (const InputError& error) {
    throw at_place(error, path.string());
  }
}

std::vector<LegendEntry> legend_of(const Model& model) {
  std::vector<LegendEntry> legend;
  for (const MapClass& c : map_classes(model))
    legend.push_back({static_cast<unsigned>(legend.size() + 1), c.name, c.color});
  return legend;
}

}  // namespace chalcedony
