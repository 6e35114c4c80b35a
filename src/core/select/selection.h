// Runs a selection over Blocks.
#ifndef CHALCEDONY_CORE_SELECT_SELECTION_H_
#define CHALCEDONY_CORE_SELECT_SELECTION_H_

#include <cstddef>
#include <cstdint>
#include <deque>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/pixel/block.h"
#include "core/select/expression.h"

namespace chalcedony {

/// One for each thread. Truth has three values (Kleene): a test on a missing hue or on a division
/// by zero is missing, `not` keeps it missing, `and` and `or` take it over unless the other side
/// decides.
class Selection {
 public:
  /// `first`: where the channels of the expression begin in the list that is evaluated.
  explicit Selection(const Expression& expression, std::size_t first = 0);

  /// 1 for every pixel of the Block whose test is true, else 0; counted or not. `channels` holds
  /// the evaluated channels of the expression, in its order. Good until the next call.
  const std::uint8_t* select(const Block& block, const ChannelEvaluator& channels);

 private:
  using Truth = std::vector<std::uint8_t>;  // 0 no, 1 missing, 2 yes

  const float* values_of(const Formula& formula, const ChannelEvaluator& channels, std::size_t n);
  void evaluate(const TestNode& node, const ChannelEvaluator& channels, std::size_t n, Truth& out);
  void compare(const TestNode& node, const float* value, std::size_t n, Truth& out);

  /// Room that is not in use yet by this evaluation.
  Truth& more_truth();

  const Expression* expression_;
  std::size_t first_;
  Truth truth_;
  FormulaEvaluator formulas_;
  std::deque<Truth> truths_;  // do not move while more are made
  std::size_t used_truths_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_SELECT_SELECTION_H_
