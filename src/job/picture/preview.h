// Small copies of pictures for figures, gathered while the picture passes by.
#ifndef CHALCEDONY_JOB_PICTURE_PREVIEW_H_
#define CHALCEDONY_JOB_PICTURE_PREVIEW_H_

#include <memory>
#include <optional>

#include "core/channel/channel_plan.h"
#include "core/pixel/thumbnail.h"
#include "core/pixel/uncounted.h"
#include "job/picture/tallies.h"

namespace chalcedony {

/// The largest previews a figure can use, in pixels of the page.
inline constexpr std::uint32_t kPreviewWidth = 640, kPreviewHeight = 640;

/// Empty sums for a preview of a picture of this size; next to nothing when it is not wanted.
inline ThumbnailSums empty_preview(const RasterShape& shape, bool wanted,
                                   std::uint32_t most_width = kPreviewWidth,
                                   std::uint32_t most_height = kPreviewHeight) {
  return ThumbnailSums(shape.width, wanted ? shape.height : 1, most_width, most_height);
}

/// What all threads have gathered.
inline Thumbnail merged_thumbnail(Tallies<ThumbnailSums>& sums) {
  return sums.merged([](ThumbnailSums& total, const ThumbnailSums& one) { total.merge(one); })
      .thumbnail();
}

/// Collects a preview of a picture as it is seen, on all threads. Does nothing when not wanted.
class Preview {
 public:
  Preview(const PictureInfo& info, bool wanted, std::uint32_t most_width = kPreviewWidth,
          std::uint32_t most_height = kPreviewHeight)
      : plan_(info.shown(), channels_of(spaces::kSrgb)),
        wanted_(wanted),
        sums_(empty_preview(info.shape, wanted, most_width, most_height)) {}

  bool wanted() const { return wanted_; }

  /// One for each thread.
  class Collector {
   public:
    explicit Collector(Preview& preview) : preview_(&preview), srgb_(preview.plan_) {}
    /// Pixels that do not count are shown faded.
    void add(const Block& block) {
      if (!preview_->wanted_) return;
      srgb_.evaluate(block);
      ConstPlanes shown = srgb_.channels(0);
      if (block.counted) {
        fade_uncounted(block, shown, faded_.planes());
        shown = read_only(faded_.planes());
      }
      preview_->sums_.local().add(block, shown);
    }

   private:
    Preview* preview_;
    ChannelEvaluator srgb_;
    PlaneBuffer faded_;
  };

  Thumbnail thumbnail() { return merged_thumbnail(sums_); }

 private:
  ChannelPlan plan_;
  bool wanted_;
  Tallies<ThumbnailSums> sums_;
};

/// A thread's collector, where there is a preview that is wanted.
inline std::optional<Preview::Collector> collector_for(Preview* preview) {
  if (!preview || !preview->wanted()) return std::nullopt;
  return Preview::Collector(*preview);
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_PREVIEW_H_
