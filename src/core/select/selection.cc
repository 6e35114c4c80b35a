#include "core/select/selection.h"

#include <algorithm>
#include <cmath>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

constexpr std::uint8_t kNo = 0, kMissing = 1, kYes = 2;

/// Missing where the value is not a number, else what `test` says. Without branches, so that it is
/// done for several pixels at once.
template <class Test>
void decide(const float* __restrict value, std::size_t n, std::uint8_t* __restrict out, Test test) {
  for (std::size_t i = 0; i < n; ++i)
    out[i] = static_cast<std::uint8_t>(kYes * static_cast<int>(test(value[i])) +
                                       kMissing * static_cast<int>(value[i] != value[i]));
}

}  // namespace

Selection::Selection(const Expression& expression, std::size_t first)
    : expression_(&expression), first_(first), truth_(kBlockPixels) {}

const std::uint8_t* Selection::select(const Block& block, const ChannelEvaluator& channels) {
  formulas_.release();
  used_truths_ = 0;
  evaluate(*expression_->test, channels, block.size, truth_);
  std::uint8_t* const truth = truth_.data();
  for (std::size_t i = 0; i < block.size; ++i) truth[i] = static_cast<std::uint8_t>(truth[i] >> 1);
  return truth;
}

Selection::Truth& Selection::more_truth() {
  if (used_truths_ == truths_.size()) truths_.emplace_back(kBlockPixels);
  return truths_[used_truths_++];
}

const float* Selection::values_of(const Formula& formula, const ChannelEvaluator& channels,
                                  std::size_t n) {
  return formulas_.evaluate(
      formula, [&](std::size_t place) { return channels.channel(first_ + place); }, n);
}

void Selection::evaluate(const TestNode& node, const ChannelEvaluator& channels, std::size_t n,
                         Truth& out) {
  using Kind = TestNode::Kind;
  if (node.kind == Kind::kNear) {
    const ConstPlanes lab = channels.channels(first_ + node.first_lab_channel);
    float* const away = formulas_.room();
    ciede2000_within(node.lab, lab, n, node.distance, away);
    const float most = static_cast<float>(node.distance);
    decide(away, n, out.data(), [=](float v) { return v <= most; });
    return;
  }
  if (!node.left) {
    const float* value = values_of(*node.value, channels, n);
    if (node.kind != Kind::kInside) {
      // Comparisons are made on the difference, so that both sides may be arithmetic.
      const float* const limit = values_of(*node.limit, channels, n);
      float* const difference = formulas_.room();
      for (std::size_t i = 0; i < n; ++i) difference[i] = value[i] - limit[i];
      value = difference;
    }
    return compare(node, value, n, out);
  }
  evaluate(*node.left, channels, n, out);
  if (node.kind == Kind::kNot) {
    for (std::size_t i = 0; i < n; ++i) out[i] = static_cast<std::uint8_t>(kYes - out[i]);
    return;
  }
  Truth& right = more_truth();
  evaluate(*node.right, channels, n, right);
  std::uint8_t* __restrict const to = out.data();
  const std::uint8_t* __restrict const from = right.data();
  if (node.kind == Kind::kAnd) {
    for (std::size_t i = 0; i < n; ++i) to[i] = std::min(to[i], from[i]);
  } else {
    for (std::size_t i = 0; i < n; ++i) to[i] = std::max(to[i], from[i]);
  }
}

void Selection::compare(const TestNode& node, const float* value, std::size_t n, Truth& out) {
  using Kind = TestNode::Kind;
  std::uint8_t* const to = out.data();
  const float near = static_cast<float>(node.tolerance);
  const float low = static_cast<float>(node.low) - near;
  const float high = static_cast<float>(node.high) + near;
  switch (node.kind) {
    case Kind::kInside:
      if (node.wraps)
        return decide(value, n, to, [=](float v) { return (v >= low) | (v <= high); });
      return decide(value, n, to, [=](float v) { return (v >= low) & (v <= high); });
    case Kind::kLess:
      return decide(value, n, to, [=](float v) { return v < -near; });
    case Kind::kLessEqual:
      return decide(value, n, to, [=](float v) { return v <= near; });
    case Kind::kGreater:
      return decide(value, n, to, [=](float v) { return v > near; });
    case Kind::kGreaterEqual:
      return decide(value, n, to, [=](float v) { return v >= -near; });
    case Kind::kEqual:
      return decide(value, n, to, [=](float v) { return std::abs(v) <= near; });
    default:
      return decide(value, n, to, [=](float v) { return std::abs(v) > near; });
  }
}

}  // namespace chalcedony
