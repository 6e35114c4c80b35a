// Features of a pixel's neighborhood: the mean or the deviation of a channel in a square around it.
#ifndef CHALCEDONY_CORE_FEATURE_LOCAL_FEATURES_H_
#define CHALCEDONY_CORE_FEATURE_LOCAL_FEATURES_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/filter/tile.h"
#include "core/pixel/band.h"
#include "core/pixel/block_reader.h"

namespace chalcedony {

/// Which local features of a picture are asked for, and the channels they are made of.
class LocalPlan {
 public:
  /// `channels`: those that are local are taken, the others left. Pixels that do not count lend
  /// nothing to their neighbors.
  ///
  /// Errors    InputError as ChannelPlan
  LocalPlan(const PictureInfo& info, const std::vector<Channel>& channels, Counting counting,
            double hue_floor);

  bool empty() const { return features_.empty(); }
  /// Rows of neighborhood a band must carry.
  std::uint32_t halo() const { return halo_; }

 private:
  friend class LocalEvaluator;

  struct LocalFeature {
    Around::Statistic statistic;
    std::uint32_t reach;
    std::size_t channel;  // in channels_
  };

  PictureInfo info_;
  Counting counting_;
  ChannelPlan channels_;
  std::vector<LocalFeature> features_;
  std::uint32_t halo_ = 0;
};

/// Computes local features, a band at a time. Beyond its edges a picture goes on as its mirror
/// image. One for each thread.
class LocalEvaluator {
 public:
  explicit LocalEvaluator(const LocalPlan& plan);

  /// Prepares for a Block, which must know its band.
  void evaluate(const Block& block);

  /// Values of the plan's local feature k for the Block, padded as in planes.h.
  const float* values(std::size_t k) const { return features_[k].data() + offset_; }

 private:
  void read(const Band& band);
  void read_row(const Band& band, std::int64_t y, std::size_t line);

  const LocalPlan* plan_;
  BlockReader reader_;
  ChannelEvaluator evaluator_;
  std::vector<Tile> tiles_;                   // of each channel, with its neighborhood
  std::vector<std::vector<float>> features_;  // of the band's own rows
  const Band* band_ = nullptr;                // what is held
  std::uint32_t first_row_ = 0;
  std::size_t offset_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_FEATURE_LOCAL_FEATURES_H_
