// Tone curves on disk: JSON, specified in docs/formats.md.
#ifndef CHALCEDONY_IO_DOCUMENT_CURVE_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_CURVE_FILE_H_

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

#include "core/balance/tone_curve.h"

namespace chalcedony {

/// The version this program writes and the highest it reads.
inline constexpr int kCurvesVersion = 1;

/// The curves of a picture's channels.
struct CurveSet {
  bool on_lightness = false;
  std::vector<ToneCurve> curves;  // of r, g and b; of a gray picture or of lightness one
};

/// "gain", "power", ...: the names in files, options and summaries.
std::string_view curve_name(CurveKind kind);

/// Curves as JSON text; every number reads back exactly.
std::string curves_text(const CurveSet& set);

/// Errors    InputError: not curves, from a later version, curves that do not rise
CurveSet parse_curves(std::string_view text);

/// Errors    InputError with the file's name
CurveSet read_curves(const std::filesystem::path& path);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_CURVE_FILE_H_
