#include "core/tidy/tidy_steps.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "core/error.h"
#include "core/nearest_name.h"
#include "core/read_number.h"
#include "core/split_list.h"

namespace chalcedony {
namespace {

using Kind = TidyStep::Kind;

constexpr std::uint64_t kAnySize = std::numeric_limits<std::uint64_t>::max();
constexpr double kMostMajorityRadius = 1000;

const std::vector<std::pair<std::string, Kind>> kNames{
    {"dilate", Kind::kDilate}, {"erode", Kind::kErode},
    {"open", Kind::kOpen},     {"close", Kind::kClose},
    {"fill", Kind::kFill},     {"drop", Kind::kDrop},
    {"keep", Kind::kKeep},     {"majority", Kind::kMajority},
    {"part", Kind::kPart},     {"clear-edge", Kind::kClearEdge},
    {"invert", Kind::kInvert}};

const std::vector<std::pair<std::string, ElementShape>> kShapes{{"disk", ElementShape::kDisk},
                                                                {"box", ElementShape::kBox},
                                                                {"diamond", ElementShape::kDiamond},
                                                                {"line", ElementShape::kLine}};

std::vector<std::string> words_of(std::string_view text) {
  std::vector<std::string> words;
  std::string word;
  for (const char c : text) {
    if (c != ' ' && c != '\t' && c != '\n') {
      word += c;
    } else if (!word.empty()) {
      words.push_back(std::exchange(word, {}));
    }
  }
  if (!word.empty()) words.push_back(word);
  return words;
}

constexpr const char* kRemedy = "write steps as in \"fill; open 2 disk; drop 40\"";

/// One step, word by word.
class StepReader {
 public:
  explicit StepReader(std::vector<std::string> words) : words_(std::move(words)) {
    step_.text = joined(words_.begin(), words_.end());
  }

  TidyStep read() {
    step_.kind = pick(kNames, "is no step");
    take_classes();
    switch (step_.kind) {
      case Kind::kDilate:
      case Kind::kErode:
      case Kind::kOpen:
      case Kind::kClose:
        read_element();
        break;
      case Kind::kFill:
        step_.count = at_ < words_.size() ? whole("how many pixels a hole may have") : kAnySize;
        break;
      case Kind::kDrop:
        step_.count = whole("how many pixels a region must have");
        break;
      case Kind::kKeep:
        step_.count = whole("how many regions stay");
        break;
      case Kind::kMajority:
        step_.count = static_cast<std::uint64_t>(
            number("a whole radius in pixels", kMostMajorityRadius, true));
        break;
      case Kind::kPart:
        step_.deeper = number("how many pixels parts are larger in radius than their neck",
                              kMostRadius, false);
        if (step_.deeper == 0) fail("'0' parts regions everywhere");
        break;
      default:
        break;
    }
    if (at_ < words_.size()) fail("'" + words_[at_] + "' is one word too many");
    return step_;
  }

 private:
  using Words = std::vector<std::string>;

  static std::string joined(Words::const_iterator word, Words::const_iterator end) {
    std::string text;
    for (; word != end; ++word) text += (text.empty() ? "" : " ") + *word;
    return text;
  }

  /// What stands behind "of".
  void take_classes() {
    const auto of = std::find(words_.begin(), words_.end(), "of");
    if (of == words_.end()) return;
    if (step_.kind == Kind::kMajority || step_.kind == Kind::kInvert)
      fail("'" + words_.front() + "' is done to all classes at once");
    step_.classes = split_list(joined(of + 1, words_.end()));
    for (const std::string& name : step_.classes)
      if (name.empty()) fail("a class is missing behind 'of'");
    words_.erase(of, words_.end());
  }

  /// Where a problem is, unless the step is that one word.
  std::string place() const {
    return words_.size() > 1 ? "in the step '" + step_.text + "', " : std::string();
  }

  [[noreturn]] void fail(const std::string& problem) const {
    throw UsageError(place() + problem, kRemedy);
  }

  template <class Value>
  Value pick(const std::vector<std::pair<std::string, Value>>& known, const std::string& problem) {
    for (const auto& [name, value] : known)
      if (words_[at_] == name) {
        ++at_;
        return value;
      }
    std::vector<std::string> names;
    for (const auto& entry : known) names.push_back(entry.first);
    throw UsageError(place() + "'" + words_[at_] + "' " + problem,
                     suggest_name(words_[at_], names));
  }

  double number(const std::string& meaning, double most, bool is_whole) {
    if (at_ >= words_.size())
      throw UsageError("the step '" + step_.text + "' lacks " + meaning, kRemedy);
    const std::string& word = words_[at_];
    const double value = read_number<double>(word).value_or(-1);
    if (!(value >= 0 && value <= most) || (is_whole && value != std::floor(value)))
      fail("'" + word + "' is not " + meaning + ", at most " + std::to_string(std::llround(most)));
    ++at_;
    return value;
  }

  std::uint64_t whole(const std::string& meaning) {
    return static_cast<std::uint64_t>(number(meaning, 1e15, true));
  }

  void read_element() {
    step_.element.radius = number("a radius in pixels", kMostRadius, false);
    if (at_ < words_.size()) step_.element.shape = pick(kShapes, "is no element");
    if (step_.element.shape != ElementShape::kDisk &&
        step_.element.radius != std::floor(step_.element.radius))
      fail("the radius must be whole; only a disk may have parts of a pixel");
    if (step_.element.shape != ElementShape::kLine || at_ >= words_.size()) return;
    const std::string& word = words_[at_];
    if (word != "0" && word != "45" && word != "90" && word != "135")
      fail("'" + word + "' is no angle of a line; give 0, 45, 90 or 135");
    step_.element.angle = std::stoi(word);
    ++at_;
  }

  Words words_;
  std::size_t at_ = 0;
  TidyStep step_;
};

}  // namespace

std::vector<TidyStep> parse_tidy_steps(std::string_view text) {
  std::vector<TidyStep> steps;
  while (true) {
    const std::size_t end = text.find(';');
    auto words = words_of(text.substr(0, end));
    if (!words.empty()) steps.push_back(StepReader(std::move(words)).read());
    if (end == std::string_view::npos) break;
    text.remove_prefix(end + 1);
  }
  if (steps.empty()) throw UsageError("there is no step", kRemedy);
  return steps;
}

}  // namespace chalcedony
