#include "job/assess/painted_labels.h"

#include <utility>

#include "core/color/css_color.h"
#include "job/picture/preview.h"

namespace chalcedony {
PaintedLabels::PaintedLabels(std::uint32_t width, std::uint32_t height,
                             const std::vector<std::string>& colors, bool previewed,
                             std::unique_ptr<PictureWriter> writer)
    : width_(width),
      colors_(css_colors(colors)),
      previewed_(previewed),
      sample_(sample_for_labels(colors.size() - 1)),
      writer_(std::move(writer)),
      counts_(std::vector<std::uint64_t>(colors.size())),
      preview_(empty_preview({width, height, 1, SampleType::kU8}, previewed)) {}

ClassPainter PaintedLabels::colors() const {
  return ClassPainter({colors_.begin() + 1, colors_.end()}, colors_.front());
}

void PaintedLabels::Painter::begin(const Band& band) {
  if (!picture_->wanted()) return;
  at_ = 0;
  labels_.resize(std::size_t{band.rows()} * picture_->width_);
  counts_.assign(picture_->colors_.size(), 0);
}

EncodedRows PaintedLabels::Painter::end(const Band& band) {
  if (!picture_->wanted()) return {};
  std::vector<std::uint64_t>& counts = picture_->counts_.local();
  for (std::size_t label = 0; label < counts_.size(); ++label) counts[label] += counts_[label];
  if (picture_->previewed_) preview(band);
  if (!picture_->writer_) return {};
  std::vector<std::byte> stored(labels_.size() * bytes_per_sample(picture_->sample_));
  store_labels(labels_.data(), labels_.size(), picture_->sample_, stored.data());
  return picture_->writer_->encode(band.first_row(), band.rows(), std::move(stored));
}

void PaintedLabels::Painter::preview(const Band& band) {
  Block block;
  block.picture_width = picture_->width_;
  const std::uint64_t first = std::uint64_t{band.first_row()} * picture_->width_;
  for (std::size_t at = 0; at < labels_.size(); at += kBlockPixels) {
    block.first_pixel = first + at;
    block.size = std::min(kBlockPixels, labels_.size() - at);
    picture_->preview_.local().add(block, painter_.paint(labels_.data() + at, block.size));
  }
}

void PaintedLabels::take(const EncodedRows& rows) {
  if (writer_) writer_->append(rows);
}

void PaintedLabels::finish() {
  if (writer_) writer_->finish();
}

std::vector<std::uint64_t> PaintedLabels::counts() {
  return counts_.merged([](std::vector<std::uint64_t>& total, const auto& one) {
    for (std::size_t label = 0; label < total.size(); ++label) total[label] += one[label];
  });
}

Thumbnail PaintedLabels::thumbnail() { return merged_thumbnail(preview_); }

}  // namespace chalcedony
