#include "io/document/correction_file.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "io/text/known_keys.h"

namespace chalcedony {
namespace {

constexpr const char* kCorrectedSpace = "xyz-d50";

[[noreturn]] void reject_correction(const std::string& problem) {
  throw InputError(problem, "give a file written by 'chalcedony correct --save'");
}

}  // namespace

std::string correction_text(const ColorCorrection& correction) {
  const bool straight = correction.tone.is_straight();
  nlohmann::ordered_json json{{"chalcedony", "correction"},
                              {"version", straight ? 1 : kCorrectionVersion}};
  if (!straight) json["tone"] = correction.tone.bend;
  json["of"] = kCorrectedSpace;
  json["matrix"] = correction.matrix.m;
  return json_text(json, 1) + "\n";
}

ColorCorrection parse_correction(std::string_view text) {
  try {
    const auto json = nlohmann::ordered_json::parse(text);
    if (!is_of_kind(json, "correction")) reject_correction("is not a color correction");
    if (is_of_later_version(json, kCorrectionVersion))
      throw InputError("holds a correction of a later version than this program reads, " +
                           std::to_string(kCorrectionVersion),
                       "use the newer program that wrote it");
    check_keys(json, {"chalcedony", "version", "tone", "of", "matrix"});
    if (json.at("of") != kCorrectedSpace)
      reject_correction("is not a correction of " + std::string(kCorrectedSpace));
    ColorCorrection correction;
    if (json.contains("tone")) json["tone"].get_to(correction.tone.bend);
    if (!correction.tone.rises()) reject_correction("holds a tone curve that does not rise");
    json.at("matrix").get_to(correction.matrix.m);
    const double volume = determinant(correction.matrix);
    if (!(std::abs(volume) > 0) || !std::isfinite(volume))
      reject_correction("holds a matrix that takes different colors for one");
    return correction;
  } catch (const nlohmann::json::exception&) {
    reject_correction("cannot be read as a color correction");
  }
}

ColorCorrection read_correction(const std::filesystem::path& path) {
  return errors_at(path.string(), [&] { return parse_correction(read_text_file(path)); });
}

}  // namespace chalcedony
