#include "io/picture/label_file.h"
#include "io/picture/open_picture.h"

#include <algorithm>
#include <array>
#include <map>

#include "core/error.h"
#include "io/picture/picture_file.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostColors = 255;
constexpr Label kMostUnlisted = 255;

using Rgb = std::array<std::uint8_t, 3>;

std::string hex_of(const Rgb& rgb) {
  constexpr char digits[] = "0123456789abcdef";
  std::string text = "#";
  for (const std::uint8_t v : rgb) text += {digits[v / 16], digits[v % 16]};
  return text;
}

/// Turns a picture of flat colors into numbers of colors.
class ColorLabels : public RowSource {
 public:
  ColorLabels(std::unique_ptr<RowSource> colors, bool has_alpha)
      : colors_(std::move(colors)), has_alpha_(has_alpha), shape_(colors_->shape()) {
    row_.resize(shape_.row_bytes());
    shape_.channels = 1;
    find_colors();
  }

  const RasterShape& shape() const override { return shape_; }
  void rewind() override { colors_->rewind(); }

  void read_rows(std::uint32_t count, std::byte* rows) override {
    for (std::uint32_t r = 0; r < count; ++r) read_row(rows + std::size_t{r} * shape_.width);
  }

  std::vector<LegendEntry> legend() const {
    std::vector<LegendEntry> legend;
    for (const auto& [rgb, number] : numbers_) legend.push_back({number, hex_of(rgb), hex_of(rgb)});
    std::sort(legend.begin(), legend.end(),
              [](const LegendEntry& a, const LegendEntry& b) { return a.index < b.index; });
    return legend;
  }

 private:
  void find_colors() {
    std::vector<std::byte> labels(shape_.width);
    for (std::uint32_t y = 0; y < shape_.height; ++y) read_row(labels.data());
    colors_->rewind();
  }

  void read_row(std::byte* labels) {
    colors_->read_rows(1, row_.data());
    const auto* pixel = reinterpret_cast<const std::uint8_t*>(row_.data());
    const std::uint32_t channels = colors_->shape().channels;
    for (std::uint32_t x = 0; x < shape_.width; ++x, pixel += channels) {
      const bool opaque = !has_alpha_ || pixel[channels - 1] == 255;
      labels[x] =
          opaque ? static_cast<std::byte>(number_of({pixel[0], pixel[1], pixel[2]})) : std::byte{0};
    }
  }

  /// Neighbors mostly have one color.
  unsigned number_of(const Rgb& rgb) {
    if (last_number_ > 0 && rgb == last_) return last_number_;
    const auto [at, is_new] = numbers_.emplace(rgb, static_cast<unsigned>(numbers_.size() + 1));
    if (is_new && numbers_.size() > kMostColors)
      throw InputError("holds more than 255 colors, so it is no picture of labels",
                       "paint every class in one flat color, without smoothed edges");
    last_ = rgb;
    last_number_ = at->second;
    return last_number_;
  }

  std::unique_ptr<RowSource> colors_;
  bool has_alpha_;
  RasterShape shape_;
  std::vector<std::byte> row_;
  std::map<Rgb, unsigned> numbers_;
  Rgb last_{};
  unsigned last_number_ = 0;
};

void check_holds_labels(const PictureFile& file) {
  if (file.facts.lossy)
    throw InputError("is stored lossily, which changes labels", "give it as PNG or TIFF");
  if (file.info.is_float())
    throw InputError("holds floats, no labels", "give a class map or a picture of flat colors");
}

LabelFile label_file_of(PictureFile file) {
  check_holds_labels(file);
  LabelFile labels;
  labels.carried = file.facts.carried;
  if (file.info.shape.channels == 1) {
    labels.classes = file.facts.legend;
    labels.legend_from = labels.classes.empty() ? LegendFrom::kNumbers : LegendFrom::kFile;
    labels.rows = std::move(file.rows);
    return labels;
  }
  const bool has_alpha = file.info.alpha != AlphaKind::kNone;
  if (file.info.color_channels() != 3 || file.info.shape.sample != SampleType::kU8)
    throw InputError("is no picture of labels",
                     "give a class map or an 8-bit picture of flat colors");
  auto colors = std::make_unique<ColorLabels>(std::move(file.rows), has_alpha);
  labels.classes = colors->legend();
  labels.legend_from = LegendFrom::kColors;
  labels.rows = std::move(colors);
  return labels;
}

}  // namespace

LabelFile open_labels(const std::filesystem::path& path, std::uint64_t max_pixels) {
  ReadOptions options;
  options.palette_indices = true;
  options.max_pixels = max_pixels;
  LabelFile labels =
      errors_at(path.string(), [&] { return label_file_of(open_picture(path, options)); });
  labels.path = path;
  return labels;
}

bool is_class_map_file(const std::filesystem::path& path) {
  try {
    return !open_picture(path, {}).facts.legend.empty();
  } catch (const InputError&) {
    return false;
  }
}

void check_listed(const LabelFile& file, Label largest) {
  if (file.legend_from != LegendFrom::kNumbers || largest <= kMostUnlisted) return;
  throw InputError(
      "has the number " + std::to_string(largest) + ", above 255, and no list of classes",
      "give a class map", file.path.string());
}

LabelRows::LabelRows(LabelFile& file) : file_(file), left_(file.rows->shape().height) {}

void LabelRows::read_more() {
  constexpr std::uint32_t kRowsAtOnce = 64;
  const RasterShape& shape = file_.rows->shape();
  held_ = std::min(kRowsAtOnce, left_);
  stored_.resize(held_ * shape.row_bytes());
  file_.rows->read_rows(static_cast<std::uint32_t>(held_), stored_.data());
  left_ -= static_cast<std::uint32_t>(held_);
  at_ = 0;
}

const Label* LabelRows::next() {
  if (at_ == held_) read_more();
  const RasterShape& shape = file_.rows->shape();
  const std::byte* const row = stored_.data() + at_++ * shape.row_bytes();
  labels_.resize(shape.width);
  read_labels(row, shape.width, shape.sample, labels_.data());
  if (file_.legend_from != LegendFrom::kNumbers || shape.sample == SampleType::kU8)
    return labels_.data();
  check_listed(file_, *std::max_element(labels_.begin(), labels_.end()));
  return labels_.data();
}

}  // namespace chalcedony
