// Round tic values and their labels.
#ifndef CHALCEDONY_FIGURE_PLOT_AXIS_H_
#define CHALCEDONY_FIGURE_PLOT_AXIS_H_

#include <cstdint>
#include <string>
#include <vector>

#include "core/channel/channel.h"
#include "core/stats/binning.h"

namespace chalcedony {

/// What tics and a title take below an axis and beside an upright one, in pixels of the page.
inline constexpr double kAxisBelow = 58, kAxisBeside = 88;
/// The same of tics alone.
inline constexpr double kTicsBelow = 34;

/// Values in [low, high] at steps of 1, 2 or 5 times a power of ten, at most `most` of them.
std::vector<double> round_tics(double low, double high, std::size_t most);

/// The same for counts: no fractions.
std::vector<double> whole_tics(double low, double high, std::size_t most);

/// For a logarithmic axis: values in [low, high], both above 0, that are 1, 2, 3, 4, 5, 6 and 8
/// times powers of ten, or where these are more than `most` 1, 2 and 5 times, or the powers alone.
std::vector<double> decade_tics(double low, double high, std::size_t most);

/// The lines that make an axis, "x" or "y", one from low to high with such tics.
std::string logarithmic_axis(const char* axis, double low, double high, std::size_t most);

/// A round step for the coordinates of a picture: some six over its longer side, and two or more
/// over its shorter one where it is not too narrow.
double coordinate_step(double width, double height);

/// Coordinates from 0 to `end` at multiples of a step, or of 2, 5, 10, ... times it where these are
/// more than `most`.
std::vector<double> coordinates_to(double end, double step, std::size_t most);

/// A number with marks between thousands: 1,234,567 or 0.25.
std::string grouped(double value);

/// gnuplot's list of tics: ('0' 0, '1,000' 1000), or without numbers.
std::string tic_list(const std::vector<double>& values, bool numbered = true);

/// The title of an axis that shows a channel: its name and its unit.
std::string axis_title(const Channel& channel);

/// gnuplot's list of tics for the values of a channel from the first bin to the last: about so many
/// at most, with numbers or without.
std::string channel_tics(const Channel& channel, const Binning& binning, std::size_t most,
                         bool numbered = true);

/// Tics for degrees: every 60 over a full circle, else round ones.
std::vector<double> degree_tics(double low, double high);

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_AXIS_H_
