// What the words behind an option say: a number, a channel, one of several names, and so on.
#ifndef CHALCEDONY_CLI_OPTIONS_OPTION_VALUES_H_
#define CHALCEDONY_CLI_OPTIONS_OPTION_VALUES_H_

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "cli/options/command.h"
#include "core/balance/patch_layout.h"
#include "core/channel/channel.h"
#include "core/error.h"
#include "core/learn/feature_scaling.h"
#include "core/pixel/raster.h"
#include "job/picture/pixel_size.h"

namespace chalcedony::cli {

/// What an option names that takes a file for each input, or a folder or a pattern of them; nothing
/// when it was not given.
///
/// Errors    UsageError when there are several inputs and it names one file
std::optional<std::filesystem::path> file_for_each(const po::variables_map& given, const char* name,
                                                   const SharedOptions& shared);

/// The text of an option, or `otherwise` when it was not given.
std::string text_of(const po::variables_map& given, const char* name, const std::string& otherwise);

/// The texts of an option that may be repeated; none when it was not given.
std::vector<std::string> texts_of(const po::variables_map& given, const char* name);

/// What read() returns; the option is named in what it finds wrong.
///
/// Errors    UsageError that names the option
template <class Read>
auto read_option(const std::string& option, const Read& read) {
  return errors_at<UsageError>(option, read);
}

/// The one channel of an option.
///
/// Errors    UsageError that names the option
Channel channel_option(const std::string& option, const std::string& text,
                       const SharedOptions& shared);

/// The channels of an option: names, or whole spaces.
///
/// Errors    UsageError that names the option
std::vector<Channel> channels_option(const std::string& option, const std::string& text,
                                     const SharedOptions& shared);

/// The channels that option `name` names when it is given; else those of --space, and without that
/// `usual`, where "" is none.
///
/// Errors    UsageError that names the option
std::vector<Channel> channels_or_space(const po::variables_map& given, const std::string& name,
                                       const SharedOptions& shared, const std::string& usual);

/// Patches in even rows, as in 6x4=10,10,600,400, or between four corners, of --layout.
///
/// Errors    UsageError
PatchLayout layout_option(const std::string& text);

/// What --depth says, if it was given.
///
/// Errors    UsageError
std::optional<SampleType> depth_option(const po::variables_map& given);

/// Declares --pixel-size.
void declare_pixel_size(po::options_description& options);

/// What --pixel-size says; a pixel is 1 px when it was not given.
///
/// Errors    UsageError
PixelSize pixel_size_option(const po::variables_map& given);

/// What --scaling says of features.
///
/// Errors    UsageError
FeatureScaling scaling_option(const po::variables_map& given);

/// A color space.
///
/// Errors    UsageError that names the option
const Space& space_option(const std::string& option, const std::string& text);

/// A space of three channels.
///
/// Errors    UsageError that names the option
const Space& three_channel_space(const std::string& option, const std::string& text);

/// A color as CSS has it, in hexadecimal.
///
/// Errors    UsageError that names the option
std::string css_color_option(const std::string& option, const std::string& text);

/// A pixel, as X,Y.
///
/// Errors    UsageError that names the option
std::pair<std::int64_t, std::int64_t> point_in(const std::string& option, const std::string& text);

/// A whole number in [low, high].
///
/// Errors    UsageError that names the option
std::uint64_t whole_number(const std::string& option, const std::string& text, std::uint64_t low,
                           std::uint64_t high);

/// The numbers an option takes: between two ends, which may be among them.
struct NumberRange {
  double low, high;
  bool with_low = false, with_high = false;
};

/// The pixels along the longest side of a picture on its page that --view says, 100 to 4000;
/// `usual` when it was not given.
///
/// Errors    UsageError
std::uint32_t view_option(const po::variables_map& given, std::uint32_t usual);

/// A number in a range.
///
/// Errors    UsageError that names the option
double number_in(const std::string& option, const std::string& text, const NumberRange& range);

/// The two sides of NAME=VALUE, neither of them empty.
///
/// Errors    UsageError that names the option
std::pair<std::string, std::string> named_value(const std::string& option, const std::string& text);

/// One of `known`.
///
/// Errors    UsageError that names the option and the nearest right value
std::string one_of(const std::string& option, const std::string& text,
                   const std::vector<std::string>& known);

/// The value of one of `known` by its name.
///
/// Errors    as one_of
template <class Value>
Value choice_of(const std::string& option, const std::string& text,
                const std::vector<std::pair<std::string, Value>>& known) {
  std::vector<std::string> names;
  for (const auto& [name, value] : known) {
    if (name == text) return value;
    names.push_back(name);
  }
  one_of(option, text, names);
  return known.front().second;
}

}  // namespace chalcedony::cli

#endif  // CHALCEDONY_CLI_OPTIONS_OPTION_VALUES_H_
