#include "io/document/correction_file.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"

namespace chalcedony {
namespace {

[[noreturn]] void reject_correction(const std::string& problem) {
  throw InputError(problem, "give a file written by 'chalcedony correct --save'");
}

}  // namespace

std::string correction_text(const Affine& correction) {
  return json_text({{"chalcedony", "correction"},
                    {"version", kCorrectionVersion},
                    {"of", "xyz-d50"},
                    {"matrix", correction.m}},
                   1) +
         "\n";
}

Affine parse_correction(std::string_view text) {
  try {
    const auto json = nlohmann::ordered_json::parse(text);
    if (!is_of_kind(json, "correction")) reject_correction("is not a color correction");
    if (is_of_later_version(json, kCorrectionVersion))
      throw InputError("holds a correction of a later version than this program reads, " +
                           std::to_string(kCorrectionVersion),
                       "use the newer program that wrote it");
    Affine correction;
    json.at("matrix").get_to(correction.m);
    if (!(std::abs(determinant(correction)) > 0) || !std::isfinite(determinant(correction)))
      reject_correction("holds a matrix that takes different colors for one");
    return correction;
  } catch (const nlohmann::json::exception&) {
    reject_correction("cannot be read as a color correction");
  }
}

Affine read_correction(const std::filesystem::path& path) {
  return errors_at(path.string(), [&] { return parse_correction(read_text_file(path)); });
}

}  // namespace chalcedony
