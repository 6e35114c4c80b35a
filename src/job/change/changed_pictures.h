// Pictures of what changed from each map to the next.
#ifndef CHALCEDONY_JOB_CHANGE_CHANGED_PICTURES_H_
#define CHALCEDONY_JOB_CHANGE_CHANGED_PICTURES_H_

#include <cstddef>
#include <memory>
#include <string>
#include <vector>

#include "figure/plot/plot.h"
#include "job/change/place_results.h"
#include "job/change/timed_maps.h"
#include "job/picture/painted_labels.h"

namespace chalcedony {

class ChangedPictures {
 public:
  /// `changed` is written where results hold it, and made small for figures where those are drawn.
  ///
  /// Errors    OutputError
  ChangedPictures(TimedMaps& maps, const PlaceResults& results, FigureFormat figures);

  /// A pass over the maps paints all of them.
  ///
  /// Errors    InputError, OutputError, Interrupted
  void paint();

  /// The figure of each step, once they are painted.
  void add_figures(Plot& plot);

 private:
  /// Labels of a picture of changes: what stayed, then what became of each class.
  static constexpr Label kUnchanged = 1;
  static Label became(std::size_t c) { return static_cast<Label>(c + 2); }

  class Painter;

  std::string name(std::size_t step) const;

  TimedMaps& maps_;
  const PlaceResults& results_;
  std::vector<std::unique_ptr<PaintedLabels>> before_;   // for figures
  std::vector<std::unique_ptr<PaintedLabels>> changed_;  // of each step
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_CHANGE_CHANGED_PICTURES_H_
