// Models on disk: JSON, specified in docs/formats.md.
#ifndef CHALCEDONY_IO_DOCUMENT_MODEL_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_MODEL_FILE_H_

#include <filesystem>
#include <string>
#include <string_view>

#include "core/learn/model.h"

namespace chalcedony {

/// The version this program writes and the highest it reads.
inline constexpr int kModelVersion = 1;

/// A model as JSON text; every number reads back exactly.
std::string model_text(const Model& model);

/// Errors    InputError: not a model, from a later version, a channel that is not known, statistics
///           that do not fit the features. Its method is looked for by make_classifier().
Model parse_model(std::string_view text);

void write_model(const std::filesystem::path& path, const Model& model);
Model read_model(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_MODEL_FILE_H_
