// `chalcedony join`: planes put together into one picture.
#include "job/prepare/join.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "core/error.h"
#include "core/nearest_name.h"
#include "core/read_number.h"

namespace chalcedony::cli {
namespace {

void declare_join(po::options_description& options) {
  add_option<std::string>(options, "space", "SPACE",
                          "the space whose planes are joined (default srgb)");
  add_repeated_option(options, "plane", "NAME=SOURCE",
                      "where a plane comes from: a number, a gray picture, or PICTURE:CHANNEL; the "
                      "name is a channel of the space, or alpha (0 to 100); may be repeated");
  add_option<std::string>(options, "depth", "8|16|float",
                          "bits of a sample (default as the deepest of the files)");
  add_option<std::string>(options, "alpha", "keep|drop",
                          "what becomes of an alpha channel of the input (default keep)");
}

/// What follows the last colon is a channel where there is one of that name.
PlaneSource source_of(const std::string& text, const ChannelNames& names) {
  PlaneSource source;
  source.constant = read_number<double>(text);
  if (source.constant) return source;
  source.file = text;
  const std::size_t colon = text.rfind(':');
  if (colon == std::string::npos || colon == 0) return source;
  try {
    source.channel = channel_named(text.substr(colon + 1), names);
    source.file = text.substr(0, colon);
  } catch (const UsageError& error) {
    if (!std::filesystem::exists(source.file)) throw at_place(error, "--plane");
  }
  return source;
}

void add_plane(const std::string& text, JoinOptions& options) {
  const auto [name, value] = named_value("--plane", text);
  const Space& space = *options.space;
  std::optional<PlaneSource>* plane = name == "alpha" ? &options.alpha : nullptr;
  std::vector<std::string> names;
  for (std::size_t c = 0; c < space.channel_count; ++c) {
    names.emplace_back(space.channels[c].name);
    if (name == names.back() || name == Channel{&space, c}.name()) plane = &options.planes[c];
  }
  names.emplace_back("alpha");
  if (!plane)
    throw UsageError("--plane: '" + name + "' is no plane of " + std::string(space.id),
                     suggest_name(name, names));
  if (*plane) throw UsageError("--plane: " + name + " is given twice", "give it once");
  *plane = source_of(value, options.shared.names);
}

/// One input is a picture to begin with; as many as the space has planes are these planes.
void take_inputs(JoinOptions& options) {
  const auto& inputs = options.shared.inputs;
  const std::size_t planes = options.space->channel_count;
  if (inputs.size() == 1 && planes > 1) {
    options.base = inputs[0];
    return;
  }
  if (inputs.size() != planes)
    throw UsageError(fmt::format("join takes one picture, or the {} planes of {} in order", planes,
                                 options.space->id),
                     fmt::format("give {} files", planes));
  for (std::size_t c = 0; c < planes; ++c) {
    if (options.planes[c])
      throw UsageError("a plane is given as an input and by --plane", "give it once");
    options.planes[c] = source_of(inputs[c].string(), options.shared.names);
  }
}

Json do_join(const po::variables_map& given, const SharedOptions& shared, const Context& context) {
  JoinOptions options;
  options.shared = shared;
  if (!shared.output.has_extension())
    throw UsageError("join needs -o with the name of a picture", "as in -o joined.png");
  if (given.count("space"))
    options.space = &space_option("--space", given["space"].as<std::string>());
  for (const std::string& text : texts_of(given, "plane")) add_plane(text, options);
  take_inputs(options);
  options.keep_alpha = text_of(given, "alpha", "keep") == "keep";
  options.depth = depth_option(given);
  return run_join(options, context);
}

void print_join(const Json& summary, std::ostream& out) {
  for (const Json& p : summary["inputs"])
    out << fmt::format("{} x {} pixels of {}{}\n", p["width"], p["height"], p["space"],
                       p["alpha"].get<bool>() ? " with alpha" : "");
  print_outputs(summary, out);
}

}  // namespace

extern const Command kJoin;
const Command kJoin{
    .name = "join",
    .summary = "planes put together into one picture",
    .operands = "INPUT... [--plane NAME=SOURCE] -o FILE",
    .purpose =
        "Makes a picture of planes: three gray pictures in order, or one picture with some of its "
        "planes replaced. From black to white, a gray picture spans the usual range of the plane. "
        "Use it to swap, silence or replace channels, and to add or drop alpha.",
    .examples = {{"join panel-a.png --plane r=0 -o no-red.png", "a picture without its red"},
                 {"join panel-a.png --plane r=panel-a.png:srgb.b --plane b=panel-a.png:srgb.r -o "
                  "swapped.png",
                  "red and blue exchanged"},
                 {"join panel-a.png --plane alpha=panel-a.rough.png -o cut.png",
                  "transparent where a mask is off"}},
    .declare = declare_join,
    .run = do_join,
    .print = print_join,
    .own_alpha = {"keep", "drop"},
    .refuses = {{"region", "within", "figures", "write"}, "join works on whole pictures"},
    .traits = {Trait::kJoinsInputs},
};

}  // namespace chalcedony::cli
