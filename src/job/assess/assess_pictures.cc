#include "job/assess/assess_pictures.h"

#include <algorithm>
#include <array>
#include <utility>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "job/map/class_shares.h"

namespace chalcedony {
namespace {

constexpr unsigned kFirstWrong = 3;  // among the labels of the picture of errors
constexpr const char* kNotAssessedColor = "#ffffff";
constexpr const char* kNoLabelColor = "#000000";

/// Which maps are right, in words for one other map and for several, by RightMaps.
struct RightKind {
  const char *of_two, *of_several, *color;
};
constexpr std::array<RightKind, kRightMaps> kRightKinds{
    {{"both right", "all right", "#dde1df"},
     {"", "the first and some right", "#93bcd0"},
     {"only the first right", "only the first right", "#2c6a97"},
     {"only the second right", "only others right", "#dd9130"},
     {"neither right", "none right", "#541f33"}}};

std::vector<LegendEntry> right_maps_legend(std::size_t others) {
  std::vector<LegendEntry> legend;
  for (unsigned kind = 0; kind < kRightMaps; ++kind) {
    const auto& [of_two, of_several, color] = kRightKinds[kind];
    const std::string words = others == 1 ? of_two : of_several;
    if (!words.empty()) legend.push_back({kind + 1, words, color});
  }
  return legend;
}

}  // namespace

AssessPictures::AssessPictures(const AssessedLabels& labels, const Assessment& assessment,
                               Results& results, FigureFormat figures, PaintedMap names)
    : classes_(assessment.map.matching.names),
      results_(results),
      names_(std::move(names)),
      matched_(assessment.map.matching) {
  for (const OtherMap& other : assessment.versus) others_.emplace_back(other.map.matching);
  choose_colors(labels);
  const bool previewed = figures != FigureFormat::kNone;
  const auto begin = [&](std::vector<LegendEntry> legend, const char* none) {
    return std::make_unique<PaintedLabels>(labels.width(), labels.height(), std::move(legend), none,
                                           previewed);
  };
  const auto write = [&](PaintedLabels& picture, const std::string& thing) {
    if (results_.wants(thing))
      picture.write_to(results_.path(names_.map, names_.picture + "." + thing + ".png"));
  };
  map_ = begin(map_legend(), kNoLabelColor);
  errors_ = begin(errors_legend(), kNotAssessedColor);
  write(*errors_, "errors");
  if (others_.empty() || !(previewed || results_.wants("versus"))) return;
  versus_ = begin(right_maps_legend(others_.size()), kNotAssessedColor);
  write(*versus_, "versus");
}

void AssessPictures::choose_colors(const AssessedLabels& labels) {
  for (std::size_t c = 0; c < classes_.size(); ++c)
    colors_.push_back(labels.color_of(classes_[c]).value_or(css_hex(class_color(c))));
  std::vector<std::string> colors = colors_;
  colors.insert(colors.end(), {kUnclassifiedColor, kNotAssessedColor});
  right_color_ = gray_apart_from(colors);
}

std::vector<LegendEntry> AssessPictures::map_legend() const {
  std::vector<LegendEntry> legend;
  for (unsigned c = 0; c < classes_.size(); ++c) legend.push_back({c + 1, classes_[c], colors_[c]});
  legend.push_back({matched_.unclassified(), "unclassified", kUnclassifiedColor});
  return legend;
}

std::vector<LegendEntry> AssessPictures::errors_legend() const {
  std::vector<LegendEntry> legend{{1, "right", right_color_},
                                  {2, "unclassified", kUnclassifiedColor}};
  for (unsigned c = 0; c < classes_.size(); ++c)
    legend.push_back({kFirstWrong + c, "should be " + classes_[c], colors_[c]});
  return legend;
}

void AssessPictures::Painter::begin(const Band& band) {
  map_.begin(band);
  errors_.begin(band);
  if (versus_) versus_->begin(band);
}

PaintedRows AssessPictures::Painter::end(const Band& band) {
  map_.end(band);
  return {errors_.end(band), versus_ ? versus_->end(band) : EncodedRows()};
}

void AssessPictures::take(const PaintedRows& rows) {
  errors_->take(rows.errors);
  if (versus_) versus_->take(rows.versus);
}

void AssessPictures::finish() {
  errors_->finish();
  if (versus_) versus_->finish();
}

std::filesystem::path AssessPictures::figure_path(const Plot& plot,
                                                  const std::string& figure) const {
  const std::string name = figure + ".figure." + extension_of(plot.format());
  return results_.path(names_.map, names_.alone ? name : names_.picture + "." + name);
}

void AssessPictures::add_figures(Plot& plot, const std::string& name, const Places& right,
                                 const Places& wrong) {
  const Thumbnail map = map_->thumbnail();
  add_error_map_figure(plot, figure_path(plot, "errors"), name, errors_->legend_lines(), map,
                       errors_->thumbnail());
  if (versus_)
    add_right_maps_figure(plot, figure_path(plot, "versus"), name, others_.size(),
                          versus_->legend_lines(), map, versus_->thumbnail());
  if (!right.empty() || !wrong.empty())
    add_sampled_figure(plot, figure_path(plot, "sampled"), name, right, wrong, map);
}

}  // namespace chalcedony
