// Patches of a picture beside the colors they are known to have.
#ifndef CHALCEDONY_JOB_PREPARE_JUDGED_PATCHES_H_
#define CHALCEDONY_JOB_PREPARE_JUDGED_PATCHES_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <vector>

#include "core/balance/color_correction.h"
#include "core/color/css_color.h"
#include "figure/plot/plot.h"
#include "job/learn/patch_places.h"
#include "job/picture/inputs.h"
#include "job/run/summary.h"

namespace chalcedony {

/// A patch with its light, and how far that is from what is known.
struct JudgedPatch {
  std::string name;
  std::uint64_t pixels = 0;
  double full_percent = 0;  // of them, with a channel at the end of its range
  Color known;
  KnownPatch light;
  bool used = false;  // to correct by; not when its color is cut off
  // CIEDE2000 to what is known: as found, corrected, and corrected by all others (of those that are
  // used; NaN where the others leave the correction open).
  double before = 0, after = 0, left_out = 0;
};

/// Patches with more of their pixels at full scale are not used, in percent.
inline constexpr double kMostFull = 1;

/// Where patches are, and what colors they are known to have.
struct PatchSource {
  PatchPlaces places;
  std::filesystem::path known;  // the table of their colors
};

/// The patches of a picture, in the order of their regions; rewinds the picture. Their colors are
/// not yet corrected. Warns of patches that are not used.
///
/// Errors    InputError: what the readers throw, a patch of no known color or without pixels that
///           count
std::vector<JudgedPatch> judge_patches(CountedPicture& picture, const PatchSource& source,
                                       const SharedOptions& options, const Context& context);

/// The correction by those that are used; fills in how far the patches are then.
///
/// Errors    InputError, as fitted_correction()
ColorCorrection correction_by(std::vector<JudgedPatch>& patches, CorrectionKind kind);

/// How far patches corrected by their matrix would be off on average, left out, if the tone curve
/// of the camera were undone too; not given where there are too few, or where they would not be
/// much nearer.
std::optional<double> mean_with_tone_undone(const std::vector<JudgedPatch>& patches);

/// Patches that are farther off than this on average although they are corrected are likely to have
/// each other's names, in CIEDE2000.
inline constexpr double kDoubtfulMean = 10;

/// What is to be said of corrected patches that stay so far off; empty where they do not. Where
/// they would fit half a turn around, as those of a layout on its head, that is said too.
std::string doubt_of(const std::vector<JudgedPatch>& patches);

/// The patches, and mean and maximum of the differences of those that are used, added to a summary.
void report_patches(const std::vector<JudgedPatch>& patches, Json& summary);

/// The patches as a figure.
void draw_patches(Plot& plot, const std::filesystem::path& path, const std::string& name,
                  const std::vector<JudgedPatch>& patches, const ColorCorrection& correction);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_JUDGED_PATCHES_H_
