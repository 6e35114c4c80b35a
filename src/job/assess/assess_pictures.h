// The pictures of an assessment: where the map is wrong, and its figures.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
#define CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_

#include <algorithm>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/assess/class_matching.h"
#include "core/palette/class_painter.h"
#include "core/pixel/label.h"
#include "figure/map_figure.h"
#include "figure/plot/plot.h"
#include "io/picture/picture_writer.h"
#include "job/assess/assessed_labels.h"
#include "job/picture/preview.h"
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
    explicit Painter(AssessPictures& pictures);
    void begin(const Band& band);
    void add(const Labels& labels, bool assessed, std::size_t n) {
      const Label row = pictures_->row_of_map_[labels[kOfMap]];
      const Label error = assessed ? pictures_->error_of(row, labels[kOfReference]) : Label{0};
      std::fill_n(rows_.begin() + at_, n, row);
      std::fill_n(errors_.begin() + at_, n, error);
      counts_[error] += n;
      at_ += static_cast<std::ptrdiff_t>(n);
    }
    EncodedRows end(const Band& band);

   private:
    void preview(const Band& band);

    AssessPictures* pictures_;
    ClassPainter map_colors_, error_colors_;
    std::vector<Label> rows_, errors_;   // of the map, 1 is the first; of the errors
    std::vector<std::uint64_t> counts_;  // of the errors in this band
    std::ptrdiff_t at_ = 0;
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
  std::size_t error_labels() const;
  void choose_colors(const AssessedLabels& labels);
  void add_errors(Plot& plot, const std::string& name, const Thumbnail& map);
  std::filesystem::path figure_path(const Plot& plot, const std::string& figure) const;

  const ClassMatching& matching_;
  Results& results_;
  PaintedMap names_;
  std::uint32_t width_;
  bool previews_;
  Label unclassified_;
  std::vector<std::string> colors_;  // of the classes, then of unclassified
  std::string right_color_;
  std::vector<Label> row_of_map_, column_of_reference_;  // by label; 1 is the first
  SampleType error_sample_;
  std::unique_ptr<PictureWriter> errors_;
  Tallies<ThumbnailSums> map_preview_, error_preview_;
  Tallies<std::vector<std::uint64_t>> error_counts_;  // by the labels of the picture of errors
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESS_PICTURES_H_
