#include "job/histogram/class_counts.h"

#include <array>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/pixel/side_by_side.h"
#include "job/picture/tallies.h"

namespace chalcedony {
namespace {

/// What the threads share.
struct CountedByClass {
  const CountedPicture* picture;
  const ClassSource* source;
  const ChannelPlan* plan;
  Tallies<ClassCounts>* tallies;
  std::size_t labels_at;  // where the labels of a row begin, in bytes
  SampleType label_type;
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
        if (read_classes(row + work_->labels_at, x, block.size)) add(block, counts);
      });
    }
    counts.excluded += reader_.take_excluded();
    return true;
  }

 private:
  /// False when none of the pixels has one.
  bool read_classes(const std::byte* labels, std::uint32_t x, std::size_t n) {
    const std::size_t bytes = work_->label_type == SampleType::kU8 ? 1 : 2;
    std::array<Label, kBlockPixels> numbers;
    read_labels(labels + x * bytes, n, work_->label_type, numbers.data());
    std::uint8_t some = 0;
    for (std::size_t i = 0; i < n; ++i) {
      classes_[i] = work_->source->class_of[numbers[i]];
      some |= classes_[i];
    }
    return some != 0;
  }

  void add(const Block& block, ClassCounts& counts) {
    channels_.evaluate(block);
    for (std::size_t c = 0; c < counts.channels.size(); ++c)
      counts.channels[c].add(block, channels_.channel(c), classes_.data());
  }

  const CountedByClass* work_;
  BlockReader reader_;
  ChannelEvaluator channels_;
  std::array<std::uint8_t, kBlockPixels> classes_{};
};

}  // namespace

void ClassCounts::merge(const ClassCounts& other) {
  for (std::size_t i = 0; i < channels.size(); ++i) channels[i].merge(other.channels[i]);
  excluded += other.excluded;
}

ClassCounts count_by_class(CountedPicture& picture, ClassSource& source,
                           const std::vector<Channel>& channels, std::size_t bins,
                           const SharedOptions& options, const Context& context) {
  const PictureInfo& info = picture.file.info;
  ClassCounts empty;
  for (const Channel& channel : channels)
    empty.channels.emplace_back(channel_binning(channel, bins, info), source.classes.size());
  const ChannelPlan plan(info, channels, options.hue_floor);
  const RoadOptions road = road_for(picture, options, context);
  const SampleType label_type = source.rows->shape().sample;
  RowSources sources;
  sources.push_back(std::move(picture.file.rows));
  sources.push_back(std::move(source.rows));
  SideBySide rows(std::move(sources));
  Tallies<ClassCounts> tallies(empty);
  const CountedByClass work{&picture, &source, &plan, &tallies, rows.part(1), label_type};
  travel(
      rows, road, [&] { return ClassCounter(work); }, [](bool) {});
  return std::move(
      tallies.merged([](ClassCounts& total, const ClassCounts& one) { total.merge(one); }));
}

}  // namespace chalcedony
