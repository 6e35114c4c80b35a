// The page on which a person outlines regions of a picture.
#ifndef CHALCEDONY_JOB_OUTLINE_OUTLINE_PAGE_H_
#define CHALCEDONY_JOB_OUTLINE_OUTLINE_PAGE_H_

#include <cstdint>
#include <string>

#include "core/learn/sample_shape.h"

namespace chalcedony {

struct OutlinePageContent {
  std::string picture;  // what it is called
  std::uint32_t width = 0, height = 0;
  std::string seen;   // the picture as a data URL, which may be reduced
  std::string map;    // a class map of the same size, so too; empty for none
  SampleSet begun;    // the regions to go on from, and the classes to begin with
  std::string saved;  // the file that the page saves
};

/// The picture, on which rectangles, polygons, discs and pixels are drawn, given classes, chosen,
/// moved and removed; and the sample file to be saved. Regions whose class is a guess are shown one
/// by one to be confirmed. What was drawn is remembered where the browser can.
std::string outline_page(const OutlinePageContent& content);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_OUTLINE_OUTLINE_PAGE_H_
