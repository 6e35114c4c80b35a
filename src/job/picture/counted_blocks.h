// The counted pixels of a picture, for work that does not ask where they are.
#ifndef CHALCEDONY_JOB_PICTURE_COUNTED_BLOCKS_H_
#define CHALCEDONY_JOB_PICTURE_COUNTED_BLOCKS_H_

#include <memory>
#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/pixel/color_table.h"
#include "core/pixel/color_tally.h"
#include "core/pixel/road.h"
#include "io/document/color_table_file.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"

namespace chalcedony {

/// Whether these channels of a picture can be computed from its distinct colors alone.
bool colors_tell(const PictureInfo& info, const std::vector<Channel>& channels);

/// Counts the colors of a picture that ColorCounter::fits in the course of a pass. Its functions
/// may be called from any thread.
class ColorCounting {
 public:
  ColorCounting(const CountedPicture& picture, ColorTally& tally);

  /// Whether the rows tell all, so that nothing need be picked.
  bool all_count() const { return all_count_; }
  /// Appends the colors of the Block's counted pixels, unless all count.
  void pick(const Block& block, std::vector<std::uint32_t>& picked) const;
  /// Takes the colors of a band: those picked, or all.
  void add(const Band& band, const std::vector<std::uint32_t>& picked) const;

 private:
  bool all_count_;
  std::uint32_t channels_;  // of a stored pixel
  ColorTally& tally_;
};

/// One pass over a picture that ColorCounter::fits: adds its counted pixels to the tally, and
/// gathers the preview, if there is one. Returns what was left out. Several pictures may be counted
/// at once.
Excluded count_colors(CountedPicture& picture, const SharedOptions& options, const Context& context,
                      Preview* preview, ColorTally& tally);

/// Blocks of the distinct colors, each with the number of its pixels, where these tell all that is
/// asked; else Blocks of the pixels. Passes can be repeated.
class CountedBlocks {
 public:
  /// `channels` are all that will be computed from the Blocks. The first pass over the picture
  /// gathers the preview, if there is one; it is made here when colors are counted. Those of a
  /// small picture are counted only when `wants_colors`: a table takes longer to look through than
  /// its pixels.
  CountedBlocks(CountedPicture& picture, const SharedOptions& options, const Context& context,
                const std::vector<Channel>& channels, Preview* preview = nullptr,
                bool wants_colors = false);

  /// Of the colors that were counted in a pass over the picture.
  CountedBlocks(const CountedPicture& picture, const SharedOptions& options, const Context& context,
                ColorTally& tally);

  /// Of the pixels, for work that asks where they are, or of few of them.
  CountedBlocks(CountedPicture& picture, const SharedOptions& options, const Context& context,
                const Counting& counting);

  /// What the Blocks hold, for a ChannelPlan.
  const PictureInfo& info() const { return info_; }
  /// Pixels that were left out before there were Blocks.
  const Excluded& excluded() const { return excluded_; }

  /// How many distinct colors there are; 0 when the Blocks are of pixels.
  std::uint64_t distinct() const { return table_ ? table_->colors : 0; }

  /// The distinct colors of the counted pixels; none when the Blocks are of pixels.
  std::optional<StoredColors> colors();

  /// Reads the Blocks of a band; one for each thread.
  class Reader {
   public:
    explicit Reader(CountedBlocks& blocks)
        : blocks_(&blocks),
          reader_(blocks.info_, blocks.counting_),
          collector_(collector_for(blocks.preview_)) {}

    template <class Use>
    void for_each_block(const Band& band, Use&& use) {
      reader_.for_each_block(band, [&](const Block& block) {
        if (collector_) collector_->add(block);
        if (block.counted_size == 0) return;
        if (blocks_->table_) {
          use(blocks_->table_->weighted(block));
        } else {
          use(block);
        }
      });
    }
    Excluded take_excluded() { return reader_.take_excluded(); }

   private:
    CountedBlocks* blocks_;
    BlockReader reader_;
    std::optional<Preview::Collector> collector_;
  };

  /// One pass: `make_worker(Reader)` is called once for each thread, as in travel().
  template <class MakeWorker, class Sink>
  void pass(const MakeWorker& make_worker, Sink&& sink) {
    rows_->rewind();
    travel(
        *rows_, road_, [&] { return make_worker(Reader(*this)); }, sink);
    preview_ = nullptr;
  }

 private:
  /// From here on there is no picture, only its colors.
  void take_table(const SharedOptions& options, ColorTally& tally);

  Preview* preview_ = nullptr;  // gathered in the next pass; null for none
  RoadOptions road_;
  PictureInfo info_;
  Counting counting_;
  RowSource* rows_ = nullptr;
  std::optional<ColorTable> table_;
  std::unique_ptr<RowSource> table_rows_;
  Excluded excluded_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_COUNTED_BLOCKS_H_
