// Labels that are asked for once for each color of a picture.
#ifndef CHALCEDONY_CORE_LEARN_REMEMBERED_LABELS_H_
#define CHALCEDONY_CORE_LEARN_REMEMBERED_LABELS_H_

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "core/channel/channel.h"
#include "core/learn/labeling.h"
#include "core/pixel/block.h"
#include "core/pixel/color_memo.h"
#include "core/pixel/raster.h"

namespace chalcedony {

/// Whether labels of so many classes that are made of these channels can be remembered: the
/// picture's sRGB colors, and nothing else of its pixels, decide, and there is room for them.
bool can_remember_labels(const PictureInfo& info, const std::vector<Channel>& channels,
                         std::size_t classes);

/// What was found of 8-bit colors; threads share it.
class VerdictsByColor {
 public:
  explicit VerdictsByColor(bool with_confidence);

  /// Looks up the colors of a Block; writes what is known to `verdicts`.
  void find(const Block& block, std::uint32_t channels, FoundColors& found, Verdicts& verdicts);
  /// Notes what was found of the unknown colors; `asked` holds them one after the other. The
  /// confidence is rounded to a 65535th.
  void note(const FoundColors& found, const Verdicts& asked);
  /// The confidence as it is remembered.
  static float remembered(float confidence);

 private:
  ColorMemo notes_;
  std::optional<NumberByColor<std::uint16_t>> confidences_;
};

/// Asks another labeler for colors that are not known yet. Labels must depend on nothing but a
/// pixel's 8-bit color.
class RememberingLabeler : public BlockLabeler {
 public:
  /// `stored_channels`: of a pixel as stored.
  RememberingLabeler(std::unique_ptr<BlockLabeler> asked, VerdictsByColor& known,
                     std::uint32_t stored_channels);

  const Verdicts& label(const Block& block) override;
  std::uint64_t take_clipped() override { return asked_->take_clipped(); }

 private:
  void ask_unknown(const Block& block);

  std::unique_ptr<BlockLabeler> asked_;
  VerdictsByColor& known_;
  std::uint32_t channels_;
  Verdicts verdicts_;
  FoundColors found_;
  PickedPixels picked_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_LEARN_REMEMBERED_LABELS_H_
