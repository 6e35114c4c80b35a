#include "core/channel/quoted_channel.h"

#include <charconv>
#include <cmath>
#include <optional>
#include <string>
#include <utility>

#include "core/channel/derived_channel.h"

namespace chalcedony {
namespace {

/// The stored channel whose integers are the channel's values, but for a factor.
std::optional<Channel> stored_alike(const Channel& channel, const PictureInfo& info) {
  if (info.is_float() || channel.space != info.space || !info.has_color()) return std::nullopt;
  if (info.alpha == AlphaKind::kPremultiplied) return std::nullopt;
  if (info.bands) return Channel{nullptr, info.bands->of[channel.index]};
  return Channel{nullptr, info.color_channels() == 1 ? 0 : channel.index};
}

/// What is a span in the channel's own unit is this much when quoted.
struct Quotation {
  double span = 1, quoted = 1;
  double of(double value) const { return value / span * quoted; }
};

std::optional<Quotation> quotation(const Channel& channel, QuotedUnits units,
                                   const CodesOf& codes) {
  if (units == QuotedUnits::kOwn || !channel.space) return std::nullopt;
  const bool codes_wanted = units == QuotedUnits::kCode;
  if (channel.info().unit == Unit::kOf255) {
    const Quotation found{255, codes_wanted ? codes.full : 1};
    return found.span == found.quoted ? std::nullopt : std::optional(found);
  }
  if (channel.info().unit == Unit::kPercent && !codes_wanted) return Quotation{100, 1};
  return std::nullopt;
}

std::string shortest(double number) {
  char text[32];
  return {text, std::to_chars(text, text + sizeof text, number).ptr};
}

std::unique_ptr<Formula> number(double value) {
  auto formula = std::make_unique<Formula>();
  formula->number = value;
  return formula;
}

std::unique_ptr<Formula> the_channel() {
  auto formula = std::make_unique<Formula>();
  formula->kind = Formula::Kind::kChannel;
  return formula;
}

}  // namespace

double quoted_value(double value, const Channel& channel, QuotedUnits units, const CodesOf& codes) {
  const auto quote = quotation(channel, units, codes);
  if (!quote) return value;
  const double quoted = quote->of(value);
  // A float between the integers stored is off by what its arithmetic lost.
  const bool whole = units == QuotedUnits::kCode && stored_alike(channel, *codes.info);
  return whole ? std::round(quoted) : quoted;
}

double without_noise(const Space* space, double value) {
  constexpr double kNoise = 5e-5;
  const bool computed = space && !space->is_rgb;
  return computed && std::abs(value) < kNoise ? 0 : value;
}

Channel quoted_channel(const Channel& channel, QuotedUnits units, const CodesOf& codes) {
  const auto quote = quotation(channel, units, codes);
  if (!quote) return channel;
  auto quoted = std::make_shared<DerivedChannel>();
  quoted->name = channel.name();
  const auto stored =
      units == QuotedUnits::kCode ? stored_alike(channel, *codes.info) : std::nullopt;
  quoted->channels = {stored ? *stored : channel};
  quoted->value = the_channel();
  if (!stored)
    quoted->value =
        join(Formula::Kind::kDivide,
             join(Formula::Kind::kMultiply, std::move(quoted->value), number(quote->quoted)),
             number(quote->span));
  const ChannelInfo& own = channel.info();
  quoted->info = {own.name, Unit::kNumber, quote->of(own.low), quote->of(own.high)};
  quoted->unit = shortest(quoted->info.low) + "-" + shortest(quoted->info.high);
  quoted->formula = quoted->unit;  // tells it from the channel quoted otherwise
  Channel out;
  out.derived = std::move(quoted);
  return out;
}

std::vector<Channel> quoted_channels(const std::vector<Channel>& channels, QuotedUnits units,
                                     const CodesOf& codes) {
  std::vector<Channel> quoted;
  for (const Channel& channel : channels) quoted.push_back(quoted_channel(channel, units, codes));
  return quoted;
}

}  // namespace chalcedony
