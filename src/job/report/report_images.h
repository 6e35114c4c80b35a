// Pictures and figures as they stand inside the page of a report.
#ifndef CHALCEDONY_JOB_REPORT_REPORT_IMAGES_H_
#define CHALCEDONY_JOB_REPORT_REPORT_IMAGES_H_

#include <filesystem>
#include <optional>
#include <string>

#include "job/run/context.h"

namespace chalcedony {

struct InlinedImage {
  std::string source;      // a data URL
  bool is_figure = false;  // drawn for a page, not a picture
};

/// A file as an image of screen size: figures as they are, small pictures too, larger ones reduced.
/// None for what is no image a page can show, or cannot be read.
std::optional<InlinedImage> inlined_image(const std::filesystem::path& file,
                                          const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPORT_REPORT_IMAGES_H_
