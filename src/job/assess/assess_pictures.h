// The pictures of an assessment: where the map is wrong, and its figures.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
#define CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/class_matching.h"
#include "core/assess/labels.h"
#include "core/pixel/label.h"
#include "figure/map_figure.h"
#include "figure/plot/plot.h"
#include "io/picture/picture_writer.h"
#include "job/assess/assessed_labels.h"
#include "job/assess/painted_labels.h"
#include "job/run/results.h"

namespace chalcedony {

/// The names that the pictures of a map bear.
struct PaintedMap {
  std::filesystem::path map;
  std::string picture;  // that the map is of; figures of a map that is not alone bear its name too
  bool alone = true;
};

/// Gathers, while the labels pass by, the picture of errors and small copies for the figures.
///
/// Labels of the picture of errors: 0 not assessed, 1 right, 2 unclassified, 3 and up wrong, by the
/// class of the reference.
class AssessPictures {
 public:
  AssessPictures(const AssessedLabels& labels, const ClassMatching& matching, Results& results,
                 FigureFormat figures, PaintedMap names);

  /// One for each thread: begin a band, add its runs of pixels in order, end it.
  class Painter {
   public:
    explicit Painter(AssessPictures& pictures)
        : pictures_(&pictures),
          map_(pictures.map_->painter()),
          errors_(pictures.errors_->painter()) {}
    void begin(const Band& band);
    void add(const Labels& labels, bool assessed, std::size_t n) {
      const Label row = pictures_->row_of_map_[labels[kOfMap]];
      map_.add(row, n);
      errors_.add(assessed ? pictures_->error_of(row, labels[kOfReference]) : Label{0}, n);
    }
    EncodedRows end(const Band& band);

   private:
    AssessPictures* pictures_;
    PaintedLabels::Painter map_, errors_;
  };

  Painter painter() { return Painter(*this); }
  /// Takes the bands in order.
  void take(const EncodedRows& rows);
  void finish();

  /// The errors beside the map, and the drawn pixels on it where there are any.
  void add_figures(Plot& plot, const std::string& name, const Places& right, const Places& wrong);

 private:
  Label error_of(Label row, Label reference) const {
    const Label column = column_of_reference_[reference];
    if (row == column) return 1;
    return row == unclassified_ ? Label{2} : static_cast<Label>(column + 2);
  }
  void choose_colors(const AssessedLabels& labels);
  void begin_pictures(const AssessedLabels& labels, bool previewed);
  void add_errors(Plot& plot, const std::string& name, const Thumbnail& map);
  std::filesystem::path figure_path(const Plot& plot, const std::string& figure) const;

  const ClassMatching& matching_;
  Results& results_;
  PaintedMap names_;
  Label unclassified_;
  std::vector<std::string> colors_;  // of the classes, then of unclassified
  std::string right_color_;
  std::vector<Label> row_of_map_, column_of_reference_;  // by label; 1 is the first
  std::unique_ptr<PaintedLabels> map_, errors_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
