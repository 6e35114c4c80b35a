#include "figure/plot/axis.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace chalcedony {

std::vector<double> round_tics(double low, double high, std::size_t most) {
  const double raw = (high - low) / static_cast<double>(most);
  const double power = std::pow(10, std::floor(std::log10(raw)));
  double step = 10 * power;
  for (const double factor : {1.0, 2.0, 5.0})
    if (factor * power >= raw * (1 - 1e-9)) {
      step = factor * power;
      break;
    }
  std::vector<double> tics;
  const double first = std::ceil(low / step - 1e-9), last = std::floor(high / step + 1e-9);
  for (double i = first; i <= last; ++i) tics.push_back(i * step + 0.0);  // + 0 makes a -0 a 0
  return tics;
}

std::vector<double> whole_tics(double low, double high, std::size_t most) {
  const double steps = std::clamp(high - low, 1.0, static_cast<double>(most));
  return round_tics(low, high, static_cast<std::size_t>(steps));
}

std::vector<double> decade_tics(double low, double high, std::size_t most) {
  std::vector<double> tics;
  for (const std::vector<int>& parts :
       {std::vector<int>{1, 2, 3, 4, 5, 6, 8}, std::vector<int>{1, 2, 5}, std::vector<int>{1}}) {
    tics.clear();
    for (double ten = std::pow(10, std::floor(std::log10(low))); ten <= high; ten *= 10)
      for (const int part : parts)
        if (part * ten >= low && part * ten <= high) tics.push_back(part * ten);
    if (tics.size() <= most) break;
  }
  return tics;
}

std::string logarithmic_axis(const char* axis, double low, double high, std::size_t most) {
  return fmt::format("set logscale {0}; set {0}range [{1:.7g}:{2:.7g}]; set {0}tics {3}", axis, low,
                     high, tic_list(decade_tics(low, high, most)));
}

double coordinate_step(double width, double height) {
  const auto [shorter, longer] = std::minmax(width, height);
  const std::vector<double> tics = round_tics(0, std::min(longer, 3 * shorter), 6);
  return tics.size() > 1 ? tics[1] - tics[0] : 1;
}

std::vector<double> coordinates_to(double end, double step, std::size_t most) {
  const double room = std::max(1.0, static_cast<double>(most)) * step;
  double power = 1, factor = 1;
  while (end > power * factor * room) {
    factor = factor == 1 ? 2 : factor == 2 ? 5 : 1;
    if (factor == 1) power *= 10;
  }
  std::vector<double> values;
  for (int i = 0; i * power * factor * step <= end; ++i)
    values.push_back(i * power * factor * step);
  return values;
}

std::string grouped(double value) {
  std::string text = fmt::format("{:.10g}", value);
  std::size_t end = text.find_first_of(".e");
  if (end == std::string::npos) end = text.size();
  const std::size_t begin = text[0] == '-' ? 1 : 0;
  while (end > begin + 3) text.insert(end -= 3, ",");
  return text;
}

std::string tic_list(const std::vector<double>& values, bool numbered) {
  std::string list;
  for (const double value : values)
    list += fmt::format("{}'{}' {:.10g}", list.empty() ? "" : ", ", numbered ? grouped(value) : "",
                        value);
  return "(" + list + ")";
}

std::string axis_title(const Channel& channel) {
  const std::string unit = channel.shown_unit();
  return unit.empty() ? channel.name() : channel.name() + " (" + unit + ")";
}

std::vector<double> degree_tics(double low, double high) {
  if (high - low < 300) return round_tics(low, high, 6);
  std::vector<double> tics;
  for (double t = 0; t <= 360; t += 60) tics.push_back(t);
  return tics;
}

std::string channel_tics(const Channel& channel, const Binning& binning, std::size_t most,
                         bool numbered) {
  constexpr std::size_t kFewCodes = 5;
  std::vector<double> tics = round_tics(binning.low(), binning.high(), most);
  if (channel.unit_name() == "degrees") tics = degree_tics(binning.low(), binning.high());
  if (binning.low() == 0 && binning.high() == 256)
    tics = most > kFewCodes ? std::vector<double>{0, 32, 64, 96, 128, 160, 192, 224, 255}
                            : std::vector<double>{0, 64, 128, 192, 255};
  return tic_list(tics, numbered);
}

}  // namespace chalcedony
