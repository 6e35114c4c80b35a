// Pictures of labels that are inputs: class maps, masks, pictures of flat colors, and regions that
// were drawn.
#ifndef CHALCEDONY_JOB_PICTURE_LABEL_INPUT_H_
#define CHALCEDONY_JOB_PICTURE_LABEL_INPUT_H_

#include <filesystem>

#include "core/learn/sample_shape.h"
#include "io/picture/label_file.h"
#include "io/picture/label_picture.h"
#include "job/run/context.h"

namespace chalcedony {

/// The regions whose classes are no guesses; that others were left out is warned of.
SampleSet without_guesses(const SampleSet& regions, const std::filesystem::path& file,
                          const Context& context);

/// Opens a picture of labels, or the regions of a sample file as one, of the size it says: their
/// classes are its classes. Guesses, and pixels in regions of two classes, have none; it is warned
/// of both.
///
/// Errors    InputError: what open_labels() and read_drawn() throw; regions that do not say the
/// size
///           of their picture, or reach outside of it, or are guesses alone
LabelFile open_label_input(const std::filesystem::path& path, const SharedOptions& options,
                           const Context& context);

/// The same, read whole.
///
/// Errors    also as LabelRows::next()
LabelPicture read_label_input(const std::filesystem::path& path, const SharedOptions& options,
                              const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_LABEL_INPUT_H_
