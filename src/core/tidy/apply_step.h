// A step of tidying, done on labels.
#ifndef CHALCEDONY_CORE_TIDY_APPLY_STEP_H_
#define CHALCEDONY_CORE_TIDY_APPLY_STEP_H_

#include <span>

#include "core/region/label_grid.h"
#include "core/tidy/tidy_steps.h"

namespace chalcedony {

/// Does one step. kInvert turns a mask over; it is for masks only.
///
/// Of classes that are named, it is done to these only: the others keep their pixels and get no
/// more. Holes are those of all classes then too; they are filled where one of these has the
/// longest border.
void apply_step(LabelGrid& grid, const TidyStep& step, std::span<const Label> classes = {});

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_TIDY_APPLY_STEP_H_
