// The page on which a person says what drawn pixels are.
#ifndef CHALCEDONY_JOB_TRUTH_TRUTH_PAGE_H_
#define CHALCEDONY_JOB_TRUTH_TRUTH_PAGE_H_

#include <cstdint>
#include <string>
#include <vector>

#include "io/document/truth_table.h"
#include "io/metadata/class_legend.h"

namespace chalcedony {

/// What is seen around a pixel.
struct SeenPixel {
  std::string seen;        // an image as a data URL
  std::uint32_t left = 0;  // where the pixel is in it, and how large it is, in pixels of the
  std::uint32_t top = 0;   // picture
  std::uint32_t wide = 0, high = 0;
};

struct TruthPageContent {
  std::string map, picture;  // what they are called
  std::string how;           // the pixels were drawn
  std::string table;         // the file that the page saves
  std::vector<LegendEntry> classes;
  TruthTable drawn;
  std::vector<SeenPixel> seen;  // of each pixel
};

/// One pixel after the other from near and with what lies around it, without what the map says of
/// it, a button for each class, and the table to be saved. What was said is remembered where the
/// browser can.
std::string truth_page(const TruthPageContent& content);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_TRUTH_TRUTH_PAGE_H_
