#include "job/learn/sample_pixels.h"

#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/feature/features.h"
#include "core/pixel/pixel_hash.h"

namespace chalcedony {
namespace {

/// A share of all hashes.
std::uint64_t hash_share(double share) {
  return share >= 1 ? ~std::uint64_t{0} : static_cast<std::uint64_t>(std::ldexp(share, 64));
}

}  // namespace

/// What one band adds.
struct SamplePixels::Band {
  SampleTable training, held;
  ClassColors colors;
  std::vector<float> density;
  std::uint64_t left_out = 0;
};

/// One for each thread.
class SamplePixels::Worker {
 public:
  /// `look`: of oklab, or null.
  Worker(const SamplePixels& job, const CountedPicture& picture, const FeaturePlan& plan,
         const ChannelPlan* look, const Samples& samples, Preview& preview)
      : job_(&job),
        runs_(&samples.runs),
        reader_(picture.file.info, picture.counting),
        evaluator_(plan),
        collector_(preview),
        row_(plan.size()),
        seed_(pixel_hash(job.options_.seed, samples.picture)),
        held_below_(hash_share(job.held_share_)),
        density_below_(hash_share(static_cast<double>(job.density_pixels_) /
                                  static_cast<double>(picture.shape().pixels()))) {
    if (look) look_.emplace(*look);
  }

  SamplePixels::Band operator()(const chalcedony::Band& band) {
    SamplePixels::Band out{SampleTable(row_.size()), SampleTable(row_.size()), {}, {}, 0};
    reader_.for_each_block(band, [&](const Block& block) {
      collector_.add(block);
      evaluated_ = false;
      add_samples(block, out);
      if (job_->density_pixels_ > 0) add_density(block, out);
    });
    out.training.join_equal_rows();
    out.held.join_equal_rows();
    return out;
  }

 private:
  void evaluate(const Block& block) {
    if (evaluated_) return;
    evaluator_.evaluate(block);
    if (look_) look_->evaluate(block);
    evaluated_ = true;
  }

  /// Takes the features of a pixel; false when it does not count or lacks one.
  bool take(const Block& block, std::size_t i) {
    if (!block.counts(i) || !evaluator_.complete(i)) return false;
    for (std::size_t f = 0; f < row_.size(); ++f) row_[f] = evaluator_.values()[f][i];
    return true;
  }

  void add_samples(const Block& block, SamplePixels::Band& out) {
    const std::uint64_t first = block.first_pixel;
    for_each_sample_pixel(
        *runs_, block.picture_width, first, first + block.size,
        [&](const SampleRun& run, std::uint64_t pixel) {
          evaluate(block);
          const std::size_t i = static_cast<std::size_t>(pixel - first);
          if (!take(block, i)) {
            ++out.left_out;
          } else {
            (is_held(block, i) ? out.held : out.training).add(run.sample_class, row_.data());
            if (look_) out.colors.add(run.sample_class, oklab_of(i));
          }
        });
  }

  std::array<double, 3> oklab_of(std::size_t i) const {
    return {look_->channel(0)[i], look_->channel(1)[i], look_->channel(2)[i]};
  }

  bool is_held(const Block& block, std::size_t i) const {
    if (held_below_ == 0) return false;
    const std::uint64_t across = block.picture_width / kHeldSquare + 1;
    return pixel_hash(seed_, block.y(i) / kHeldSquare * across + block.x(i) / kHeldSquare) <
           held_below_;
  }

  void add_density(const Block& block, SamplePixels::Band& out) {
    for (std::size_t i = 0; i < block.size; ++i) {
      if (pixel_hash(seed_ + 1, block.pixel(i)) > density_below_) continue;
      evaluate(block);
      if (take(block, i)) out.density.insert(out.density.end(), row_.begin(), row_.end());
    }
  }

  const SamplePixels* job_;
  const std::vector<SampleRun>* runs_;
  BlockReader reader_;
  FeatureEvaluator evaluator_;
  std::optional<ChannelEvaluator> look_;
  Preview::Collector collector_;
  std::vector<float> row_;
  std::uint64_t seed_, held_below_, density_below_;
  bool evaluated_ = false;
};

SamplePixels::SamplePixels(std::vector<Channel> features, double held_share,
                           std::uint64_t density_pixels, bool wants_colors,
                           const SharedOptions& options)
    : options_(options),
      features_(std::move(features)),
      held_share_(held_share),
      density_pixels_(density_pixels),
      wants_colors_(wants_colors),
      training_(features_of(features_).size()),
      held_(training_.features()) {}

SamplePixels::Added SamplePixels::add(CountedPicture& picture, const Samples& samples,
                                      Preview& preview, const Context& context) {
  const FeaturePlan plan(picture.file.info, features_, {}, options_.hue_floor, picture.counting);
  std::optional<ChannelPlan> look;
  if (wants_colors_) look.emplace(picture.file.info, channels_of(spaces::kOklab));
  RoadOptions road = road_for(picture, options_, context);
  road.halo = plan.halo();
  const std::vector<std::size_t>& class_of = samples.class_of;
  Added added{std::vector<std::uint64_t>(class_of.size()), 0, {}, {}};
  travel(
      *picture.file.rows, road,
      [&] { return Worker(*this, picture, plan, look ? &*look : nullptr, samples, preview); },
      [&](const Band& band) {
        added.left_out += band.left_out;
        added.colors += band.colors;
        for (std::size_t c = 0; c < class_of.size(); ++c)
          added.counts[c] += band.training.added(c) + band.held.added(c);
        added.density.insert(added.density.end(), band.density.begin(), band.density.end());
        const std::lock_guard lock(mutex_);
        training_.add(band.training, class_of);
        held_.add(band.held, class_of);
      });
  return added;
}

void SamplePixels::add(const SampleTable& kept, const std::vector<std::size_t>& class_of) {
  const std::lock_guard lock(mutex_);
  training_.add(kept, class_of);
}

void SamplePixels::finish() {
  training_.join_equal_rows();
  held_.join_equal_rows();
}

}  // namespace chalcedony
