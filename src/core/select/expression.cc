// A recursive-descent parser, one function a level of binding.
#include "core/select/expression.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <optional>

#include "core/error.h"
#include "core/letter_case.h"
#include "core/nearest_name.h"

namespace chalcedony {
namespace {

using ValuePointer = std::unique_ptr<ValueNode>;
using TestPointer = std::unique_ptr<TestNode>;

constexpr double kEqualPart = 1e-6;  // of the channel's range: contract on limits

bool is_name_character(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) || c == '.' || c == '_' || c == '-';
}

class Parser {
 public:
  explicit Parser(std::string_view text) : text_(text), names_(channel_names()) {
    expression_.text = text;
  }

  Expression parse() {
    expression_.test = alternative();
    skip_space();
    if (at_ < text_.size()) fail("'and', 'or' or the end");
    return std::move(expression_);
  }

 private:
  [[noreturn]] void fail(const std::string& expected) const {
    const std::string found =
        at_ < text_.size() ? "'" + std::string(text_.substr(at_, 12)) + "'" : "the end";
    throw UsageError("selection, character " + std::to_string(at_ + 1) + ": expected " + expected +
                         ", found " + found,
                     "as in \"hsv.h in 200..260 and hsv.s >= 40\"");
  }

  void skip_space() {
    while (at_ < text_.size() && std::isspace(static_cast<unsigned char>(text_[at_]))) ++at_;
  }
  bool take(std::string_view token) {
    skip_space();
    if (!text_.substr(at_).starts_with(token)) return false;
    at_ += token.size();
    return true;
  }
  bool take_word(std::string_view word) {
    skip_space();
    const std::size_t end = at_ + word.size();
    if (end > text_.size() || !same_letters(text_.substr(at_, word.size()), word)) return false;
    if (end < text_.size() && is_name_character(text_[end])) return false;
    at_ = end;
    return true;
  }
  void expect(std::string_view token) {
    if (!take(token)) fail("'" + std::string(token) + "'");
  }

  static TestPointer join(TestNode::Kind kind, TestPointer left, TestPointer right) {
    auto node = std::make_unique<TestNode>();
    node->kind = kind;
    node->left = std::move(left);
    node->right = std::move(right);
    return node;
  }

  TestPointer alternative() {
    TestPointer left = conjunction();
    while (take_word("or")) left = join(TestNode::Kind::kOr, std::move(left), conjunction());
    return left;
  }
  TestPointer conjunction() {
    TestPointer left = negation();
    while (take_word("and")) left = join(TestNode::Kind::kAnd, std::move(left), negation());
    return left;
  }
  TestPointer negation() {
    if (++depth_ > 200) fail("fewer brackets and 'not's within one another");
    TestPointer result =
        take_word("not") ? join(TestNode::Kind::kNot, negation(), nullptr) : primary_test();
    --depth_;
    return result;
  }

  /// `( test )` and `( value ) > ...` begin alike; what stands inside tells them apart.
  TestPointer primary_test() {
    skip_space();
    if (at_ < text_.size() && text_[at_] == '(' && bracket_holds_test()) {
      expect("(");
      TestPointer inside = alternative();
      expect(")");
      return inside;
    }
    if (take_word("near")) return near_test();
    return comparison();
  }
  /// Whether the bracket that opens here holds a comparison, or never closes.
  bool bracket_holds_test() const {
    int depth = 0;
    for (std::size_t i = at_; i < text_.size(); ++i) {
      if (text_[i] == '(') ++depth;
      if (text_[i] == ')' && --depth == 0) return false;
      if (std::string_view("<>=!").find(text_[i]) != std::string_view::npos) return true;
      const std::string_view rest = text_.substr(i);
      if (same_letters(rest.substr(0, 4), " in ") || same_letters(rest.substr(0, 5), "near("))
        return true;
    }
    return true;
  }

  TestPointer near_test() {
    expect("(");
    skip_space();
    const std::size_t start = at_;
    int depth = 0;
    while (at_ < text_.size() && (depth > 0 || (text_[at_] != ',' && text_[at_] != ')'))) {
      depth += text_[at_] == '(' ? 1 : text_[at_] == ')' ? -1 : 0;
      ++at_;
    }
    auto node = std::make_unique<TestNode>();
    node->kind = TestNode::Kind::kNear;
    node->lab = css_color(text_.substr(start, at_ - start)).in(spaces::kLab);
    expect(",");
    node->distance = number();
    expect(")");
    node->first_lab_channel = lab_channels();
    return node;
  }
  std::size_t lab_channels() {
    const auto lab = channels_of(spaces::kLab);
    auto& all = expression_.channels;
    const auto found = std::search(all.begin(), all.end(), lab.begin(), lab.end());
    const auto index = static_cast<std::size_t>(found - all.begin());
    if (found == all.end()) all.insert(all.end(), lab.begin(), lab.end());
    return index;
  }

  TestPointer comparison() {
    auto node = std::make_unique<TestNode>();
    node->value = sum();
    if (take_word("in")) {
      node->kind = TestNode::Kind::kInside;
      const std::size_t start = at_;
      node->low = number();
      expect("..");
      node->high = number();
      node->tolerance = tolerance_of(*node->value);
      if (node->low > node->high) {
        node->wraps = is_hue(*node->value);
        if (!node->wraps) {
          at_ = start;
          skip_space();
          fail("the lower end of the interval first; only a hue runs through 360 to 0");
        }
      }
      return node;
    }
    using Kind = TestNode::Kind;
    if (take(">="))
      node->kind = Kind::kGreaterEqual;
    else if (take("<="))
      node->kind = Kind::kLessEqual;
    else if (take("!="))
      node->kind = Kind::kNotEqual;
    else if (take(">"))
      node->kind = Kind::kGreater;
    else if (take("<"))
      node->kind = Kind::kLess;
    else if (take("==") || take("="))
      node->kind = Kind::kEqual;
    else
      fail("a comparison (< <= > >= = != or 'in')");
    node->limit = sum();
    node->tolerance = std::max(tolerance_of(*node->value), tolerance_of(*node->limit));
    return node;
  }

  static ValuePointer join(ValueNode::Kind kind, ValuePointer left, ValuePointer right) {
    auto node = std::make_unique<ValueNode>();
    node->kind = kind;
    node->left = std::move(left);
    node->right = std::move(right);
    return node;
  }

  ValuePointer sum() {
    ValuePointer left = product();
    while (true) {
      if (take("+"))
        left = join(ValueNode::Kind::kAdd, std::move(left), product());
      else if (take("-"))
        left = join(ValueNode::Kind::kSubtract, std::move(left), product());
      else
        return left;
    }
  }
  ValuePointer product() {
    ValuePointer left = factor();
    while (true) {
      if (take("*"))
        left = join(ValueNode::Kind::kMultiply, std::move(left), factor());
      else if (take("/"))
        left = join(ValueNode::Kind::kDivide, std::move(left), factor());
      else
        return left;
    }
  }
  ValuePointer factor() {
    if (++depth_ > 200) fail("fewer brackets within one another");
    ValuePointer result;
    if (take("-")) {
      result = join(ValueNode::Kind::kNegate, factor(), nullptr);
    } else if (take("(")) {
      result = sum();
      expect(")");
    } else {
      skip_space();
      const char c = at_ < text_.size() ? text_[at_] : '\0';
      result = std::isalpha(static_cast<unsigned char>(c)) ? channel() : constant();
    }
    --depth_;
    return result;
  }
  ValuePointer constant() {
    auto node = std::make_unique<ValueNode>();
    node->number = unsigned_number("a channel or a number");
    return node;
  }

  /// A number ends before `..`, so `200..260` holds two.
  double unsigned_number(const std::string& expected) {
    skip_space();
    std::size_t end = at_;
    const auto digit = [&](std::size_t i) {
      return i < text_.size() && std::isdigit(static_cast<unsigned char>(text_[i]));
    };
    while (digit(end)) ++end;
    if (end < text_.size() && text_[end] == '.' && digit(end + 1)) {
      ++end;
      while (digit(end)) ++end;
    }
    double value = 0;
    const auto result = std::from_chars(text_.data() + at_, text_.data() + end, value);
    if (end == at_ || result.ec != std::errc()) fail(expected);
    at_ = end;
    return value;
  }
  double number() {
    const bool negative = take("-");
    const double size = unsigned_number("a number");
    return negative ? -size : size;
  }

  ValuePointer channel() {
    std::size_t end = at_;
    while (end < text_.size() && is_name_character(text_[end])) ++end;
    const std::string_view word = text_.substr(at_, end - at_);
    const std::string_view name = longest_known(word);
    if (name.empty()) {
      const auto nearest = nearest_name(word, names_);
      fail(nearest ? "a channel, such as '" + *nearest + "'"
                   : "a channel (a space and a channel of it, as in hsv.h or lab.a)");
    }
    auto node = std::make_unique<ValueNode>();
    node->kind = ValueNode::Kind::kChannel;
    node->channel = index_of(channel_named(name));
    at_ += name.size();
    return node;
  }
  /// The longest known channel name that begins `word` and ends where a name may end.
  std::string_view longest_known(std::string_view word) const {
    if (same_letters(word.substr(0, 5), "file.")) {
      std::size_t end = 5;
      while (end < word.size() && std::isdigit(static_cast<unsigned char>(word[end]))) ++end;
      return end > 5 && end == word.size() ? word : std::string_view();
    }
    std::string_view best;
    for (const std::string& name : names_)
      if (name.size() > best.size() && same_letters(word.substr(0, name.size()), name) &&
          (word.size() == name.size() || word[name.size()] == '-'))
        best = word.substr(0, name.size());
    return best;
  }
  std::size_t index_of(const Channel& channel) {
    auto& all = expression_.channels;
    const auto found = std::find(all.begin(), all.end(), channel);
    const auto index = static_cast<std::size_t>(found - all.begin());
    if (found == all.end()) all.push_back(channel);
    return index;
  }

  bool is_hue(const ValueNode& value) const {
    return value.kind == ValueNode::Kind::kChannel && expression_.channels[value.channel].is_hue();
  }
  double tolerance_of(const ValueNode& value) const {
    if (value.kind == ValueNode::Kind::kChannel) {
      const Channel& channel = expression_.channels[value.channel];
      if (channel.is_stored()) return 0;
      const ChannelInfo& info = channel.info();
      return kEqualPart * (info.high - info.low);
    }
    double most = 0;
    if (value.left) most = std::max(most, tolerance_of(*value.left));
    if (value.right) most = std::max(most, tolerance_of(*value.right));
    return most;
  }

  std::string_view text_;
  std::vector<std::string> names_;
  std::size_t at_ = 0;
  int depth_ = 0;
  Expression expression_;
};

}  // namespace

Expression parse_expression(std::string_view text) { return Parser(text).parse(); }

}  // namespace chalcedony
