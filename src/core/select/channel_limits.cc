#include "core/select/channel_limits.h"

#include <algorithm>
#include <string>

#include "core/error.h"

namespace chalcedony {
namespace {

class LimitsReader {
 public:
  explicit LimitsReader(const Expression& expression) : expression_(expression) {}

  std::vector<ChannelLimits> read() {
    add(*expression_.test);
    return std::move(limits_);
  }

 private:
  void add(const TestNode& node) {
    if (node.kind == TestNode::Kind::kAnd) {
      add(*node.left);
      add(*node.right);
      return;
    }
    add_limits(node, limits_in(node));
  }

  /// The ends that a test sets.
  ChannelLimits limits_in(const TestNode& node) const {
    using Kind = TestNode::Kind;
    const bool inside = node.kind == Kind::kInside;
    const bool one_sided = node.kind == Kind::kGreaterEqual || node.kind == Kind::kLessEqual;
    if (!(inside || one_sided) || node.value->kind != Formula::Kind::kChannel ||
        (one_sided && !is_number(*node.limit)))
      refuse(node);
    ChannelLimits found{expression_.channels[node.value->channel], {}, {}};
    if (inside || node.kind == Kind::kGreaterEqual)
      found.low = inside ? node.low : number_of(*node.limit);
    if (inside || node.kind == Kind::kLessEqual)
      found.high = inside ? node.high : number_of(*node.limit);
    return found;
  }

  void add_limits(const TestNode& node, const ChannelLimits& found) {
    const auto at = std::find_if(limits_.begin(), limits_.end(), [&](const ChannelLimits& one) {
      return one.channel == found.channel;
    });
    if (at == limits_.end()) {
      limits_.push_back(found);
      return;
    }
    if ((found.low && at->low) || (found.high && at->high))
      throw UsageError("'" + text_of(node) + "' limits " + found.channel.name() + " once more",
                       "give each end of a channel once");
    if (found.low) at->low = found.low;
    if (found.high) at->high = found.high;
  }

  /// A number, or one with a minus before it.
  static bool is_number(const Formula& formula) {
    if (formula.kind == Formula::Kind::kNegate) return is_number(*formula.left);
    return formula.kind == Formula::Kind::kNumber;
  }
  static double number_of(const Formula& formula) {
    return formula.kind == Formula::Kind::kNegate ? -number_of(*formula.left) : formula.number;
  }

  /// Of a test that has no place of its own all of the selection.
  std::string text_of(const TestNode& node) const {
    return node.to > node.from ? expression_.text.substr(node.from, node.to - node.from)
                               : expression_.text;
  }
  [[noreturn]] void refuse(const TestNode& node) const {
    throw UsageError("'" + text_of(node) + "' is not made of limits of channels alone",
                     "join intervals, >= and <= by 'and', as in \"hsv.h in 340..20 and hsv.s >= "
                     "50\"");
  }

  const Expression& expression_;
  std::vector<ChannelLimits> limits_;
};

}  // namespace

std::vector<ChannelLimits> limits_of(const Expression& expression) {
  return LimitsReader(expression).read();
}

}  // namespace chalcedony
