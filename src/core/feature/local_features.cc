#include "core/feature/local_features.h"

#include <algorithm>
#include <limits>
#include <stdexcept>
#include <utility>

#include "core/filter/box_moments.h"
#include "core/pixel/mirrored.h"
#include "core/pixel/uncounted.h"

namespace chalcedony {
namespace {

/// The channels that local ones are made of, each once.
std::vector<Channel> made_of(const std::vector<Channel>& channels) {
  std::vector<Channel> out;
  for (const Channel& channel : channels) {
    const Channel plain = channel.plain();
    if (channel.is_local() && std::find(out.begin(), out.end(), plain) == out.end())
      out.push_back(plain);
  }
  return out;
}

}  // namespace

LocalPlan::LocalPlan(const PictureInfo& info, const std::vector<Channel>& channels,
                     Counting counting, double hue_floor)
    : info_(info), counting_(std::move(counting)), channels_(info, made_of(channels), hue_floor) {
  const std::vector<Channel>& plain = channels_.channels();
  for (const Channel& channel : channels) {
    if (!channel.is_local()) continue;
    features_.push_back(
        {channel.around.statistic, channel.around.side / 2, place_of(channel.plain(), plain)});
    halo_ = std::max(halo_, features_.back().reach);
  }
}

LocalEvaluator::LocalEvaluator(const LocalPlan& plan)
    : plan_(&plan),
      reader_(plan.info_, plan.counting_),
      evaluator_(plan.channels_),
      tiles_(plan.channels_.channels().size()),
      features_(plan.features_.size()) {}

void LocalEvaluator::evaluate(const Block& block) {
  if (!block.band) throw std::logic_error("the neighborhood of a Block is not known");
  if (block.band != band_ || block.band->first_row() != first_row_) read(*block.band);
  offset_ =
      static_cast<std::size_t>(block.first_pixel - std::uint64_t{first_row_} * block.picture_width);
}

void LocalEvaluator::read(const Band& band) {
  band_ = &band;
  first_row_ = band.first_row();
  const std::size_t halo = plan_->halo_, lines = band.rows() + 2 * halo;
  for (Tile& tile : tiles_) tile.resize(plan_->info_.shape.width + 2 * halo, lines);
  for (std::size_t line = 0; line < lines; ++line)
    read_row(band,
             static_cast<std::int64_t>(band.first_row() + line) - static_cast<std::int64_t>(halo),
             line);
  reader_.take_excluded();
  evaluator_.take_clipped();
  const std::size_t pixels = std::size_t{band.rows()} * plan_->info_.shape.width;
  for (std::size_t k = 0; k < features_.size(); ++k) {
    const LocalPlan::LocalFeature& feature = plan_->features_[k];
    features_[k].resize(pixels + kPlanePadding);
    float* const values = features_[k].data();
    const bool mean = feature.statistic == Around::Statistic::kMean;
    box_moments(tiles_[feature.channel], halo, feature.reach, mean ? values : nullptr,
                mean ? nullptr : values);
  }
}

void LocalEvaluator::read_row(const Band& band, std::int64_t y, std::size_t line) {
  const RasterShape& shape = plan_->info_.shape;
  const std::uint32_t row = mirrored(y, shape.height);
  const std::size_t halo = plan_->halo_;
  reader_.for_each_block_of_row(band.row(row), row, [&](const Block& block, std::uint32_t x) {
    evaluator_.evaluate(block);
    for (std::size_t c = 0; c < tiles_.size(); ++c) {
      float* const to = tiles_[c].row(line) + halo + x;
      std::copy_n(evaluator_.channel(c), block.size, to);
      fill_uncounted(block, std::numeric_limits<float>::quiet_NaN(), to);
    }
  });
  for (Tile& tile : tiles_) mirror_sides(tile.row(line), shape.width, halo);
}

}  // namespace chalcedony
