#include "job/assess/assess_pictures.h"

#include <algorithm>
#include <limits>
#include <numeric>
#include <utility>

#include "core/color/ciede2000.h"
#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "io/picture/create_picture.h"
#include "job/map/class_shares.h"

namespace chalcedony {
namespace {

constexpr unsigned kFirstWrong = 3;  // among the labels of the picture of errors
constexpr const char* kNotAssessedColor = "#ffffff";

/// The gray that is hardest to take for one of these colors.
std::string gray_apart_from(const std::vector<std::string>& colors) {
  std::string best;
  double best_distance = -1;
  for (const char* gray : {"#f2f3f2", "#c9cdce", "#9aa0a3", "#71777b", "#4b5155"}) {
    double nearest = std::numeric_limits<double>::infinity();
    for (const std::string& color : colors)
      nearest = std::min(
          nearest, ciede2000(css_color(gray).in(spaces::kLab), css_color(color).in(spaces::kLab)));
    if (nearest > best_distance) best = gray, best_distance = nearest;
  }
  return best;
}

PictureSpec errors_spec(std::uint32_t width, std::uint32_t height, const ClassMatching& matching,
                        const std::vector<std::string>& colors, const std::string& right) {
  std::vector<LegendEntry> legend{{1, "right", right}, {2, "unclassified", kUnclassifiedColor}};
  unsigned index = kFirstWrong;
  for (std::size_t c = 0; c < matching.names.size(); ++c)
    legend.push_back({index++, "should be " + matching.names[c], colors[c]});
  return class_map_spec({width, height, 1}, std::move(legend));
}

}  // namespace

AssessPictures::AssessPictures(const AssessedLabels& labels, const ClassMatching& matching,
                               Results& results, FigureFormat figures, PaintedMap names)
    : matching_(matching),
      results_(results),
      names_(std::move(names)),
      width_(labels.width()),
      previews_(figures != FigureFormat::kNone),
      unclassified_(static_cast<Label>(matching.names.size() + 1)),
      row_of_map_(kLabels),
      column_of_reference_(kLabels),
      error_sample_(sample_for_labels(error_labels() - 1)),
      map_preview_(empty_preview({width_, labels.height(), 1, SampleType::kU8}, previews_)),
      error_preview_(empty_preview({width_, labels.height(), 1, SampleType::kU8}, previews_)),
      error_counts_(std::vector<std::uint64_t>(error_labels())) {
  choose_colors(labels);
  row_of_map_[0] = unclassified_;
  for (const auto& [code, place] : matching.of_map)
    row_of_map_[code] = static_cast<Label>(place + 1);
  for (const auto& [code, place] : matching.of_reference)
    column_of_reference_[code] = static_cast<Label>(place + 1);
  if (results.wants("errors"))
    errors_ = create_picture(results.path(names_.map, names_.picture + ".errors.png"),
                             errors_spec(width_, labels.height(), matching, colors_, right_color_));
}

std::size_t AssessPictures::error_labels() const { return kFirstWrong + matching_.names.size(); }

void AssessPictures::choose_colors(const AssessedLabels& labels) {
  for (std::size_t c = 0; c < matching_.names.size(); ++c)
    colors_.push_back(labels.color_of(matching_.names[c]).value_or(css_hex(class_color(c))));
  colors_.push_back(kUnclassifiedColor);
  right_color_ = gray_apart_from(colors_);
}

AssessPictures::Painter::Painter(AssessPictures& pictures)
    : pictures_(&pictures), map_colors_(pictures.colors_), error_colors_([&] {
        // Label 0 is painted black by itself, so every label is moved up by one.
        std::vector<std::string> colors{kNotAssessedColor, pictures.right_color_,
                                        kUnclassifiedColor};
        colors.insert(colors.end(), pictures.colors_.begin(), pictures.colors_.end());
        return colors;
      }()) {}

void AssessPictures::Painter::begin(const Band& band) {
  at_ = 0;
  const std::size_t pixels = std::size_t{band.rows()} * pictures_->width_;
  rows_.resize(pixels);
  errors_.resize(pixels);
  counts_.assign(pictures_->error_labels(), 0);
}

EncodedRows AssessPictures::Painter::end(const Band& band) {
  EncodedRows out;
  if (pictures_->errors_) {
    const SampleType sample = pictures_->error_sample_;
    std::vector<std::byte> stored(errors_.size() * bytes_per_sample(sample));
    store_labels(errors_.data(), errors_.size(), sample, stored.data());
    out = pictures_->errors_->encode(band.first_row(), band.rows(), std::move(stored));
  }
  std::vector<std::uint64_t>& counts = pictures_->error_counts_.local();
  for (std::size_t label = 0; label < counts_.size(); ++label) counts[label] += counts_[label];
  if (pictures_->previews_) preview(band);
  return out;
}

void AssessPictures::Painter::preview(const Band& band) {
  for (Label& error : errors_) ++error;
  Block block;
  block.picture_width = pictures_->width_;
  const std::uint64_t first = std::uint64_t{band.first_row()} * pictures_->width_;
  for (std::size_t at = 0; at < rows_.size(); at += kBlockPixels) {
    block.first_pixel = first + at;
    block.size = std::min(kBlockPixels, rows_.size() - at);
    pictures_->map_preview_.local().add(block, map_colors_.paint(rows_.data() + at, block.size));
    pictures_->error_preview_.local().add(block,
                                          error_colors_.paint(errors_.data() + at, block.size));
  }
}

void AssessPictures::take(const EncodedRows& rows) {
  if (errors_) errors_->append(rows);
}

void AssessPictures::finish() {
  if (errors_) errors_->finish();
}

std::filesystem::path AssessPictures::figure_path(const Plot& plot,
                                                  const std::string& figure) const {
  const std::string name = figure + ".figure." + extension_of(plot.format());
  return results_.path(names_.map, names_.alone ? name : names_.picture + "." + name);
}

void AssessPictures::add_figures(Plot& plot, const std::string& name, const Places& right,
                                 const Places& wrong) {
  const Thumbnail map = merged_thumbnail(map_preview_);
  add_errors(plot, name, map);
  if (!right.empty() || !wrong.empty())
    add_sampled_figure(plot, figure_path(plot, "sampled"), name, right, wrong, map);
}

void AssessPictures::add_errors(Plot& plot, const std::string& name, const Thumbnail& map) {
  const std::vector<std::uint64_t> counts =
      error_counts_.merged([](std::vector<std::uint64_t>& total, const auto& one) {
        for (std::size_t label = 0; label < total.size(); ++label) total[label] += one[label];
      });
  const std::uint64_t assessed =
      std::accumulate(counts.begin() + 1, counts.end(), std::uint64_t{0});
  std::vector<LegendLine> legend;
  const auto add = [&](std::size_t label, const std::string& meaning, const std::string& color) {
    if (counts[label] > 0) legend.push_back({meaning, color, percent(counts[label], assessed)});
  };
  add(1, "right", right_color_);
  add(2, "unclassified", kUnclassifiedColor);
  for (std::size_t c = 0; c < matching_.names.size(); ++c)
    add(kFirstWrong + c, "should be " + matching_.names[c], colors_[c]);
  add_error_map_figure(plot, figure_path(plot, "errors"), name, legend, map,
                       merged_thumbnail(error_preview_));
}

}  // namespace chalcedony
