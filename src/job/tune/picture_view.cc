#include "job/tune/picture_view.h"

#include <algorithm>
#include <optional>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "job/histogram/classed_rows.h"

namespace chalcedony {
namespace {

/// What the threads share.
struct ViewWork {
  const CountedPicture* picture;
  const ClassedRows* classed;  // null where there are no classes
  ChannelPlan channels, shown;
  std::uint32_t step;

  std::size_t words() const { return KindWords(channels.channels().size()).words(); }
};

/// The seen pixels of a band, and the words of those that count.
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
        if (work_->classed) work_->classed->read_classes(row, x, block.size, classes_.data());
        const std::uint32_t past = x % work_->step;
        for (std::size_t i = past == 0 ? 0 : work_->step - past; i < block.size; i += work_->step)
          pick(block, i, seen);
      });
    }
    return seen;
  }

 private:
  void pick(const Block& block, std::size_t i, ViewBand& seen) const {
    seen.counts.push_back(block.counts(i));
    if (!block.counts(i)) return;
    for (std::size_t c = 0; c + 1 < work_->words(); ++c)
      seen.words.push_back(std::bit_cast<std::uint32_t>(channels_.channel(c)[i]));
    seen.words.push_back(
        KindWords::look({code_of(shown_.channel(0)[i]), code_of(shown_.channel(1)[i]),
                         code_of(shown_.channel(2)[i])},
                        classes_[i]));
  }

  const ViewWork* work_;
  BlockReader reader_;
  ChannelEvaluator channels_, shown_;
  std::array<std::uint8_t, kBlockPixels> classes_{};
};

}  // namespace

std::uint32_t step_for(const RasterShape& picture, std::uint32_t most) {
  return (std::max(picture.width, picture.height) + most - 1) / most;
}

PictureView picture_view(CountedPicture& picture, ClassSource* classes,
                         const std::vector<Channel>& channels, std::uint32_t most,
                         const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  PictureView seen(channels.size());
  seen.step = step_for(info.shape, most);
  seen.width = seen_along(info.shape.width, seen.step);
  seen.height = seen_along(info.shape.height, seen.step);
  seen.kind_of.reserve(std::size_t{seen.width} * seen.height);
  const RoadOptions road = road_for(picture, options, context);
  std::optional<ClassedRows> classed;
  if (classes) classed.emplace(picture, *classes);
  RowSource& rows = classed ? classed->rows() : *picture.file.rows;
  const ViewWork work{&picture, classed ? &*classed : nullptr,
                      ChannelPlan(info, channels, options.hue_floor),
                      ChannelPlan(info.shown(), channels_of(spaces::kSrgb)), seen.step};
  travel(
      rows, road, [&] { return ViewPicker(work); },
      [&](ViewBand&& band) {
        const std::uint32_t* words = band.words.data();
        for (const bool counts : band.counts) {
          seen.kind_of.push_back(counts ? seen.kinds.add(words) : PictureView::kNoKind);
          if (counts) words += work.words();
        }
        seen.counted += band.words.size() / work.words();
      });
  if (seen.counted == 0 && seen.step > 1)
    throw InputError("no pixel that its page would show counts", "show more of them with --view",
                     picture.file.path.string());
  require_counted(seen.counted, picture);
  return seen;
}

}  // namespace chalcedony
