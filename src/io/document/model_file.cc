#include "io/document/model_file.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/channel/derived_channel.h"
#include "core/color/css_color.h"
#include "core/error.h"
#include "core/feature/feature_names.h"
#include "core/nearest_name.h"
#include "io/document/sample_file.h"
#include "io/document/schema_check.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "io/text/number_text.h"

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

[[noreturn]] void reject_model(const std::string& problem) {
  throw InputError(problem, "give a model written by 'chalcedony train' or 'cluster'");
}

Eigen::VectorXd vector_of(const Json& json, std::size_t size) {
  if (!json.is_array() || json.size() != size)
    reject_model("the model's numbers do not fit its features");
  Eigen::VectorXd out(static_cast<Eigen::Index>(size));
  for (std::size_t i = 0; i < size; ++i) out[static_cast<Eigen::Index>(i)] = json[i].get<double>();
  return out;
}

Eigen::MatrixXd matrix_of(const Json& json, std::size_t size) {
  if (!json.is_array() || json.size() != size)
    reject_model("the model's numbers do not fit its features");
  const auto n = static_cast<Eigen::Index>(size);
  Eigen::MatrixXd out(n, n);
  for (std::size_t r = 0; r < size; ++r)
    out.row(static_cast<Eigen::Index>(r)) = vector_of(json[r], size);
  return out;
}

std::vector<double> divisors_of(const Json& json, std::size_t features) {
  const Eigen::VectorXd divisors = vector_of(json, features);
  return {divisors.begin(), divisors.end()};
}

ClassSamples samples_of(const Json& json, std::size_t features) {
  ClassSamples out{features, {}, json.at("sample_counts").get<std::vector<std::uint64_t>>()};
  for (const Json& row : json["samples"]) {
    if (row.size() != features) reject_model("the model's numbers do not fit its features");
    for (const Json& value : row) out.values.push_back(value.get<float>());
  }
  if (json["samples"].size() != out.rows())
    reject_model("the model's samples and their counts differ");
  return out;
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
  if (json.contains("reach")) out.reach = json["reach"].get<std::vector<double>>();
  if (json.contains("samples")) out.samples = samples_of(json, features);
  return out;
}

TrainingPicture training_picture_of(const Json& json) {
  TrainingPicture out{json.at("picture").get<std::string>(),
                      json.at("width").get<std::uint32_t>(),
                      json.at("height").get<std::uint32_t>(),
                      {}};
  out.samples = parse_samples(json.at("samples").dump(), out.width, out.height);
  out.channels = json.value("channels", std::size_t{0});
  out.depth = json.value("depth", "");
  return out;
}

std::string training_picture_text(const TrainingPicture& picture) {
  Json json{{"picture", picture.name}, {"width", picture.width}, {"height", picture.height}};
  if (picture.channels > 0) json["channels"] = picture.channels;
  if (!picture.depth.empty()) json["depth"] = picture.depth;
  json["samples"] = Json::parse(samples_text(picture.samples, picture.width, picture.height));
  return json_text(json);
}

/// Rows of floats, each in its shortest form.
std::string sample_rows_text(const ClassSamples& samples) {
  std::string text = "[";
  for (std::size_t i = 0; i < samples.rows(); ++i) {
    text += i ? ",[" : "[";
    for (std::size_t f = 0; f < samples.features; ++f)
      text += (f ? "," : "") + number_text(samples.row(i)[f]);
    text += ']';
  }
  return text + "]";
}

std::string class_text(const ModelClass& c) {
  Json json{{"name", c.name},
            {"color", c.color},
            {"prior", c.prior},
            {"count", c.statistics.count},
            {"mean", numbers(c.statistics.mean)},
            {"covariance", rows(c.statistics.covariance)},
            {"smallest", numbers(c.statistics.smallest)},
            {"largest", numbers(c.statistics.largest)}};
  if (!c.reach.empty()) json["reach"] = c.reach;
  std::string text = json_text(json);
  if (c.samples.rows() == 0) return text;
  text.pop_back();
  return text + ",\"samples\":" + sample_rows_text(c.samples) +
         ",\"sample_counts\":" + json_text(c.samples.counts) + "}";
}

/// A list with a line for each item: lists of numbers would take a line for each number.
template <class Items, class Text>
std::string lines_text(const std::string& name, const Items& items, const Text& text_of) {
  std::string text = ",\n  \"" + name + "\": [";
  for (std::size_t i = 0; i < items.size(); ++i)
    text += (i ? ",\n    " : "\n    ") + text_of(items[i]);
  return text + "\n  ]";
}

Model model_of(const Json& json) {
  if (!is_of_kind(json, "model")) reject_model("is not a model");
  if (json.value("version", 0) > kModelVersion)
    throw InputError("is a model of version " + std::to_string(json.at("version").get<int>()) +
                         ", this program reads up to " + std::to_string(kModelVersion),
                     "use the newer program that wrote it, or train again");
  if (const std::string misfit = misfit_of_model(json); !misfit.empty())
    reject_model("is a damaged model (" + misfit + ")");
  Model model;
  model.method = json.at("method").get<std::string>();
  DerivedChannels derived;
  for (const Json& definition : json.value("let", Json::array()))
    derived.push_back(derived_channel(definition.get<std::string>(), derived));
  for (const Json& feature : json.at("features"))
    model.features.push_back(feature_channel_named(feature.get<std::string>(), derived));
  const std::size_t dimensions = features_of(model.features).size();
  model.scaling = json.at("scaling").get<std::string>();
  if (json.contains("divisors")) model.divisors = divisors_of(json["divisors"], dimensions);
  model.box_spread = json.value("box_spread", 0.0);
  model.neighbors = json.value("neighbors", std::size_t{0});
  for (const Json& one : json.at("classes")) model.classes.push_back(class_of(one, dimensions));
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
  for (const std::string& definition : definitions_behind(model.features))
    json["let"].push_back(definition);
  json["scaling"] = model.scaling;
  if (!model.divisors.empty()) json["divisors"] = model.divisors;
  if (model.box_spread > 0) json["box_spread"] = model.box_spread;
  if (model.neighbors > 0) json["neighbors"] = model.neighbors;
  std::string text = json_text(json, 2);
  text.resize(text.size() - 2);
  return text + lines_text("classes", model.classes, class_text) +
         lines_text("trained_on", model.trained_on, training_picture_text) + "\n}\n";
}

Model parse_model(std::string_view text) {
  try {
    return model_of(Json::parse(text));
  } catch (const Json::exception&) {
    reject_model("is not a model, or a damaged one");
  } catch (const UsageError& error) {
    throw InputError(error.problem(), error.remedy());
  }
}

void write_model(const std::filesystem::path& path, const Model& model) {
  write_text_file(path, model_text(model));
}

Model read_model(const std::filesystem::path& path) {
  const std::string text = read_text_file(path);
  return errors_at(path.string(), [&] { return parse_model(text); });
}

}  // namespace chalcedony
