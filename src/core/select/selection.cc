#include "core/select/selection.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/color/ciede2000.h"

namespace chalcedony {
namespace {

constexpr std::uint8_t kNo = 0, kMissing = 1, kYes = 2;

/// Missing where the value is not a number, else what `test` says.
template <class Test>
void decide(const std::vector<float>& value, std::size_t n, std::vector<std::uint8_t>& out,
            Test test) {
  for (std::size_t i = 0; i < n; ++i)
    out[i] = value[i] != value[i] ? kMissing : test(value[i]) ? kYes : kNo;
}

}  // namespace

Selection::Selection(const Expression& expression)
    : expression_(&expression), truth_(kBlockPixels) {}

const std::uint8_t* Selection::select(const Block& block, const ChannelEvaluator& channels) {
  evaluate(*expression_->test, channels, block.size, truth_);
  for (std::size_t i = 0; i < block.size; ++i) truth_[i] = truth_[i] == kYes;
  return truth_.data();
}

void Selection::evaluate(const ValueNode& node, const ChannelEvaluator& channels, std::size_t n,
                         Values& out) const {
  using Kind = ValueNode::Kind;
  out.resize(kBlockPixels);
  if (node.kind == Kind::kNumber) {
    std::fill_n(out.begin(), n, static_cast<float>(node.number));
    return;
  }
  if (node.kind == Kind::kChannel) {
    std::copy_n(channels.channel(node.channel), n, out.begin());
    return;
  }
  evaluate(*node.left, channels, n, out);
  if (node.kind == Kind::kNegate) {
    for (std::size_t i = 0; i < n; ++i) out[i] = -out[i];
    return;
  }
  Values right;
  evaluate(*node.right, channels, n, right);
  constexpr float kNone = std::numeric_limits<float>::quiet_NaN();
  for (std::size_t i = 0; i < n; ++i) {
    switch (node.kind) {
      case Kind::kAdd:
        out[i] += right[i];
        break;
      case Kind::kSubtract:
        out[i] -= right[i];
        break;
      case Kind::kMultiply:
        out[i] *= right[i];
        break;
      default:
        out[i] = right[i] == 0 ? kNone : out[i] / right[i];
    }
  }
}

void Selection::evaluate(const TestNode& node, const ChannelEvaluator& channels, std::size_t n,
                         Truth& out) const {
  using Kind = TestNode::Kind;
  out.resize(kBlockPixels);
  if (node.kind == Kind::kNear) {
    const ConstPlanes lab = channels.channels(node.first_lab_channel);
    Values away(kBlockPixels + kPlanePadding);
    ciede2000_to(node.lab, lab, n, away.data());
    const float most = static_cast<float>(node.distance);
    for (std::size_t i = 0; i < n; ++i) out[i] = away[i] <= most ? kYes : kNo;
    return;
  }
  if (node.left) {
    evaluate(*node.left, channels, n, out);
    if (node.kind == Kind::kNot) {
      for (std::size_t i = 0; i < n; ++i) out[i] = static_cast<std::uint8_t>(kYes - out[i]);
      return;
    }
    Truth right;
    evaluate(*node.right, channels, n, right);
    for (std::size_t i = 0; i < n; ++i)
      out[i] = node.kind == Kind::kAnd ? std::min(out[i], right[i]) : std::max(out[i], right[i]);
    return;
  }
  Values value;
  evaluate(*node.value, channels, n, value);
  const float near = static_cast<float>(node.tolerance);
  if (node.kind == Kind::kInside) {
    const float low = static_cast<float>(node.low) - near;
    const float high = static_cast<float>(node.high) + near;
    if (node.wraps) {
      decide(value, n, out, [=](float v) { return v >= low || v <= high; });
    } else {
      decide(value, n, out, [=](float v) { return v >= low && v <= high; });
    }
    return;
  }
  // Comparisons are made on the difference, so that both sides may be arithmetic.
  Values limit;
  evaluate(*node.limit, channels, n, limit);
  for (std::size_t i = 0; i < n; ++i) value[i] -= limit[i];
  switch (node.kind) {
    case Kind::kLess:
      return decide(value, n, out, [=](float v) { return v < -near; });
    case Kind::kLessEqual:
      return decide(value, n, out, [=](float v) { return v <= near; });
    case Kind::kGreater:
      return decide(value, n, out, [=](float v) { return v > near; });
    case Kind::kGreaterEqual:
      return decide(value, n, out, [=](float v) { return v >= -near; });
    case Kind::kEqual:
      return decide(value, n, out, [=](float v) { return std::abs(v) <= near; });
    default:
      return decide(value, n, out, [=](float v) { return std::abs(v) > near; });
  }
}

}  // namespace chalcedony
