// What a selection takes of a picture, as a mask and a cut-out.
#ifndef CHALCEDONY_JOB_SELECT_WRITE_MASK_H_
#define CHALCEDONY_JOB_SELECT_WRITE_MASK_H_

#include "core/select/expression.h"
#include "figure/plot/plot.h"
#include "job/picture/inputs.h"
#include "job/run/results.h"
#include "job/run/summary.h"
#include "job/select/mask.h"

namespace chalcedony {

/// Selects pixels by `where`, combines them with masks and cleans them as the options say, in one
/// pass, or in two where there are steps of cleaning. Writes what is asked for of the results that
/// are named after the picture. Returns the summary of this input.
///
/// Errors    InputError, OutputError; no file is left then
Json write_mask(CountedPicture picture, const Expression& where, const MaskOptions& options,
                const Context& context, const Results& results, FigureFormat figures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_WRITE_MASK_H_
