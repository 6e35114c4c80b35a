// Checks JSON against a JSON Schema.
#ifndef CHALCEDONY_IO_DOCUMENT_SCHEMA_CHECK_H_
#define CHALCEDONY_IO_DOCUMENT_SCHEMA_CHECK_H_

#include <nlohmann/json.hpp>
#include <string>

namespace chalcedony {

/// The first place where a model does not fit docs/model.schema.json (draft 7), as
/// `classes/0/prior: what is wrong`; empty when it fits.
std::string misfit_of_model(const nlohmann::json& model);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_SCHEMA_CHECK_H_
