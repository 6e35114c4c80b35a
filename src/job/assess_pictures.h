// The pictures of an assessment: where the map is wrong, and its figures.
#ifndef CHALCEDONY_JOB_ASSESS_PICTURES_H_
#define CHALCEDONY_JOB_ASSESS_PICTURES_H_

#include <algorithm>
#include <memory>
#include <string>
#include <vector>

#include "core/palette/class_painter.h"
#include "figure/plot.h"
#include "io/picture_writer.h"
#include "job/assessed_labels.h"
#include "job/assessment.h"
#include "job/preview.h"
#include "job/results.h"

namespace chalcedony {

/// Gathers, while the labels pass by, the picture of errors and small copies for the figures.
///
/// Labels of the picture of errors: 0 not assessed, 1 right, 2 unclassified, 3 and up wrong, by the
/// class of the reference.
class AssessPictures {
 public:
  AssessPictures(const AssessedLabels& labels, const Agreement& agreement, Results& results,
                 FigureFormat figures);

  /// Whether anything is to be gathered at all.
  bool wanted() const { return errors_ || previews_; }

  /// One for each thread: begin a band, add its runs of pixels in order, end it.
  class Painter {
   public:
    explicit Painter(AssessPictures& pictures);
    void begin(const Band& band);
    void add(const Labels& labels, bool assessed, std::size_t n) {
      const std::uint8_t row = pictures_->row_of_map_[labels[0]];
      const std::uint8_t error = assessed ? pictures_->error_of(row, labels[1]) : std::uint8_t{0};
      std::fill_n(rows_.begin() + at_, n, row);
      std::fill_n(errors_.begin() + at_, n, error);
      at_ += static_cast<std::ptrdiff_t>(n);
    }
    EncodedRows end(const Band& band);

   private:
    void preview(const Band& band);

    AssessPictures* pictures_;
    ClassPainter map_colors_, error_colors_;
    std::vector<std::uint8_t> rows_, errors_;  // of the map, 1 is the first; of the errors
    std::ptrdiff_t at_ = 0;
  };

  Painter painter() { return Painter(*this); }
  /// Takes the bands in order.
  void take(const EncodedRows& rows);
  void finish();

  void add_figures(Plot& plot, const std::string& name, const Assessment& assessment);

 private:
  std::uint8_t error_of(std::uint8_t row, std::uint16_t reference) const {
    const std::uint8_t column = column_of_reference_[reference];
    if (row == column) return 1;
    return row == unclassified_ ? std::uint8_t{2} : static_cast<std::uint8_t>(column + 2);
  }
  void choose_colors(const AssessedLabels& labels);
  void add_errors(Plot& plot, const std::string& name, const Thumbnail& map);
  void add_sampled(Plot& plot, const std::string& name, const Assessment& assessment,
                   const Thumbnail& map);

  const Agreement& agreement_;
  Results& results_;
  std::uint32_t width_;
  bool previews_;
  std::uint8_t unclassified_;
  std::vector<std::string> colors_;  // of the classes, then of unclassified
  std::string right_color_;
  std::vector<std::uint8_t> row_of_map_, column_of_reference_;  // by label; 1 is the first
  std::unique_ptr<PictureWriter> errors_;
  Tallies<ThumbnailSums> map_preview_, error_preview_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_PICTURES_H_
