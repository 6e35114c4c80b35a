#include "job/look/oddities.h"

#include <fmt/format.h>

#include "core/channel/quoted_channel.h"

namespace chalcedony {
namespace {

constexpr double kMuchCut = 1;  // percent of a channel at an end of its range

void say_kind(const PictureInfo& info, const PictureTraits& traits, Json& list) {
  if (info.color_channels() == 3 && info.has_color() && info.space->is_rgb && !traits.colored)
    list.push_back("stored as color, but every pixel is gray");
  if (info.alpha != AlphaKind::kNone && !traits.translucent)
    list.push_back("has alpha, but every pixel is opaque");
}

void say_unused_depth(const OddityFacts& found, Json& list) {
  const FileFacts& facts = found.picture.facts;
  if (facts.significant_bits > 0 && facts.significant_bits < facts.bits)
    list.push_back(fmt::format("stored with {} bits, of which its sBIT chunk calls {} significant",
                               facts.bits, facts.significant_bits));
  if (found.picture.info.shape.sample != SampleType::kU16) return;
  if (!found.traits.uses_low_bytes) {
    list.push_back("stored with 16 bits, but holds only 8-bit values");
    return;
  }
  for (const int bits : {10, 12}) {
    const int full = (1 << bits) - 1;
    if (found.traits.largest_sample > full) continue;
    // Nothing to be said to who has said it.
    if (found.full_scale == 0)
      list.push_back(fmt::format(
          "stored with 16 bits, but no value passes {0}, as of {1} bits: --full-scale {0} takes "
          "it so",
          full, bits));
    return;
  }
}

/// What is the same everywhere, or was cut off at the ends of its range.
void say_flat_or_cut(const OddityFacts& facts, std::size_t i, Json& list) {
  const Channel &channel = facts.statistics.channels()[i], &own = facts.channels[i];
  const PictureInfo& info = facts.picture.info;
  const Moments& m = facts.statistics.moments(i);
  if (m.count == 0) return;
  if (m.smallest == m.largest) {
    list.push_back(fmt::format("{} is {:.6g} everywhere", channel.name(),
                               without_noise(own.space, double{m.smallest})));
    return;
  }
  if (own.derived || (own.space && !own.space->is_rgb)) return;
  const double low = percent(m.at_low, m.count), high = percent(m.at_high, m.count);
  if (low > kMuchCut)
    list.push_back(fmt::format("{:.3g} % of {} is at 0: cut off?", low, channel.name()));
  if (high > kMuchCut)
    list.push_back(fmt::format("{:.3g} % of {} is at full scale: cut off?", high, channel.name()));
  const double times_full = m.largest / usual_range(channel, info).second;
  if (info.is_float() && !own.is_stored() && times_full > 2)
    list.push_back(
        fmt::format("{} goes up to {:.4g} times full scale", channel.name(), times_full));
}

void say_edges(const LineSums& lines, Json& list) {
  constexpr double kLeastSpread = 0.25;  // of 255: half of what rounding to 8 bits can do
  const EdgeLines edges = lines.edges(kLeastSpread);
  const auto say = [&](std::size_t count, const char* line, const char* side) {
    if (count > 0)
      list.push_back(fmt::format("the {} {}{} at the {} {} unlike the rest", count, line,
                                 count > 1 ? "s" : "", side, count > 1 ? "are" : "is"));
  };
  say(edges.top, "row", "top");
  say(edges.bottom, "row", "bottom");
  say(edges.left, "column", "left");
  say(edges.right, "column", "right");
}

}  // namespace

Json oddities(const OddityFacts& facts) {
  const PictureInfo& info = facts.picture.info;
  Json list = Json::array();
  say_kind(info, facts.traits, list);
  say_unused_depth(facts, list);
  for (std::size_t i = 0; i < facts.channels.size(); ++i)
    if (!facts.channels[i].is_hue()) say_flat_or_cut(facts, i, list);
  if (info.space->is_rgb && info.has_color()) say_edges(facts.lines, list);
  return list;
}

}  // namespace chalcedony
