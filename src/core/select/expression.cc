// A recursive-descent parser, one function a level of binding; arithmetic is read by FormulaReader.
#include "core/select/expression.h"

#include <algorithm>
#include <string_view>
#include <utility>

#include "core/channel/formula_reader.h"
#include "core/letter_case.h"

namespace chalcedony {
namespace {

using TestPointer = std::unique_ptr<TestNode>;

constexpr double kEqualPart = 1e-6;  // of the channel's range: contract on limits

class Parser {
 public:
  Parser(std::string_view text, const ChannelNames& names)
      : reader_(text, "selection", "hsv.h in 200..260 and hsv.s >= 40", names,
                expression_.channels) {
    expression_.text = text;
  }

  Expression parse() {
    expression_.test = alternative();
    if (!reader_.at_end()) reader_.fail("'and', 'or' or the end");
    return std::move(expression_);
  }

 private:
  static TestPointer join(TestNode::Kind kind, TestPointer left, TestPointer right) {
    auto node = std::make_unique<TestNode>();
    node->kind = kind;
    node->left = std::move(left);
    node->right = std::move(right);
    return node;
  }

  TestPointer alternative() {
    TestPointer left = conjunction();
    while (reader_.take_word("or"))
      left = join(TestNode::Kind::kOr, std::move(left), conjunction());
    return left;
  }
  TestPointer conjunction() {
    TestPointer left = negation();
    while (reader_.take_word("and")) left = join(TestNode::Kind::kAnd, std::move(left), negation());
    return left;
  }
  TestPointer negation() {
    reader_.deeper();
    TestPointer result =
        reader_.take_word("not") ? join(TestNode::Kind::kNot, negation(), nullptr) : primary_test();
    reader_.less_deep();
    return result;
  }

  /// `( test )` and `( value ) > ...` begin alike; what stands inside tells them apart.
  TestPointer primary_test() {
    reader_.skip_space();
    if (reader_.text().substr(reader_.place()).starts_with('(') && bracket_holds_test()) {
      reader_.expect("(");
      TestPointer inside = alternative();
      reader_.expect(")");
      return inside;
    }
    if (reader_.take_word("near")) return near_test();
    return comparison();
  }
  /// Whether the bracket that opens here holds a comparison, or never closes.
  bool bracket_holds_test() const {
    const std::string_view text = reader_.text();
    int depth = 0;
    for (std::size_t i = reader_.place(); i < text.size(); ++i) {
      if (text[i] == '(') ++depth;
      if (text[i] == ')' && --depth == 0) return false;
      if (std::string_view("<>=!").find(text[i]) != std::string_view::npos) return true;
      const std::string_view rest = text.substr(i);
      if (same_letters(rest.substr(0, 4), " in ") || same_letters(rest.substr(0, 5), "near("))
        return true;
    }
    return true;
  }

  TestPointer near_test() {
    reader_.expect("(");
    auto node = std::make_unique<TestNode>();
    node->kind = TestNode::Kind::kNear;
    node->lab = css_color(color_text()).in(spaces::kLab);
    reader_.expect(",");
    node->distance = reader_.number();
    reader_.expect(")");
    node->first_lab_channel = lab_channels();
    return node;
  }
  /// Up to the comma or the bracket that is not of the color itself.
  std::string_view color_text() {
    reader_.skip_space();
    const std::string_view text = reader_.text();
    const std::size_t start = reader_.place();
    std::size_t at = start;
    for (int depth = 0; at < text.size() && (depth > 0 || (text[at] != ',' && text[at] != ')'));
         ++at)
      depth += text[at] == '(' ? 1 : text[at] == ')' ? -1 : 0;
    reader_.move_to(at);
    return text.substr(start, at - start);
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
    reader_.skip_space();
    const std::size_t from = reader_.place();
    TestPointer node = value_test();
    node->from = from;
    node->to = reader_.place();
    return node;
  }
  TestPointer value_test() {
    auto node = std::make_unique<TestNode>();
    node->value = reader_.sum();
    if (reader_.take_word("in")) {
      node->kind = TestNode::Kind::kInside;
      const std::size_t start = reader_.place();
      node->low = reader_.number();
      reader_.expect("..");
      node->high = reader_.number();
      node->tolerance = tolerance_of(*node->value);
      if (node->low > node->high) {
        node->wraps = is_hue(*node->value);
        if (!node->wraps) {
          reader_.move_to(start);
          reader_.skip_space();
          reader_.fail("the lower end of the interval first; only a hue runs through 360 to 0");
        }
      }
      return node;
    }
    using Kind = TestNode::Kind;
    if (reader_.take(">="))
      node->kind = Kind::kGreaterEqual;
    else if (reader_.take("<="))
      node->kind = Kind::kLessEqual;
    else if (reader_.take("!="))
      node->kind = Kind::kNotEqual;
    else if (reader_.take(">"))
      node->kind = Kind::kGreater;
    else if (reader_.take("<"))
      node->kind = Kind::kLess;
    else if (reader_.take("==") || reader_.take("="))
      node->kind = Kind::kEqual;
    else
      reader_.fail("a comparison (< <= > >= = != or 'in')");
    node->limit = reader_.sum();
    node->tolerance = std::max(tolerance_of(*node->value), tolerance_of(*node->limit));
    return node;
  }

  bool is_hue(const Formula& value) const {
    return value.kind == Formula::Kind::kChannel && expression_.channels[value.channel].is_hue();
  }
  double tolerance_of(const Formula& value) const {
    if (value.kind == Formula::Kind::kChannel)
      return equality_tolerance(expression_.channels[value.channel]);
    double most = 0;
    if (value.left) most = std::max(most, tolerance_of(*value.left));
    if (value.right) most = std::max(most, tolerance_of(*value.right));
    return most;
  }

  Expression expression_;
  FormulaReader reader_;
};

}  // namespace

double equality_tolerance(const Channel& channel) {
  if (channel.is_stored()) return 0;
  const ChannelInfo& info = channel.info();
  return kEqualPart * (info.high - info.low);
}

Expression parse_expression(std::string_view text, const ChannelNames& names) {
  return Parser(text, names).parse();
}

}  // namespace chalcedony
