#include "core/channel/formula.h"

#include <algorithm>
#include <limits>
#include <utility>

#include "core/planes.h"

namespace chalcedony {
namespace {

template <class Compute>
void combine(const float* left, const float* right, std::size_t n, float* __restrict out,
             Compute compute) {
  for (std::size_t i = 0; i < n; ++i) out[i] = compute(left[i], right[i]);
}

}  // namespace

std::unique_ptr<Formula> join(Formula::Kind kind, std::unique_ptr<Formula> left,
                              std::unique_ptr<Formula> right) {
  auto formula = std::make_unique<Formula>();
  formula->kind = kind;
  formula->left = std::move(left);
  formula->right = std::move(right);
  return formula;
}

float* FormulaEvaluator::room() {
  if (used_ == values_.size()) values_.emplace_back(kBlockPixels + kPlanePadding);
  return values_[used_++].data();
}

const float* FormulaEvaluator::evaluate(const Formula& formula, const ChannelValues& channels,
                                        std::size_t n) {
  using Kind = Formula::Kind;
  if (formula.kind == Kind::kChannel) return channels(formula.channel);
  float* const out = room();
  if (formula.kind == Kind::kNumber) {
    std::fill_n(out, n, static_cast<float>(formula.number));
    return out;
  }
  const float* const left = evaluate(*formula.left, channels, n);
  if (formula.kind == Kind::kNegate) {
    for (std::size_t i = 0; i < n; ++i) out[i] = -left[i];
    return out;
  }
  const float* const right = evaluate(*formula.right, channels, n);
  constexpr float kNone = std::numeric_limits<float>::quiet_NaN();
  if (formula.kind == Kind::kAdd) {
    combine(left, right, n, out, [](float a, float b) { return a + b; });
  } else if (formula.kind == Kind::kSubtract) {
    combine(left, right, n, out, [](float a, float b) { return a - b; });
  } else if (formula.kind == Kind::kMultiply) {
    combine(left, right, n, out, [](float a, float b) { return a * b; });
  } else {
    combine(left, right, n, out, [=](float a, float b) { return b == 0 ? kNone : a / b; });
  }
  return out;
}

}  // namespace chalcedony
