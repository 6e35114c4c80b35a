#include "job/look/told_pixels.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/error.h"
#include "core/pixel/row_parts.h"

namespace chalcedony {
namespace {

constexpr std::array kToldSpaces{&spaces::kSrgb, &spaces::kHsv, &spaces::kLab, &spaces::kOklch};

bool shows(const Space* space) {
  return std::find(kToldSpaces.begin(), kToldSpaces.end(), space) != kToldSpaces.end();
}

/// A number, or null for none.
Json told_value(float value) { return std::isfinite(value) ? Json(value) : Json(); }

}  // namespace

Json color_report(const Color& color, QuotedUnits units, const CodesOf& codes) {
  Json report{{"css", css_hex(color)}};
  const bool has_hue = color.has_hue();
  for (const Space* space : kToldSpaces) {
    const auto value = color.in(*space);
    Json values = Json::object();
    for (std::size_t c = 0; c < 3; ++c) {
      const bool missing = !has_hue && space->hue == static_cast<int>(c);
      const double quoted = quoted_value(value[c], {space, c}, units, codes);
      values[std::string(space->channels[c].name)] = missing ? Json() : Json(quoted);
    }
    report[std::string(space->id)] = values;
  }
  return report;
}

ToldPixels::ToldPixels(const CountedPicture& picture,
                       const std::vector<std::pair<std::int64_t, std::int64_t>>& at,
                       const std::optional<Region>& part, const ChannelPlan& plan,
                       const std::vector<Channel>& channels)
    : info_(picture.file.info), plan_(plan), at_(at), colors_(at.size()) {
  check_points();
  for (std::size_t c = 0; c < channels.size(); ++c)
    if (!info_.has_color() || !shows(channels[c].space)) beside_.push_back(c);
  beside_at_.assign(at_.size(), std::vector<float>(beside_.size()));
  if (part) set_up(*part, picture);
}

void ToldPixels::check_points() const {
  for (const auto& [x, y] : at_)
    if (x < 0 || y < 0 || x >= info_.shape.width || y >= info_.shape.height)
      throw InputError("--at " + std::to_string(x) + "," + std::to_string(y) +
                           " lies outside the picture, which is " + info_.shape.size_text(),
                       "the top-left pixel is 0,0");
}

void ToldPixels::set_up(const Region& part, const CountedPicture& picture) {
  part_ = errors_at(picture.file.path.string(),
                    [&] { return part.in(info_.shape.width, info_.shape.height); });
  if (part_.width > kMostValues || part_.height > kMostValues)
    throw InputError(fmt::format("--values {} is {}x{} pixels, more than can be read", part.text,
                                 part_.width, part_.height),
                     fmt::format("give up to {0}x{0}", kMostValues), picture.file.path.string());
  values_.assign(plan_.channels().size(),
                 std::vector<float>(std::size_t{part_.width} * part_.height));
}

void ToldPixels::take(const Block& block, const ChannelEvaluator& channels) {
  for (std::size_t p = 0; p < at_.size(); ++p) {
    const auto [x, y] = at_[p];
    const std::uint64_t pixel =
        static_cast<std::uint64_t>(y) * info_.shape.width + static_cast<std::uint64_t>(x);
    if (pixel < block.first_pixel || pixel >= block.first_pixel + block.size) continue;
    const std::size_t i = pixel - block.first_pixel;
    if (info_.has_color())
      for (std::size_t c = 0; c < 3; ++c) colors_[p][c] = block.color[c][i];
    for (std::size_t b = 0; b < beside_.size(); ++b)
      beside_at_[p][b] = channels.channel(beside_[b])[i];
  }
  if (values_.empty()) return;
  for_each_row_part(block, [&](std::size_t first, std::size_t n, std::uint32_t x, std::uint32_t y) {
    const std::uint32_t left = std::max(x, part_.x),
                        right = std::min(x + static_cast<std::uint32_t>(n), part_.x + part_.width);
    if (y < part_.y || y >= part_.y + part_.height || left >= right) return;
    const std::size_t place = std::size_t{y - part_.y} * part_.width + (left - part_.x);
    for (std::size_t c = 0; c < values_.size(); ++c)
      std::copy_n(channels.channel(c) + first + (left - x), right - left,
                  values_[c].data() + place);
  });
}

Json ToldPixels::points(QuotedUnits units, const CodesOf& codes) const {
  Json list = Json::array();
  for (std::size_t p = 0; p < at_.size(); ++p) {
    Json point{{"x", at_[p].first}, {"y", at_[p].second}};
    if (info_.has_color()) point.update(color_report({info_.space, colors_[p]}, units, codes));
    for (std::size_t b = 0; b < beside_.size(); ++b)
      point["channels"][plan_.channels()[beside_[b]].name()] = told_value(beside_at_[p][b]);
    list.push_back(point);
  }
  return list;
}

Json ToldPixels::grids() const {
  Json grids = Json::array();
  for (std::size_t c = 0; c < values_.size(); ++c) {
    Json rows = Json::array();
    for (std::uint32_t y = 0; y < part_.height; ++y) {
      Json row = Json::array();
      for (std::uint32_t x = 0; x < part_.width; ++x)
        row.push_back(told_value(values_[c][std::size_t{y} * part_.width + x]));
      rows.push_back(std::move(row));
    }
    grids.push_back({{"channel", plan_.channels()[c].name()}, {"rows", std::move(rows)}});
  }
  return {{"x", part_.x}, {"y", part_.y}, {"grids", std::move(grids)}};
}

}  // namespace chalcedony
