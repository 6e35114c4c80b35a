// Learns how light falls over a picture, from a blank or from the picture itself.
#ifndef CHALCEDONY_JOB_PREPARE_LIGHT_CORRECTION_H_
#define CHALCEDONY_JOB_PREPARE_LIGHT_CORRECTION_H_

#include <filesystem>
#include <optional>

#include "core/balance/light_field.h"
#include "job/picture/inputs.h"

namespace chalcedony {

/// Where the light of a picture is learned.
struct FlatField {
  bool fit = false;                           // from the picture itself, else from a blank
  std::filesystem::path blank;                // an evenly bright surface in the same light
  std::optional<std::filesystem::path> dark;  // the same without light
};

/// Reads the blank, or the picture, which is rewound.
///
/// Errors    InputError: a blank of another size or without a counted pixel; pixels that do not
///           tell a surface
LightCorrection learn_light(const FlatField& flat, CountedPicture& picture,
                            const SharedOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PREPARE_LIGHT_CORRECTION_H_
