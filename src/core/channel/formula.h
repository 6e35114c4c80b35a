// Arithmetic on channels: `(file.3 - file.0) / (file.3 + file.0)`.
#ifndef CHALCEDONY_CORE_CHANNEL_FORMULA_H_
#define CHALCEDONY_CORE_CHANNEL_FORMULA_H_

#include <cstddef>
#include <deque>
#include <functional>
#include <memory>
#include <vector>

namespace chalcedony {

/// A number for each pixel: a constant, a channel, or arithmetic on them.
struct Formula {
  enum class Kind { kNumber, kChannel, kAdd, kSubtract, kMultiply, kDivide, kNegate };
  Kind kind = Kind::kNumber;
  double number = 0;
  std::size_t channel = 0;  // place in the list of channels it was read with
  std::unique_ptr<Formula> left, right;
};

/// Arithmetic on two formulas; of kNegate on the first.
std::unique_ptr<Formula> join(Formula::Kind kind, std::unique_ptr<Formula> left,
                              std::unique_ptr<Formula> right);

/// Computes formulas pixel by pixel. One for each thread.
class FormulaEvaluator {
 public:
  /// The values of channel `place`.
  using ChannelValues = std::function<const float*(std::size_t place)>;

  /// The values of n pixels, at most kBlockPixels: those of its channel, or computed into room of
  /// ours, which is good until release(). A division by zero gives a missing value (NaN), and so
  /// does every step with one.
  const float* evaluate(const Formula& formula, const ChannelValues& channels, std::size_t n);

  /// Room for the values of a Block.
  float* room();
  /// All room can be used again.
  void release() { used_ = 0; }

 private:
  std::deque<std::vector<float>> values_;  // do not move while more are made
  std::size_t used_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CHANNEL_FORMULA_H_
