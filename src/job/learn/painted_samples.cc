#include "job/learn/painted_samples.h"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <unordered_map>

#include "core/channel/channel_plan.h"
#include "core/color/css_color.h"
#include "core/error.h"
#include "io/picture/open_picture.h"
#include "job/learn/region_samples.h"
#include "job/picture/same_size.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kNoColor = 0xffffffff;

/// The rows of a picture as 8-bit sRGB colors.
class ColorRows {
 public:
  explicit ColorRows(PictureFile& file)
      : file_(file),
        plan_(file.info, channels_of(spaces::kSrgb)),
        reader_(file.info, count_all()),
        srgb_(plan_),
        stored_(file.info.shape.row_bytes()),
        colors_(file.info.shape.width) {}

  /// Row y; rows are asked for in order. A pixel that is not opaque has no color.
  const std::vector<std::uint32_t>& next(std::uint32_t y) {
    file_.rows->read_rows(1, stored_.data());
    reader_.for_each_block_of_row(stored_.data(), y, [&](const Block& block, std::uint32_t x) {
      srgb_.evaluate(block);
      for (std::size_t i = 0; i < block.size; ++i) {
        std::uint32_t color = 0;
        for (std::size_t c = 0; c < 3; ++c) {
          const float value = std::clamp(srgb_.channel(c)[i], 0.0f, 255.0f);
          color = color << 8 | static_cast<std::uint32_t>(std::lround(value));
        }
        const bool opaque = !block.alpha || block.alpha[i] == 1;
        colors_[x + i] = opaque ? color : kNoColor;
      }
    });
    return colors_;
  }

 private:
  PictureFile& file_;
  ChannelPlan plan_;
  BlockReader reader_;
  ChannelEvaluator srgb_;
  std::vector<std::byte> stored_;
  std::vector<std::uint32_t> colors_;
};

std::string hex_of(std::uint32_t color) {
  return css_hex({&spaces::kSrgb,
                  {static_cast<double>(color >> 16), static_cast<double>(color >> 8 & 255),
                   static_cast<double>(color & 255)}});
}

class Strokes {
 public:
  Strokes(PictureFile& copy, PictureFile& picture) : copy_(copy), picture_(picture) {}

  /// The colors that fill a square, in the order they first do.
  std::vector<std::uint32_t> colors() {
    std::vector<std::uint32_t> found;
    std::vector<std::vector<std::uint32_t>> rows;
    for_each_row([&](std::uint32_t, const std::vector<std::uint32_t>& changed) {
      rows.push_back(changed);
      if (rows.size() > 3) rows.erase(rows.begin());
      if (rows.size() == 3) find_squares(rows, found);
    });
    return found;
  }

  LabelGrid labels(const std::vector<std::uint32_t>& colors) {
    const RasterShape& shape = copy_.info.shape;
    std::unordered_map<std::uint32_t, Label> label_of;
    for (const std::uint32_t color : colors)
      label_of.emplace(color, static_cast<Label>(label_of.size() + 1));
    LabelGrid grid(shape.width, shape.height);
    for_each_row([&](std::uint32_t y, const std::vector<std::uint32_t>& changed) {
      for (std::uint32_t x = 0; x < shape.width; ++x)
        if (const auto at = label_of.find(changed[x]); at != label_of.end())
          grid.row(y)[x] = at->second;
    });
    return grid;
  }

 private:
  /// Calls use(y, colors) with the colors of the copy where it differs from the picture.
  template <class Use>
  void for_each_row(const Use& use) {
    copy_.rows->rewind();
    picture_.rows->rewind();
    ColorRows painted(copy_), plain(picture_);
    std::vector<std::uint32_t> changed(copy_.info.shape.width);
    for (std::uint32_t y = 0; y < copy_.info.shape.height; ++y) {
      const auto& over = painted.next(y);
      const auto& under = plain.next(y);
      for (std::size_t x = 0; x < changed.size(); ++x)
        changed[x] = over[x] == under[x] ? kNoColor : over[x];
      use(y, changed);
    }
    copy_.rows->rewind();
    picture_.rows->rewind();
  }

  static void find_squares(const std::vector<std::vector<std::uint32_t>>& rows,
                           std::vector<std::uint32_t>& found) {
    const std::size_t width = rows[0].size();
    for (std::size_t x = 0; x + 3 <= width; ++x) {
      const std::uint32_t color = rows[0][x];
      if (color == kNoColor || (!found.empty() && found.back() == color)) continue;
      bool filled = true;
      for (const auto& row : rows)
        for (std::size_t i = 0; i < 3; ++i) filled = filled && row[x + i] == color;
      if (filled && std::find(found.begin(), found.end(), color) == found.end())
        found.push_back(color);
    }
  }

  PictureFile& copy_;
  PictureFile& picture_;
};

}  // namespace

SampleSet painted_samples(const std::filesystem::path& copy, CountedPicture& picture,
                          const std::vector<std::pair<std::string, std::string>>& named,
                          const SharedOptions& options) {
  ReadOptions as_it_is;
  as_it_is.assume = options.assume;
  as_it_is.max_pixels = options.max_pixels;
  PictureFile painted = open_picture(copy, as_it_is);
  if (painted.facts.lossy)
    throw InputError("was compressed with losses, so its strokes have no exact colors",
                     "save the painted copy as PNG or TIFF", copy.string());
  require_same_size(copy, painted.info.shape, "the picture", picture.shape(),
                    "paint on a copy of the same size");
  Strokes strokes(painted, picture.file);
  const std::vector<std::uint32_t> colors = strokes.colors();
  if (colors.empty())
    throw InputError("has no strokes that differ from the picture",
                     "paint with an opaque brush at least 3 pixels wide", copy.string());
  if (colors.size() > 255)
    throw InputError("differs from the picture in " + std::to_string(colors.size()) + " colors",
                     "paint with one opaque color for each class on an unchanged copy",
                     copy.string());
  LabelPicture labels;
  labels.grid = strokes.labels(colors);
  for (const std::uint32_t color : colors) {
    const std::string hex = hex_of(color);
    std::string name = hex;
    for (const auto& [given, css] : named)
      if (css == hex) name = given;
    labels.classes.push_back({static_cast<unsigned>(labels.classes.size() + 1), name, hex});
  }
  return samples_of_labels(labels);
}

}  // namespace chalcedony
