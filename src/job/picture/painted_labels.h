// A picture of labels painted a run of pixels at a time.
#ifndef CHALCEDONY_JOB_PICTURE_PAINTED_LABELS_H_
#define CHALCEDONY_JOB_PICTURE_PAINTED_LABELS_H_

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <memory>
#include <string>
#include <vector>

#include "core/color/css_color.h"
#include "core/palette/class_painter.h"
#include "core/pixel/band.h"
#include "core/pixel/label.h"
#include "core/pixel/thumbnail.h"
#include "figure/plot/legend.h"
#include "io/metadata/class_legend.h"
#include "io/picture/picture_writer.h"
#include "job/picture/tallies.h"

namespace chalcedony {

/// Written where that is asked for, made small for a figure where that is wanted, and its labels
/// counted; nothing is done where neither is wanted.
class PaintedLabels {
 public:
  /// `legend` by ascending index; `none`: the CSS color of label 0.
  PaintedLabels(std::uint32_t width, std::uint32_t height, std::vector<LegendEntry> legend,
                const std::string& none, bool previewed);

  /// Before anything is painted.
  ///
  /// Errors    OutputError
  void write_to(const std::filesystem::path& path);

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

  /// The labels that occur, with their shares of the pixels that have one.
  std::vector<LegendLine> legend_lines();
  Thumbnail thumbnail();

 private:
  ClassPainter colors() const { return ClassPainter(colors_, none_); }
  bool wanted() const { return previewed_ || writer_; }

  std::uint32_t width_, height_;
  std::vector<LegendEntry> legend_;
  std::vector<Color> colors_;  // of the labels from 1 on
  Color none_;
  bool previewed_;
  SampleType sample_;
  std::unique_ptr<PictureWriter> writer_;
  Tallies<std::vector<std::uint64_t>> counts_;
  Tallies<ThumbnailSums> preview_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_PAINTED_LABELS_H_
