// Pixels of a class map drawn at random.
#ifndef CHALCEDONY_JOB_TRUTH_DRAWN_PIXELS_H_
#define CHALCEDONY_JOB_TRUTH_DRAWN_PIXELS_H_

#include <cstdint>
#include <string>
#include <vector>

#include "io/document/truth_table.h"
#include "io/metadata/class_legend.h"
#include "io/picture/label_file.h"
#include "job/assess/draw_design.h"
#include "job/run/context.h"

namespace chalcedony {

/// The pixels of a class, or those without one, that can be drawn, and that are.
struct Stratum {
  LegendEntry entry;  // of those without one 0, `unclassified`
  std::uint64_t pixels = 0, drawn = 0;
};

struct DrawnPixels {
  std::vector<Stratum> strata;  // the classes of the map in its order, then those without one
  TruthTable table;             // nobody has said anything of them; at random in a random order
};

/// Draws from the pixels that count by --region and --within. Warnings go to the context.
///
/// Errors    InputError: a mask, which has one class only; no pixel counts, or none would be drawn;
///           a number for a class that is not there; what LabelRows throws; Interrupted
DrawnPixels draw_pixels(LabelFile& map, const DrawDesign& design, const SharedOptions& options,
                        const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TRUTH_DRAWN_PIXELS_H_
