#include "job/assess/assess_pictures.h"

#include <algorithm>
#include <array>
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

std::string right_words(std::size_t kind, std::size_t others) {
  return others == 1 ? kRightKinds[kind].of_two : kRightKinds[kind].of_several;
}

std::vector<LegendEntry> right_maps_legend(std::size_t others) {
  std::vector<LegendEntry> legend;
  for (unsigned kind = 0; kind < kRightMaps; ++kind)
    if (const std::string words = right_words(kind, others); !words.empty())
      legend.push_back({kind + 1, words, kRightKinds[kind].color});
  return legend;
}

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

PictureSpec errors_spec(std::uint32_t width, std::uint32_t height,
                        const std::vector<std::string>& classes,
                        const std::vector<std::string>& colors, const std::string& right) {
  std::vector<LegendEntry> legend{{1, "right", right}, {2, "unclassified", kUnclassifiedColor}};
  unsigned index = kFirstWrong;
  for (std::size_t c = 0; c < classes.size(); ++c)
    legend.push_back({index++, "should be " + classes[c], colors[c]});
  return class_map_spec({width, height, 1}, std::move(legend));
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
  begin_pictures(labels, previewed);
  if (!others_.empty()) begin_versus(labels.width(), labels.height(), previewed);
}

void AssessPictures::choose_colors(const AssessedLabels& labels) {
  for (std::size_t c = 0; c < classes_.size(); ++c)
    colors_.push_back(labels.color_of(classes_[c]).value_or(css_hex(class_color(c))));
  colors_.push_back(kUnclassifiedColor);
  right_color_ = gray_apart_from(colors_);
}

void AssessPictures::begin_pictures(const AssessedLabels& labels, bool previewed) {
  const std::uint32_t width = labels.width(), height = labels.height();
  std::vector<std::string> of_map{kNoLabelColor};
  of_map.insert(of_map.end(), colors_.begin(), colors_.end());
  map_ = std::make_unique<PaintedLabels>(width, height, of_map, previewed, nullptr);

  std::vector<std::string> of_errors{kNotAssessedColor, right_color_, kUnclassifiedColor};
  of_errors.insert(of_errors.end(), colors_.begin(), colors_.end() - 1);
  std::unique_ptr<PictureWriter> writer;
  if (results_.wants("errors"))
    writer = create_picture(results_.path(names_.map, names_.picture + ".errors.png"),
                            errors_spec(width, height, classes_, colors_, right_color_));
  errors_ = std::make_unique<PaintedLabels>(width, height, of_errors, previewed, std::move(writer));
}

void AssessPictures::begin_versus(std::uint32_t width, std::uint32_t height, bool previewed) {
  std::unique_ptr<PictureWriter> writer;
  if (results_.wants("versus"))
    writer = create_picture(results_.path(names_.map, names_.picture + ".versus.png"),
                            class_map_spec({width, height, 1}, right_maps_legend(others_.size())));
  std::vector<std::string> colors{kNotAssessedColor};
  for (const RightKind& kind : kRightKinds) colors.push_back(kind.color);
  versus_ = std::make_unique<PaintedLabels>(width, height, colors, previewed, std::move(writer));
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
  add_errors(plot, name, map);
  if (versus_) add_versus(plot, name, map);
  if (!right.empty() || !wrong.empty())
    add_sampled_figure(plot, figure_path(plot, "sampled"), name, right, wrong, map);
}

void AssessPictures::add_errors(Plot& plot, const std::string& name, const Thumbnail& map) {
  const std::vector<std::uint64_t> counts = errors_->counts();
  const std::uint64_t assessed =
      std::accumulate(counts.begin() + 1, counts.end(), std::uint64_t{0});
  std::vector<LegendLine> legend;
  const auto add = [&](std::size_t label, const std::string& meaning, const std::string& color) {
    if (counts[label] > 0) legend.push_back({meaning, color, percent(counts[label], assessed)});
  };
  add(1, "right", right_color_);
  add(2, "unclassified", kUnclassifiedColor);
  for (std::size_t c = 0; c < classes_.size(); ++c)
    add(kFirstWrong + c, "should be " + classes_[c], colors_[c]);
  add_error_map_figure(plot, figure_path(plot, "errors"), name, legend, map, errors_->thumbnail());
}

void AssessPictures::add_versus(Plot& plot, const std::string& name, const Thumbnail& map) {
  const std::vector<std::uint64_t> counts = versus_->counts();
  const std::uint64_t assessed =
      std::accumulate(counts.begin() + 1, counts.end(), std::uint64_t{0});
  std::vector<LegendLine> legend;
  for (std::size_t kind = 0; kind < kRightMaps; ++kind)
    if (counts[kind + 1] > 0)
      legend.push_back({right_words(kind, others_.size()), kRightKinds[kind].color,
                        percent(counts[kind + 1], assessed)});
  add_right_maps_figure(plot, figure_path(plot, "versus"), name, others_.size(), legend, map,
                        versus_->thumbnail());
}

}  // namespace chalcedony
