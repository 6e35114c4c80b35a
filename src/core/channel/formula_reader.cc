#include "core/channel/formula_reader.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <utility>

#include "core/channel/channel_hint.h"
#include "core/error.h"
#include "core/letter_case.h"

namespace chalcedony {
namespace {

using FormulaPointer = std::unique_ptr<Formula>;

constexpr int kDeepest = 200;

bool is_name_character(char c) {
  return std::isalnum(static_cast<unsigned char>(c)) || c == '.' || c == '_' || c == '-';
}

}  // namespace

FormulaReader::FormulaReader(std::string_view text, std::string what, std::string example,
                             const ChannelNames& known, std::vector<Channel>& channels)
    : text_(text),
      what_(std::move(what)),
      example_(std::move(example)),
      known_(known),
      channels_(channels),
      names_(channel_names(known)) {}

void FormulaReader::fail(const std::string& expected) const {
  const std::string found =
      at_ < text_.size() ? "'" + std::string(text_.substr(at_, 12)) + "'" : "the end";
  throw UsageError(what_ + ", character " + std::to_string(at_ + 1) + ": expected " + expected +
                       ", found " + found,
                   "as in \"" + example_ + "\"");
}

void FormulaReader::skip_space() {
  while (at_ < text_.size() && std::isspace(static_cast<unsigned char>(text_[at_]))) ++at_;
}

bool FormulaReader::at_end() {
  skip_space();
  return at_ == text_.size();
}

bool FormulaReader::take(std::string_view token) {
  skip_space();
  if (!text_.substr(at_).starts_with(token)) return false;
  at_ += token.size();
  return true;
}

bool FormulaReader::take_word(std::string_view word) {
  skip_space();
  const std::size_t end = at_ + word.size();
  if (end > text_.size() || !same_letters(text_.substr(at_, word.size()), word)) return false;
  if (end < text_.size() && is_name_character(text_[end])) return false;
  at_ = end;
  return true;
}

void FormulaReader::expect(std::string_view token) {
  if (!take(token)) fail("'" + std::string(token) + "'");
}

void FormulaReader::deeper() {
  if (++depth_ > kDeepest) fail("fewer brackets and the like within one another");
}

FormulaPointer FormulaReader::sum() {
  FormulaPointer left = product();
  while (true) {
    if (take("+"))
      left = join(Formula::Kind::kAdd, std::move(left), product());
    else if (take("-"))
      left = join(Formula::Kind::kSubtract, std::move(left), product());
    else
      return left;
  }
}

FormulaPointer FormulaReader::product() {
  FormulaPointer left = factor();
  while (true) {
    if (take("*"))
      left = join(Formula::Kind::kMultiply, std::move(left), factor());
    else if (take("/"))
      left = join(Formula::Kind::kDivide, std::move(left), factor());
    else
      return left;
  }
}

FormulaPointer FormulaReader::factor() {
  deeper();
  FormulaPointer result;
  if (take("-")) {
    result = join(Formula::Kind::kNegate, factor(), nullptr);
  } else if (take("(")) {
    result = sum();
    expect(")");
  } else {
    skip_space();
    const char c = at_ < text_.size() ? text_[at_] : '\0';
    result = std::isalpha(static_cast<unsigned char>(c)) ? channel() : constant();
  }
  less_deep();
  return result;
}

FormulaPointer FormulaReader::constant() {
  auto formula = std::make_unique<Formula>();
  formula->number = unsigned_number("a channel or a number");
  return formula;
}

/// Behind the digits, the point with its digits and the power of ten that come next.
std::size_t FormulaReader::end_of_number() const {
  const auto behind_digits = [&](std::size_t i) {
    while (i < text_.size() && std::isdigit(static_cast<unsigned char>(text_[i]))) ++i;
    return i;
  };
  const auto is_one_of = [&](std::size_t i, std::string_view these) {
    return i < text_.size() && these.find(text_[i]) != std::string_view::npos;
  };
  std::size_t end = behind_digits(at_);
  if (is_one_of(end, ".")) {
    const std::size_t digits = end + 1;
    if (behind_digits(digits) > digits) end = behind_digits(digits);
  }
  if (end > at_ && is_one_of(end, "eE")) {
    const std::size_t digits = is_one_of(end + 1, "+-") ? end + 2 : end + 1;
    if (behind_digits(digits) > digits) end = behind_digits(digits);
  }
  return end;
}

double FormulaReader::unsigned_number(const std::string& expected) {
  skip_space();
  const std::size_t end = end_of_number();
  double value = 0;
  const auto result = std::from_chars(text_.data() + at_, text_.data() + end, value);
  if (end == at_ || result.ec != std::errc()) fail(expected);
  at_ = end;
  return value;
}

double FormulaReader::number() {
  const bool negative = take("-");
  const double size = unsigned_number("a number");
  return negative ? -size : size;
}

FormulaPointer FormulaReader::channel() {
  std::size_t end = at_;
  while (end < text_.size() && is_name_character(text_[end])) ++end;
  const std::string_view word = text_.substr(at_, end - at_);
  const std::string_view name = longest_known(word);
  if (name.empty()) {
    const std::vector<std::string> likely = channels_like(word, known_);
    fail(likely.empty() ? "a channel (a space and a channel of it, as in hsv.h or lab.a)"
                        : "a channel, such as " + one_of_names(likely));
  }
  const Channel channel = channel_named(name, known_);
  auto formula = std::make_unique<Formula>();
  formula->kind = Formula::Kind::kChannel;
  formula->channel = place_of(channel, channels_);
  if (formula->channel == channels_.size()) channels_.push_back(channel);
  at_ += name.size();
  return formula;
}

/// The longest known channel name that begins `word` and ends where a name may end.
std::string_view FormulaReader::longest_known(std::string_view word) const {
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

}  // namespace chalcedony
