#include "job/histogram/class_counts.h"

#include <array>
#include <utility>

#include "core/channel/channel_plan.h"
#include "job/histogram/classed_rows.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

/// What the threads share.
struct CountedByClass {
  const CountedPicture* picture;
  const ClassedRows* rows;
  const ChannelPlan* plan;
  Tallies<ClassCounts>* tallies;
};

/// One for each thread.
class ClassCounter {
 public:
  explicit ClassCounter(const CountedByClass& work)
      : work_(&work),
        reader_(work.picture->file.info, work.picture->counting),
        channels_(*work.plan) {}

  bool operator()(const Band& band) {
    ClassCounts& counts = work_->tallies->local();
    for (std::uint32_t y = band.first_row(); y < band.first_row() + band.rows(); ++y) {
      const std::byte* const row = band.row(y);
      reader_.for_each_block_of_row(row, y, [&](const Block& block, std::uint32_t x) {
        if (work_->rows->read_classes(row, x, block.size, classes_.data())) add(block, counts);
      });
    }
    counts.excluded += reader_.take_excluded();
    return true;
  }

 private:
  void add(const Block& block, ClassCounts& counts) {
    channels_.evaluate(block);
    for (std::size_t c = 0; c < counts.channels.size(); ++c)
      counts.channels[c].histogram.add(block, channels_.channel(c), classes_.data());
  }

  const CountedByClass* work_;
  BlockReader reader_;
  ChannelEvaluator channels_;
  std::array<std::uint8_t, kBlockPixels> classes_{};
};

}  // namespace

std::size_t ClassCounts::classes_with_pixels() const {
  std::size_t some = 0;
  for (std::size_t c = 0; c < classes(); ++c) some += pixels(c) > 0 ? 1 : 0;
  return some;
}

void ClassCounts::merge(const ClassCounts& other) {
  for (std::size_t i = 0; i < channels.size(); ++i)
    channels[i].histogram.merge(other.channels[i].histogram);
  excluded += other.excluded;
}

ClassCounts count_by_class(CountedPicture& picture, ClassSource& source,
                           const std::vector<Channel>& channels, std::size_t bins,
                           const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  ClassCounts empty;
  for (const Channel& channel : channels)
    empty.channels.push_back(
        {channel, has_codes(channel, info),
         ClassHistogram(channel_binning(channel, bins, info), source.classes.size())});
  const ChannelPlan plan(info, channels, options.hue_floor);
  const RoadOptions road = road_for(picture, options, context);
  ClassedRows rows(picture, source);
  Tallies<ClassCounts> tallies(empty);
  const CountedByClass work{&picture, &rows, &plan, &tallies};
  travel(
      rows.rows(), road, [&] { return ClassCounter(work); }, [](bool) {});
  return std::move(
      tallies.merged([](ClassCounts& total, const ClassCounts& one) { total.merge(one); }));
}

}  // namespace chalcedony
