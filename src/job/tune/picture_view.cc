#include "job/tune/picture_view.h"

#include <algorithm>
#include <array>
#include <bit>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/pixel/label.h"
#include "core/pixel/side_by_side.h"
#include "core/stats/distinct_rows.h"

namespace chalcedony {
namespace {

/// What the threads share.
struct ViewWork {
  const CountedPicture* picture;
  const ClassSource* classes;  // null for none
  ChannelPlan channels, shown;
  std::uint32_t step;
  std::size_t labels_at;  // where the labels of a row begin, in bytes
  SampleType label_type;

  /// Words of a pixel: the bits of its channels, then its color and class.
  std::size_t words() const { return channels.channels().size() + 1; }
};

/// The seen pixels of a band.
struct ViewBand {
  std::vector<std::uint32_t> words;
  std::vector<bool> counts;
};

std::uint32_t code_of(float value) {
  return static_cast<std::uint32_t>(std::clamp(value, 0.0f, 255.0f) + 0.5f);
}

/// One for each thread.
class ViewPicker {
 public:
  explicit ViewPicker(const ViewWork& work)
      : work_(&work),
        reader_(work.picture->file.info, work.picture->counting),
        channels_(work.channels),
        shown_(work.shown) {}

  ViewBand operator()(const Band& band) {
    ViewBand seen;
    for (std::uint32_t y = band.first_row(); y < band.first_row() + band.rows(); ++y) {
      if (y % work_->step != 0) continue;
      const std::byte* const row = band.row(y);
      reader_.for_each_block_of_row(row, y, [&](const Block& block, std::uint32_t x) {
        channels_.evaluate(block);
        shown_.evaluate(block);
        read_classes(row + work_->labels_at, x, block.size);
        const std::uint32_t past = x % work_->step;
        for (std::size_t i = past == 0 ? 0 : work_->step - past; i < block.size; i += work_->step)
          pick(block, i, seen);
      });
    }
    return seen;
  }

 private:
  void read_classes(const std::byte* labels, std::uint32_t x, std::size_t n) {
    if (!work_->classes) return;
    const std::size_t bytes = work_->label_type == SampleType::kU8 ? 1 : 2;
    read_labels(labels + x * bytes, n, work_->label_type, labels_.data());
  }

  void pick(const Block& block, std::size_t i, ViewBand& seen) const {
    seen.counts.push_back(block.counts(i));
    for (std::size_t c = 0; c + 1 < work_->words(); ++c)
      seen.words.push_back(std::bit_cast<std::uint32_t>(channels_.channel(c)[i]));
    const std::uint32_t its_class = work_->classes ? work_->classes->class_of[labels_[i]] : 0;
    seen.words.push_back(code_of(shown_.channel(0)[i]) | code_of(shown_.channel(1)[i]) << 8 |
                         code_of(shown_.channel(2)[i]) << 16 | its_class << 24);
  }

  const ViewWork* work_;
  BlockReader reader_;
  ChannelEvaluator channels_, shown_;
  std::array<Label, kBlockPixels> labels_{};
};

/// The kinds, in the order of their rows.
void take_kinds(const DistinctRows& rows, std::size_t channels, PictureView& seen) {
  seen.kinds = rows.size();
  seen.values.resize(channels * seen.kinds);
  for (std::size_t k = 0; k < seen.kinds; ++k) {
    const std::uint32_t* const row = rows.row(k);
    for (std::size_t c = 0; c < channels; ++c)
      seen.values[c * seen.kinds + k] = std::bit_cast<float>(row[c]);
    for (const int shift : {0, 8, 16})
      seen.rgb.push_back(static_cast<std::uint8_t>(row[channels] >> shift));
    seen.classes.push_back(static_cast<std::uint8_t>(row[channels] >> 24));
  }
}

}  // namespace

PictureView picture_view(CountedPicture& picture, ClassSource* classes,
                         const std::vector<Channel>& channels, std::uint32_t most,
                         const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  const auto [width, height] = std::pair(info.shape.width, info.shape.height);
  PictureView seen;
  seen.step = (std::max(width, height) + most - 1) / most;
  seen.width = (width + seen.step - 1) / seen.step;
  seen.height = (height + seen.step - 1) / seen.step;
  seen.kind_of.reserve(std::size_t{seen.width} * seen.height);
  ViewWork work{&picture,
                classes,
                ChannelPlan(info, channels, options.hue_floor),
                ChannelPlan(info.shown(), channels_of(spaces::kSrgb)),
                seen.step,
                0,
                SampleType::kU8};
  const RoadOptions road = road_for(picture, options, context);
  RowSource* rows = picture.file.rows.get();
  std::unique_ptr<SideBySide> both;
  if (classes) {
    work.label_type = classes->rows->shape().sample;
    RowSources sources;
    sources.push_back(std::move(picture.file.rows));
    sources.push_back(std::move(classes->rows));
    both = std::make_unique<SideBySide>(std::move(sources));
    work.labels_at = both->part(1);
    rows = both.get();
  }
  DistinctRows kinds(work.words());
  travel(
      *rows, road, [&] { return ViewPicker(work); },
      [&](ViewBand&& band) {
        for (std::size_t i = 0; i < band.counts.size(); ++i) {
          seen.kind_of.push_back(band.counts[i] ? kinds.add(band.words.data() + i * work.words())
                                                : PictureView::kNoKind);
          seen.counted += band.counts[i] ? 1 : 0;
        }
      });
  if (seen.counted == 0 && seen.step > 1)
    throw InputError("no pixel that its page would show counts", "show more of them with --view",
                     picture.file.path.string());
  require_counted(seen.counted, picture);
  take_kinds(kinds, channels.size(), seen);
  return seen;
}

}  // namespace chalcedony
