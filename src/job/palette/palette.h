// The main colors of pictures, pictures in the colors of a palette, and palettes compared.
#ifndef CHALCEDONY_JOB_PALETTE_PALETTE_H_
#define CHALCEDONY_JOB_PALETTE_PALETTE_H_

#include <filesystem>
#include <optional>
#include <vector>

#include "core/palette/nearest_color.h"
#include "job/run/context.h"
#include "job/run/result_kind.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Colors of less delta E than this are taken for one, unless it is asked for otherwise.
inline constexpr double kUsuallyApart = 8;

struct PaletteOptions {
  SharedOptions shared;
  std::size_t colors = 6;                      // at most so many
  double apart = kUsuallyApart;                // no two colors are closer, in delta E
  bool unique = false;                         // all colors as they are, up to kMostUniqueColors
  bool compare = false;                        // two inputs
  std::optional<std::filesystem::path> apply;  // repaint the inputs with this palette instead
  DifferenceFormula formula = DifferenceFormula::kCiede2000;
  bool dither = false;
};

inline constexpr std::size_t kMostUniqueColors = 256;

const std::vector<ResultKind>& palette_results();

/// Errors    InputError, OutputError; with several inputs one that fails is reported and the others
///           go on, but for a comparison
Json run_palette(const PaletteOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PALETTE_PALETTE_H_
