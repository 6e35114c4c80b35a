#include "io/document/schema_check.h"

#include <string>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>
#include <vector>

#include "model_schema.h"  // the text of docs/model.schema.json

namespace chalcedony {
namespace {

struct ModelSchema {
  valijson::Schema schema;

  ModelSchema() {
    const nlohmann::json text = nlohmann::json::parse(kModelSchema);
    valijson::SchemaParser().populateSchema(valijson::adapters::NlohmannJsonAdapter(text), schema);
  }
};

/// `classes/0/prior` of the steps `<root>`, `[classes]`, `[0]`, `[prior]`.
std::string place_of(const std::vector<std::string>& steps) {
  std::string place;
  for (const std::string& step : steps)
    if (step.front() == '[') place += (place.empty() ? "" : "/") + step.substr(1, step.size() - 2);
  return place;
}

}  // namespace

std::string misfit_of_model(const nlohmann::json& model) {
  static const ModelSchema model_schema;
  valijson::Validator validator(valijson::Validator::kStrongTypes);
  valijson::ValidationResults results;
  if (validator.validate(model_schema.schema, valijson::adapters::NlohmannJsonAdapter(model),
                         &results))
    return {};
  // What is deepest comes first.
  const valijson::ValidationResults::Error first = *results.begin();
  const std::string place = place_of(first.context);
  return place.empty() ? first.description : place + ": " + first.description;
}

}  // namespace chalcedony
