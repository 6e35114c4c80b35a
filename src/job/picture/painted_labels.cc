#include "job/picture/painted_labels.h"

#include <numeric>
#include <utility>

#include "io/picture/create_picture.h"
#include "job/picture/preview.h"
#include "job/run/summary.h"

namespace chalcedony {

PaintedLabels::PaintedLabels(std::uint32_t width, std::uint32_t height,
                             std::vector<LegendEntry> legend, const std::string& none,
                             bool previewed)
    : width_(width),
      height_(height),
      legend_(std::move(legend)),
      colors_(legend_.back().index, css_color(none)),
      none_(css_color(none)),
      previewed_(previewed),
      sample_(sample_for_labels(colors_.size())),
      counts_(std::vector<std::uint64_t>(colors_.size() + 1)),
      preview_(empty_preview({width, height, 1, SampleType::kU8}, previewed)) {
  for (const LegendEntry& entry : legend_) colors_[entry.index - 1] = css_color(entry.color);
}

void PaintedLabels::write_to(const std::filesystem::path& path) {
  writer_ = create_picture(path, class_map_spec({width_, height_, 1}, legend_));
}

void PaintedLabels::Painter::begin(const Band& band) {
  if (!picture_->wanted()) return;
  at_ = 0;
  labels_.resize(std::size_t{band.rows()} * picture_->width_);
  counts_.assign(picture_->colors_.size() + 1, 0);
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

std::vector<LegendLine> PaintedLabels::legend_lines() {
  const std::vector<std::uint64_t>& counts =
      counts_.merged([](std::vector<std::uint64_t>& total, const auto& one) {
        for (std::size_t label = 0; label < total.size(); ++label) total[label] += one[label];
      });
  const std::uint64_t labelled =
      std::accumulate(counts.begin() + 1, counts.end(), std::uint64_t{0});
  std::vector<LegendLine> lines;
  for (const LegendEntry& entry : legend_)
    if (const std::uint64_t pixels = counts[entry.index]; pixels > 0)
      lines.push_back({entry.name, entry.color, percent(pixels, labelled)});
  return lines;
}

Thumbnail PaintedLabels::thumbnail() { return merged_thumbnail(preview_); }

}  // namespace chalcedony
