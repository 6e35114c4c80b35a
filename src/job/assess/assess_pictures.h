// The pictures of an assessment: where the map is wrong, which of several maps is right, and the
// figures of both.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
#define CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/assess/labels.h"
#include "core/assess/matched_labels.h"
#include "core/assess/right_maps.h"
#include "core/pixel/label.h"
#include "figure/map_figure.h"
#include "figure/plot/plot.h"
#include "io/metadata/class_legend.h"
#include "io/picture/picture_writer.h"
#include "job/assess/assessed_labels.h"
#include "job/assess/assessment.h"
#include "job/picture/painted_labels.h"
#include "job/run/results.h"

namespace chalcedony {

/// The names that the pictures of a map bear.
struct PaintedMap {
  std::filesystem::path map;
  std::string picture;  // that the map is of; figures of a map that is not alone bear its name too
  bool alone = true;
};

/// The rows of a band for each of the pictures.
struct PaintedRows {
  EncodedRows errors, versus;
};

/// Gathers, while the labels pass by, these pictures and small copies for the figures.
///
/// Labels of the picture of errors: 0 not assessed, 1 right, 2 unclassified, 3 and up wrong, by the
/// class of the reference; of that of several maps: 0 not assessed, then RightMaps.
class AssessPictures {
 public:
  /// Of a map that was judged as `assessment` says, which is kept.
  AssessPictures(const AssessedLabels& labels, const Assessment& assessment, Results& results,
                 FigureFormat figures, PaintedMap names);

  /// One for each thread: begin a band, add its runs of pixels in order, end it.
  class Painter {
   public:
    explicit Painter(AssessPictures& pictures)
        : pictures_(&pictures),
          map_(pictures.map_->painter()),
          errors_(pictures.errors_->painter()) {
      if (pictures.versus_) versus_.emplace(pictures.versus_->painter());
    }
    void begin(const Band& band);
    void add(const Labels& labels, bool assessed, std::size_t n) {
      map_.add(pictures_->matched_.row(labels[kOfMap]), n);
      errors_.add(assessed ? pictures_->error_of(labels) : Label{0}, n);
      if (versus_) versus_->add(assessed ? pictures_->right_of(labels) : Label{0}, n);
    }
    PaintedRows end(const Band& band);

   private:
    AssessPictures* pictures_;
    PaintedLabels::Painter map_, errors_;
    std::optional<PaintedLabels::Painter> versus_;
  };

  Painter painter() { return Painter(*this); }
  /// Takes the bands in order.
  void take(const PaintedRows& rows);
  void finish();

  /// The errors beside the map, which maps are right, and the drawn pixels on the map; the last two
  /// where there are any.
  void add_figures(Plot& plot, const std::string& name, const Places& right, const Places& wrong);

 private:
  Label error_of(const Labels& labels) const {
    const Label row = matched_.row(labels[kOfMap]), column = matched_.column(labels[kOfReference]);
    if (row == column) return 1;
    return row == matched_.unclassified() ? Label{2} : static_cast<Label>(column + 2);
  }
  Label right_of(const Labels& labels) const {
    const Label reference = labels[kOfReference];
    std::size_t others_right = 0;
    for (std::size_t v = 0; v < others_.size(); ++v)
      others_right += others_[v].is_right(labels[kOfVersus + v], reference);
    const bool first = matched_.is_right(labels[kOfMap], reference);
    return static_cast<Label>(1 +
                              static_cast<int>(right_maps(first, others_right, others_.size())));
  }
  void choose_colors(const AssessedLabels& labels);
  std::vector<LegendEntry> map_legend() const;
  std::vector<LegendEntry> errors_legend() const;
  std::filesystem::path figure_path(const Plot& plot, const std::string& figure) const;

  const std::vector<std::string>& classes_;
  Results& results_;
  PaintedMap names_;
  MatchedLabels matched_;
  std::vector<MatchedLabels> others_;
  std::vector<std::string> colors_;  // of the classes
  std::string right_color_;
  std::unique_ptr<PaintedLabels> map_, errors_;
  std::unique_ptr<PaintedLabels> versus_;  // where there are other maps, and it is wanted
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
