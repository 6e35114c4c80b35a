#include "core/select/doubtful_limits.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include "core/degrees.h"

namespace chalcedony {
namespace {

bool equals(double a, double b) { return std::abs(a - b) < 1e-9; }

/// What a whole circle of hues that ends at this value is counted to; 0 for none of the usual ones.
double circle_ending_at(double end) {
  if (equals(end, 179) || equals(end, 180)) return 180;
  if (equals(end, 239) || equals(end, 240)) return 240;
  return equals(end, 255) ? 255 : 0;
}

/// The highest end of all limits.
double highest_of(const std::vector<Limits>& all) {
  double highest = 0;
  for (const Limits& one : all)
    highest = std::max({highest, one.low.value_or(0), one.high.value_or(0)});
  return highest;
}

/// A part of one, where shares or 0-255 are meant: `0.4`, `0.2..1`.
bool looks_like_part_of_one(const Limits& limits) {
  const double most = limits.high.value_or(limits.low.value_or(0));
  const auto broken = [](const std::optional<double>& v) {
    return v && *v > 0 && *v < 1 && !equals(*v, std::round(*v));
  };
  // Below a small limit lies what is black or gray, which people do ask for.
  return limits.low && most <= 1 && (broken(limits.low) || broken(limits.high));
}

/// What the circle of hues seems to be counted to; 0 for as it is.
double circle_of(const std::vector<Limits>& all) {
  const bool from_zero = std::any_of(all.begin(), all.end(), [](const Limits& one) {
    return one.low && one.high && equals(*one.low, 0);
  });
  const double circle = circle_ending_at(highest_of(all));
  return from_zero || equals(circle, 255) ? circle : 0;
}

/// Where the channel seems to end; 0 for as it does.
double counted_to(const Channel& channel, const Limits& limits, const std::vector<Limits>& beside) {
  const ChannelInfo& info = channel.info();
  if (info.low < 0) return 0;
  if (info.high > 1 && looks_like_part_of_one(limits)) return 1;
  if (channel.is_hue()) return limits.low && limits.high ? circle_of(beside) : 0;
  const double most = highest_of({limits});
  for (const double end : {100.0, 255.0})
    if (end > info.high && most > info.high && most <= end) return end;
  return 0;
}

/// Whether no value from the lower to the upper end of the channel's usual range lies within.
bool outside(const ChannelInfo& info, const Limits& limits) {
  return (limits.low && *limits.low > info.high) || (limits.high && *limits.high < info.low);
}

/// Whether no value leaves the usual range: those of hues, and of what is made of clipped sRGB.
bool keeps_its_range(const Channel& channel) {
  const Space* space = channel.space;
  while (space != &spaces::kSrgbClipped && !space->parent.empty())
    space = find_space(space->parent);
  return channel.is_hue() || space == &spaces::kSrgbClipped;
}

/// Whether an interval of a hue leaves the circle.
bool runs_on(const Channel& channel, const Limits& limits) {
  return channel.is_hue() && limits.low && limits.high &&
         (*limits.low < 0 || *limits.high > channel.info().high);
}

/// A test of one channel against numbers.
struct SimpleTest {
  const TestNode* node;
  std::size_t channel;
  Limits limits;
};

std::optional<double> number_of(const Formula& formula) {
  if (formula.kind == Formula::Kind::kNumber) return formula.number;
  if (formula.kind == Formula::Kind::kNegate && formula.left->kind == Formula::Kind::kNumber)
    return -formula.left->number;
  return std::nullopt;
}

std::optional<SimpleTest> simple_test(const TestNode& node) {
  const auto is_channel = [](const std::unique_ptr<Formula>& formula) {
    return formula && formula->kind == Formula::Kind::kChannel;
  };
  if (node.kind == TestNode::Kind::kInside && is_channel(node.value))
    return SimpleTest{&node, node.value->channel, {node.low, node.high}};
  const bool turned = is_channel(node.limit);
  if (!node.limit || is_channel(node.value) == turned) return std::nullopt;
  const std::optional<double> number = number_of(turned ? *node.value : *node.limit);
  if (!number || node.kind == TestNode::Kind::kNotEqual) return std::nullopt;
  const std::size_t channel = turned ? node.limit->channel : node.value->channel;
  if (node.kind == TestNode::Kind::kEqual) return SimpleTest{&node, channel, {number, number}};
  const bool above = (node.kind == TestNode::Kind::kGreater ||
                      node.kind == TestNode::Kind::kGreaterEqual) != turned;
  return SimpleTest{&node, channel,
                    above ? Limits{number, std::nullopt} : Limits{std::nullopt, number}};
}

void gather(const TestNode& node, std::vector<SimpleTest>& tests) {
  if (const auto test = simple_test(node)) tests.push_back(*test);
  if (node.left) gather(*node.left, tests);
  if (node.right) gather(*node.right, tests);
}

/// To three digits.
std::string short_number(double value) {
  char text[32];
  const auto end = std::to_chars(text, text + sizeof text, value, std::chars_format::general, 3);
  return {text, end.ptr};
}

/// The text of a test with its numbers brought to the channel's unit, or to its circle.
std::string test_instead(const SimpleTest& test, const Channel& channel,
                         const DoubtfulLimits& doubt) {
  const Limits limits = limits_instead(channel, test.limits, doubt);
  if (test.node->kind == TestNode::Kind::kInside)
    return channel.name() + " in " + short_number(*limits.low) + ".." + short_number(*limits.high);
  if (test.node->kind == TestNode::Kind::kEqual)
    return channel.name() + " = " + short_number(*limits.low);
  const bool open =
      test.node->kind == TestNode::Kind::kGreater || test.node->kind == TestNode::Kind::kLess;
  const std::string sign = std::string(limits.low ? ">" : "<") + (open ? " " : "= ");
  return channel.name() + " " + sign + short_number(limits.low.value_or(limits.high.value_or(0)));
}

}  // namespace

Limits limits_instead(const Channel& channel, const Limits& limits, const DoubtfulLimits& doubt) {
  const double end = channel.info().high;
  if (doubt.runs_on && *limits.high - *limits.low >= end) return {0.0, end};
  const double scale = doubt.counted_to > 0 ? end / doubt.counted_to : 1;
  const auto meant = [&](std::optional<double> limit) {
    if (limit) *limit = doubt.runs_on ? on_circle(*limit) : *limit * scale;
    return limit;
  };
  return {meant(limits.low), meant(limits.high)};
}

std::optional<DoubtfulLimits> doubt_about(const Channel& channel, const Limits& limits,
                                          const std::vector<Limits>& beside) {
  if (!channel.space) return std::nullopt;
  DoubtfulLimits doubt;
  doubt.outside = outside(channel.info(), limits);
  doubt.never = doubt.outside && keeps_its_range(channel);
  doubt.runs_on = runs_on(channel, limits);
  doubt.counted_to = doubt.runs_on ? 0 : counted_to(channel, limits, beside);
  if (!doubt.outside && doubt.counted_to <= 0 && !doubt.runs_on) return std::nullopt;
  return doubt;
}

std::vector<DoubtfulTest> doubtful_tests(const Expression& selection) {
  std::vector<SimpleTest> tests;
  gather(*selection.test, tests);
  std::vector<DoubtfulTest> doubtful;
  for (const SimpleTest& test : tests) {
    const Channel& channel = selection.channels[test.channel];
    std::vector<Limits> beside;
    for (const SimpleTest& other : tests)
      if (other.channel == test.channel) beside.push_back(other.limits);
    const auto doubt = doubt_about(channel, test.limits, beside);
    if (!doubt) continue;
    std::string text = selection.text.substr(test.node->from, test.node->to - test.node->from);
    while (text.ends_with(' ')) text.pop_back();
    const bool meant = doubt->counted_to > 0 || doubt->runs_on;
    doubtful.push_back({text, channel, *doubt, meant ? test_instead(test, channel, *doubt) : ""});
  }
  return doubtful;
}

}  // namespace chalcedony
