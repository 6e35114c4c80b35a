#include "core/channel/derived_channel.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <optional>

#include "core/channel/formula_reader.h"
#include "core/error.h"
#include "core/letter_case.h"

namespace chalcedony {
namespace {

constexpr const char* kExample = "warmth=lab.a + lab.b in -150..150";

/// Values from low to high.
struct ValueRange {
  double low, high;
};

/// None where a channel of the file is in it, whose range hangs on the picture.
std::optional<ValueRange> range_of(const Formula& formula, const std::vector<Channel>& channels) {
  using Kind = Formula::Kind;
  if (formula.kind == Kind::kNumber) return ValueRange{formula.number, formula.number};
  if (formula.kind == Kind::kChannel) {
    const Channel& channel = channels[formula.channel];
    if (channel.is_stored()) return std::nullopt;
    return ValueRange{channel.info().low, channel.info().high};
  }
  const auto left = range_of(*formula.left, channels);
  if (formula.kind == Kind::kNegate) {
    if (!left) return std::nullopt;
    return ValueRange{-left->high, -left->low};
  }
  const auto right = range_of(*formula.right, channels);
  if (formula.kind == Kind::kDivide && (!right || (right->low <= 0 && right->high >= 0)))
    return ValueRange{-1, 1};
  if (!left || !right) return std::nullopt;
  if (formula.kind == Kind::kAdd)
    return ValueRange{left->low + right->low, left->high + right->high};
  if (formula.kind == Kind::kSubtract)
    return ValueRange{left->low - right->high, left->high - right->low};
  const auto combined = [&](double a, double b) {
    return formula.kind == Kind::kMultiply ? a * b : a / b;
  };
  const std::array corners{combined(left->low, right->low), combined(left->low, right->high),
                           combined(left->high, right->low), combined(left->high, right->high)};
  const auto [least, most] = std::minmax_element(corners.begin(), corners.end());
  return ValueRange{*least, *most};
}

bool is_name(std::string_view name) {
  return !name.empty() && std::isalpha(static_cast<unsigned char>(name.front())) &&
         std::all_of(name.begin(), name.end(), [](char c) {
           return std::isalnum(static_cast<unsigned char>(c)) || c == '_';
         });
}

/// Words of the selection language, spaces and other channels.
bool is_taken(const std::string& name, const DerivedChannels& earlier) {
  constexpr std::array<std::string_view, 6> kWords{"and", "or", "not", "in", "near", "file"};
  const auto names = channel_names(earlier);
  return std::find(kWords.begin(), kWords.end(), name) != kWords.end() || find_space(name) ||
         std::find(names.begin(), names.end(), name) != names.end();
}

std::string checked_name(std::string_view written, const DerivedChannels& earlier) {
  std::string name = lower_case(std::string(written));
  std::erase(name, ' ');
  if (!is_name(name))
    throw UsageError("'" + name + "' is no name for a channel",
                     "begin with a letter; then letters, digits and _ may follow");
  if (is_taken(name, earlier))
    throw UsageError("the name '" + name + "' is taken", "choose another one");
  return name;
}

/// The range that is given, or that follows.
ValueRange settled_range(FormulaReader& reader, const DerivedChannel& channel) {
  if (reader.take_word("in")) {
    ValueRange given{reader.number(), 0};
    reader.expect("..");
    given.high = reader.number();
    if (!(given.low < given.high)) reader.fail("a range from low to high before this");
    return given;
  }
  if (!reader.at_end()) reader.fail("an operator, 'in' or the end");
  const auto range = range_of(*channel.value, channel.channels);
  if (!range)
    throw UsageError(
        "nothing says which values '" + channel.name + "' can have",
        "add its usual range, as in \"" + channel.name + "=" + channel.formula + " in -255..255\"");
  if (!(range->low < range->high))
    throw UsageError("'" + channel.name + "' is the same for every pixel",
                     "use a channel in its formula");
  return *range;
}

void add_definitions(const Channel& channel, std::vector<std::string>& definitions) {
  if (!channel.derived) return;
  for (const Channel& behind : channel.derived->channels) add_definitions(behind, definitions);
  std::string definition = channel.derived->name + "=" + channel.derived->formula;
  if (std::find(definitions.begin(), definitions.end(), definition) == definitions.end())
    definitions.push_back(std::move(definition));
}

}  // namespace

std::shared_ptr<const DerivedChannel> derived_channel(std::string_view definition,
                                                      const DerivedChannels& earlier) {
  const std::size_t equals = definition.find('=');
  if (equals == std::string_view::npos)
    throw UsageError("'" + std::string(definition) + "' has no '='",
                     std::string("write a name and what it is, as in \"") + kExample + "\"");
  auto channel = std::make_shared<DerivedChannel>();
  channel->name = checked_name(definition.substr(0, equals), earlier);
  std::string_view formula = definition.substr(equals + 1);
  while (!formula.empty() && formula.front() == ' ') formula.remove_prefix(1);
  while (!formula.empty() && formula.back() == ' ') formula.remove_suffix(1);
  channel->formula = formula;
  FormulaReader reader(channel->formula, "formula of '" + channel->name + "'", kExample, earlier,
                       channel->channels);
  channel->value = reader.sum();
  const ValueRange range = settled_range(reader, *channel);
  if (!reader.at_end()) reader.fail("the end");
  channel->info = {channel->name, Unit::kNumber, range.low, range.high};
  return channel;
}

std::vector<std::string> definitions_behind(const std::vector<Channel>& channels) {
  std::vector<std::string> definitions;
  for (const Channel& channel : channels) add_definitions(channel, definitions);
  return definitions;
}

}  // namespace chalcedony
