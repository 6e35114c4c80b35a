// How the pixels of maps are drawn.
#ifndef CHALCEDONY_JOB_ASSESS_DRAW_DESIGN_H_
#define CHALCEDONY_JOB_ASSESS_DRAW_DESIGN_H_

#include <cstdint>
#include <string>
#include <utility>
#include <vector>

namespace chalcedony {

/// Which of the pixels are looked at.
enum class SampleDesign {
  kAll,
  kRandom,        // each as likely as the others
  kEqual,         // the same number from every class of the map
  kProportional,  // by the sizes of the classes
  kGiven,         // a number for each class
  kGrid,          // every so many pixels in both directions, from a random start
};

struct DrawDesign {
  SampleDesign design = SampleDesign::kAll;
  std::uint64_t count = 0;  // pixels to draw; 0 with kRandom to kProportional: by `fraction`
  double fraction = 0;      // of the pixels that can be drawn, 0-1
  std::vector<std::pair<std::string, std::uint64_t>> given = {};  // kGiven: class and number
  std::uint32_t every = 1;                                        // kGrid: pixels between points

  bool draws() const { return design != SampleDesign::kAll; }
  /// Whether pixels of some classes are more likely to be drawn than those of others.
  bool prefers_classes() const {
    return design == SampleDesign::kEqual || design == SampleDesign::kGiven;
  }
  /// In words: "stratified equal".
  std::string name() const;
};

/// Whether a pixel lies on the grid of kGrid.
bool lies_on_grid(const DrawDesign& design, std::uint64_t seed, std::uint32_t x, std::uint32_t y);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_DRAW_DESIGN_H_
