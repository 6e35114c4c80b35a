// A picture of labels painted a run of pixels at a time.
#ifndef CHALCEDONY_JOB_ASSESS_PAINTED_LABELS_H_
#define CHALCEDONY_JOB_ASSESS_PAINTED_LABELS_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "core/palette/class_painter.h"
#include "core/pixel/band.h"
#include "core/pixel/label.h"
#include "core/pixel/thumbnail.h"
#include "io/picture/picture_writer.h"
#include "job/picture/tallies.h"

namespace chalcedony {

/// Written where it has a writer, made small for a figure where that is wanted, and its labels
/// counted; nothing is done where neither is wanted.
class PaintedLabels {
 public:
  /// `colors` are CSS colors of the labels from 0 on.
  PaintedLabels(std::uint32_t width, std::uint32_t height, const std::vector<std::string>& colors,
                bool previewed, std::unique_ptr<PictureWriter> writer);

  /// One for each thread: begin a band, add its runs of pixels in order, end it.
  class Painter {
   public:
    explicit Painter(PaintedLabels& picture) : picture_(&picture), painter_(picture.colors()) {}
    void begin(const Band& band);
    void add(Label label, std::size_t n) {
      if (labels_.empty()) return;
      std::fill_n(labels_.begin() + at_, n, label);
      counts_[label] += n;
      at_ += static_cast<std::ptrdiff_t>(n);
    }
    /// The rows for the writer; nothing without one.
    EncodedRows end(const Band& band);

   private:
    void preview(const Band& band);

    PaintedLabels* picture_;
    ClassPainter painter_;
    std::vector<Label> labels_;          // of this band
    std::vector<std::uint64_t> counts_;  // by label, likewise
    std::ptrdiff_t at_ = 0;
  };

  Painter painter() { return Painter(*this); }
  /// Takes the rows of the bands in order.
  void take(const EncodedRows& rows);
  void finish();

  /// Pixels by label.
  std::vector<std::uint64_t> counts();
  Thumbnail thumbnail();

 private:
  ClassPainter colors() const;
  bool wanted() const { return previewed_ || writer_; }

  std::uint32_t width_;
  std::vector<Color> colors_;
  bool previewed_;
  SampleType sample_;
  std::unique_ptr<PictureWriter> writer_;
  Tallies<std::vector<std::uint64_t>> counts_;
  Tallies<ThumbnailSums> preview_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_PAINTED_LABELS_H_
