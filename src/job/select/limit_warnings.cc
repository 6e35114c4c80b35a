#include "job/select/limit_warnings.h"

#include <fmt/format.h>

namespace chalcedony {
namespace {

/// `instead`: what to write, where that is known.
std::string doubt_text(const std::string& test, const Channel& channel, const DoubtfulLimits& doubt,
                       const std::string& instead) {
  const ChannelInfo& info = channel.info();
  const char* const finding = doubt.never     ? " takes nothing"
                              : doubt.outside ? " is out of the usual range"
                                              : "";
  const char* const unit = info.unit == Unit::kPercent   ? " %"
                           : info.unit == Unit::kDegrees ? " degrees"
                                                         : "";
  std::string text = fmt::format("'{}'{}: {} goes from {:g} to {:g}{}", test, finding,
                                 channel.name(), info.low, info.high, unit);
  if (doubt.counted_to > 0)
    text += fmt::format("; if you count it to {:g}, write {}", doubt.counted_to, instead);
  if (doubt.runs_on) text += "; to go on through 0, write " + instead;
  return text;
}

}  // namespace

void warn_of_limits(const Expression& selection, const Context& context) {
  for (const DoubtfulTest& test : doubtful_tests(selection))
    context.warn(doubt_text(test.text, test.channel, test.doubt, test.instead));
}

bool warn_of_limits(const std::string& name, const Channel& channel, const Limits& limits,
                    const std::vector<Limits>& beside, const Context& context) {
  const auto doubt = doubt_about(channel, limits, beside);
  if (!doubt) return false;
  const Limits meant = limits_instead(channel, limits, *doubt);
  const ChannelInfo& info = channel.info();
  const std::string interval =
      fmt::format("{:.3g}..{:.3g}", meant.low.value_or(info.low), meant.high.value_or(info.high));
  context.warn(doubt_text(name, channel, *doubt, interval));
  return true;
}

}  // namespace chalcedony
