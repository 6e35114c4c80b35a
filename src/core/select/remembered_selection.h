// A selection that is asked once for each color of a picture.
#ifndef CHALCEDONY_CORE_SELECT_REMEMBERED_SELECTION_H_
#define CHALCEDONY_CORE_SELECT_REMEMBERED_SELECTION_H_

#include <cstdint>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/pixel/color_memo.h"
#include "core/select/selection.h"

namespace chalcedony {

/// What a selection said of 8-bit colors; threads share it.
using SelectedColors = ColorMemo;

/// Whether looking a color up is worth it: the picture is no small one; its sRGB colors, and
/// nothing else of its pixels, decide; the selection measures color differences, which take longer
/// than looking; and no hue is asked for, of which the share of near-gray pixels would be told.
bool remembers_colors(const PictureInfo& info, const Expression& expression);

/// Selects in Blocks of one picture for which remembers_colors() holds. One for each thread.
class RememberedSelection {
 public:
  /// `plan`: the channels of the expression, in its order; there may be more behind them.
  RememberedSelection(const Expression& expression, const ChannelPlan& plan, SelectedColors& known);

  /// As Selection::select.
  const std::uint8_t* select(const Block& block);

 private:
  std::uint32_t stored_channels_;
  ChannelEvaluator channels_;
  Selection selection_;
  SelectedColors& known_;
  PickedPixels picked_;
  FoundColors found_;
  std::vector<std::uint8_t> selected_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_REMEMBERED_SELECTION_H_
