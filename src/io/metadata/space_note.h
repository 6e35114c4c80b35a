// The line that says, inside a written picture, which color space and scaling it holds.
#ifndef CHALCEDONY_IO_METADATA_SPACE_NOTE_H_
#define CHALCEDONY_IO_METADATA_SPACE_NOTE_H_

#include <optional>
#include <string>
#include <string_view>

#include "core/channel/channel.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// The keyword of the PNG text chunk, and the first word of a TIFF description.
inline constexpr std::string_view kSpaceKeyword = "chalcedony-space";

/// The keywords of PNG for a description and for when the picture was taken.
inline constexpr std::string_view kDescriptionKeyword = "Description",
                                  kTimeKeyword = "Creation Time";

/// For example `lab; l 0..100, a -125..125, b -125..125; stored as 0..65535`.
std::string space_note(const Space& space, SampleType sample);

/// The same of one plane: `plane hsv.h; 0..360; stored as 0..65535`.
///
/// Range     a plane of a space, or of a derived channel
std::string plane_note(const Channel& plane, SampleType sample);

/// The plane a note names, if it is one of a plane that is known.
std::optional<Channel> plane_of_note(std::string_view note);

/// The space a note names, or null when it names none that is known.
const Space* space_of_note(std::string_view note);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_METADATA_SPACE_NOTE_H_
