#include "cli/options/shared_flags.h"

#include <fmt/format.h>

#include <algorithm>
#include <fstream>
#include <iostream>
#include <iterator>
#include <memory>
#include <utility>

#include "cli/options/option_values.h"
#include "core/channel/derived_channel.h"
#include "core/error.h"
#include "core/read_number.h"
#include "core/split_list.h"
#include "io/picture/label_file.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/partner_inputs.h"
#include "job/run/results.h"

namespace chalcedony::cli {
namespace {

double percentage(const std::string& option, const std::string& text) {
  const auto value = read_number<double>(text);
  if (!value || !(*value >= 0 && *value <= 100))
    throw UsageError(option + ": '" + text + "' is not a percentage",
                     "give a number from 0 to 100");
  return *value;
}

/// Options that say how a run goes about its work, not what it makes.
const std::vector<std::string> kNoSayInResults{
    "input",   "output",   "list",    "config", "help",   "quiet", "verbose",
    "summary", "progress", "threads", "resume", "verify", "shard", "no-clobber"};

/// Whether an option is declared with a value that is called so, as `MAP|FOLDER` or `NAME=SOURCE`.
bool takes(const po::options_description& declared, const std::string& option,
           const std::vector<std::string>& values) {
  const po::option_description* const found = declared.find_nothrow(option, false);
  if (!found) return false;
  std::string called = found->semantic()->name();
  std::replace(called.begin(), called.end(), '=', '|');
  const std::vector<std::string> words = split_list(called, '|');
  return std::find_first_of(words.begin(), words.end(), values.begin(), values.end()) !=
         words.end();
}

/// What values of options that name files are called; a place may be one of a file, a value of a
/// recipe anything.
const std::vector<std::string> kFiles{"FILE",  "FOLDER", "PICTURE", "MASK", "MAP",
                                      "BLANK", "SOURCE", "PLACE",   "VALUE"};

/// The options that have a say in the results, by name.
std::vector<TypedOption> typed_options(const po::options_description& declared,
                                       const po::variables_map& given) {
  std::vector<TypedOption> options;
  for (const auto& [name, value] : given) {
    if (std::find(kNoSayInResults.begin(), kNoSayInResults.end(), name) != kNoSayInResults.end())
      continue;
    TypedOption option{name, {}, takes(declared, name, kFiles)};
    if (const auto* list = boost::any_cast<std::vector<std::string>>(&value.value())) {
      option.values = *list;
    } else if (const auto text = value.as<std::string>(); !text.empty()) {
      option.values = {text};
    }
    options.push_back(std::move(option));
  }
  return options;
}

/// Takes the files that options name by a pattern as going with inputs out of these.
void leave_out_partners(const po::options_description& declared, SharedOptions& shared) {
  for (const TypedOption& option : shared.typed) {
    if (!takes(declared, option.name, {"FOLDER"})) continue;
    for (const std::string& value : option.values) {
      shared.inputs = without_partners(shared.inputs, value);
      // Behind a colon may stand classes of a map.
      if (const std::size_t colon = value.rfind(':'); colon != std::string::npos)
        shared.inputs = without_partners(shared.inputs, value.substr(0, colon));
    }
  }
}

Shard shard_option(const std::string& text) {
  const std::size_t slash = std::min(text.size(), text.find('/'));
  const std::string behind = text.substr(std::min(text.size(), slash + 1));
  Shard shard;
  shard.of = static_cast<unsigned>(whole_number("--shard", behind, 1, 1000000));
  shard.number = static_cast<unsigned>(whole_number("--shard", text.substr(0, slash), 1, shard.of));
  return shard;
}

/// Three stored channels, as 2,1,0 or file.2,file.1,file.0.
std::array<std::uint32_t, 3> bands_option(const std::string& text) {
  const std::vector<std::string> items = split_list(text);
  std::array<std::uint32_t, 3> bands{};
  if (items.size() != bands.size())
    throw UsageError("--bands: '" + text + "' does not name three channels",
                     "as in --bands 2,1,0 for file.2, file.1 and file.0");
  for (std::size_t c = 0; c < bands.size(); ++c) {
    const std::string number = items[c].starts_with("file.") ? items[c].substr(5) : items[c];
    bands[c] = static_cast<std::uint32_t>(whole_number("--bands", number, 0, 65535));
  }
  return bands;
}

/// A mask, or MAP:CLASS,CLASS, or a sample file with or without classes. A file that is there is
/// meant whole, whatever its name.
void set_within(SharedOptions& shared, const std::string& text) {
  if (const auto regions = sample_file_part(text)) {
    shared.within =
        std::make_shared<PartnerFiles>(regions->file, is_sample_file, "samples", NameCuts::kPoints);
    if (!regions->part.empty()) shared.within_classes = split_list(regions->part);
    return;
  }
  std::error_code error;
  const std::size_t colon = text.rfind(':');
  if (colon == std::string::npos || std::filesystem::exists(text, error)) {
    shared.within =
        std::make_shared<PartnerFiles>(text, is_picture_name, "mask", NameCuts::kPoints);
    return;
  }
  // Beside a map there may be the picture in the colors of its groups.
  shared.within = std::make_shared<PartnerFiles>(text.substr(0, colon), is_picture_name, "classes",
                                                 NameCuts::kPoints, is_class_map_file);
  shared.within_classes = split_list(text.substr(colon + 1));
}

/// What parts of a run need: a folder, where its journal is.
void settle_parts(SharedOptions& shared, const po::variables_map& given) {
  shared.resume = given.count("resume") > 0;
  shared.verify = given.count("verify") > 0;
  if (given.count("shard")) shared.shard = shard_option(given["shard"].as<std::string>());
  if (shared.verify && !shared.resume)
    throw UsageError("--verify means nothing without --resume", "give both");
  const bool one_file = shared.inputs.size() == 1 && names_file(shared.output);
  if ((shared.resume || shared.shard) && (shared.output.empty() || one_file))
    throw UsageError(std::string(shared.resume ? "--resume" : "--shard") + " needs a folder",
                     "name one with -o");
}

/// The operands, then what the list names.
std::vector<std::string> named_inputs(const po::variables_map& given) {
  std::vector<std::string> named = texts_of(given, "input");
  if (!given.count("list")) return named;
  const auto path = given["list"].as<std::string>();
  std::vector<std::string> listed;
  if (path == "-") {
    listed = errors_at("standard input", [] { return listed_inputs(std::cin); });
  } else {
    std::ifstream file(path);
    if (!file) throw InputError("the list cannot be read", "check its name and folder", path);
    listed = errors_at(path, [&] { return listed_inputs(file); });
  }
  std::move(listed.begin(), listed.end(), std::back_inserter(named));
  return named;
}

void declare_files(po::options_description& options) {
  auto add = options.add_options();
  add("recursive", "of an input that is a folder, take the folders below it too");
  add("list", po::value<std::string>()->value_name("FILE"),
      "more inputs, one a line (- for standard input)");
  add("output,o", po::value<std::string>()->value_name("PATH"),
      "where results go; without it only the summary is printed");
  add("write", po::value<std::string>()->value_name("LIST"),
      "which results, separated by commas (default all)");
  add("figures", po::value<std::string>()->value_name("png|svg|pdf|none"),
      "how figures are drawn (default png; of more than 20 inputs only those of all together)");
  add("no-clobber", "keep outputs that exist, and fail");
}

void declare_counting(const Command& command, po::options_description& options) {
  auto add = options.add_options();
  add("region", po::value<std::string>()->value_name("X,Y,W,H"),
      "count only pixels in this rectangle, in pixels or as percent:X,Y,W,H");
  add("within", po::value<std::string>()->value_name("MASK|FOLDER"),
      "count only pixels where this mask is on (128 or more), or of classes of a class map, as "
      "MAP:ruby,lead, or in regions of a sample file, as FILE.geojson or FILE.geojson:ruby; of a "
      "folder, or a pattern as \"masks/*.mask.png\", the one that goes with each picture by its "
      "name");
  if (command.own_alpha.empty())
    add("alpha", po::value<std::string>()->value_name("skip|count"),
        "what fully transparent pixels do (default skip)");
  add("hue-floor", po::value<std::string>()->value_name("PERCENT"),
      "pixels whose r g b differ by no more than this have no hue (default 0)");
}

void declare_channels(const Command& command, po::options_description& options) {
  auto add = options.add_options();
  if (command.has(Trait::kNamesChannels) && !command.has(Trait::kOwnSpace))
    add("space", po::value<std::string>()->value_name("SPACE"),
        "whose channels are meant where none are named, and may be named without it: with --space "
        "hsv, h is hsv.h");
  if (command.has(Trait::kQuotesValues))
    add("units", po::value<std::string>()->value_name("unit|code"),
        "read out what goes from 0 to 255, and percent, on 0-1 (unit), or what goes from 0 to 255 "
        "as the numbers of the file (code)");
  add_repeated_option(options, "let", "NAME=FORMULA",
                      "a channel of your own, usable wherever channels are, as "
                      "\"warmth=lab.a + lab.b\"; add its usual range as in A..B where it cannot be "
                      "worked out");
}

void declare_reading(const Command& command, po::options_description& options) {
  auto add = options.add_options();
  add("assume", po::value<std::string>()->value_name("SPACE"),
      "the color space of files that do not say theirs (default srgb)");
  add("full-scale", po::value<std::string>()->value_name("CODE"),
      "the code that is full, for integers that do not use all their bits: 4095 for 12 bits in 16");
  add("bands", po::value<std::string>()->value_name("R,G,B"),
      "the stored channels that are red, green and blue, as file.N counts them, of pictures with "
      "more than those");
  add("page", po::value<std::string>()->value_name("N"),
      "which picture of a TIFF that holds several (default the first)");
  add("max-pixels", po::value<std::string>()->value_name("N"),
      "refuse larger pictures (default no limit)");
  if (command.has(Trait::kReadsSamples))
    add("rescale-samples",
        "fit sample regions that were drawn on a copy of another size; else they are an error");
}

void declare_running(const Command& command, po::options_description& options) {
  auto add = options.add_options();
  add("threads", po::value<std::string>()->value_name("N"), "threads to use (default all)");
  if (command.has(Trait::kDraws))
    add("seed", po::value<std::string>()->value_name("N"),
        "start of everything drawn at random (default 1)");
}

/// What concerns several inputs, some of them bad or done before.
void declare_many(const Command& command, po::options_description& options) {
  auto add = options.add_options();
  if (command.has(Trait::kSkipsBad))
    add("skip-bad",
        "leave out inputs that cannot be used, and go on with the others; else the first one stops "
        "the run");
  if (command.has(Trait::kJoinsInputs)) return;
  add("resume",
      "leave out pictures that an earlier run into the folder has done, unless they "
      "changed since");
  add("verify", "see by their content, not by size and time, whether pictures changed");
  add("shard", po::value<std::string>()->value_name("I/N"),
      "do only part I of N of the pictures; gather puts the parts together");
}

}  // namespace

void declare_common(po::options_description& options) {
  auto add = options.add_options();
  add("help,h", "show this text");
  add("quiet,q", "print errors only");
  add("verbose,v", "say what is done and how long it took");
  add("summary", po::value<std::string>()->value_name("text|json"),
      "how the summary on stdout is written (default text)");
  add("config", po::value<std::string>()->value_name("FILE"),
      "options from a YAML file, as name: value; what is typed wins");
  add("progress", po::value<std::string>()->value_name("auto|always|never"),
      "show how far long work is (default auto: on a terminal; elsewhere a line now and then)");
}

void declare_shared(const Command& command, po::options_description& options) {
  declare_files(options);
  declare_counting(command, options);
  declare_channels(command, options);
  declare_reading(command, options);
  declare_running(command, options);
  declare_many(command, options);
}

namespace {

/// Which pixels count.
void read_counted(const Command& command, const po::variables_map& given, SharedOptions& shared) {
  if (given.count("region")) {
    shared.region =
        read_option("--region", [&] { return parse_region(given["region"].as<std::string>()); });
  }
  if (given.count("within")) set_within(shared, given["within"].as<std::string>());
  const std::vector<std::string> alphas =
      command.own_alpha.empty() ? std::vector<std::string>{"skip", "count"} : command.own_alpha;
  shared.count_transparent =
      one_of("--alpha", text_of(given, "alpha", alphas.front()), alphas) == "count";
  shared.hue_floor = percentage("--hue-floor", text_of(given, "hue-floor", "0"));
}

/// What stored samples mean, and what channels are called.
void read_meaning(const Command& command, const po::variables_map& given, SharedOptions& shared) {
  if (command.has(Trait::kQuotesValues) && given.count("units"))
    shared.units =
        choice_of<QuotedUnits>("--units", given["units"].as<std::string>(),
                               {{"unit", QuotedUnits::kUnit}, {"code", QuotedUnits::kCode}});
  if (given.count("assume"))
    shared.assume = &space_option("--assume", given["assume"].as<std::string>());
  if (given.count("full-scale"))
    shared.full_scale = static_cast<double>(
        whole_number("--full-scale", given["full-scale"].as<std::string>(), 1, 65535));
  if (given.count("page"))
    shared.page = whole_number("--page", given["page"].as<std::string>(), 1, 65535);
  if (given.count("bands")) shared.bands = bands_option(given["bands"].as<std::string>());
  for (const std::string& text : texts_of(given, "let"))
    shared.names.derived.push_back(
        read_option("--let", [&] { return derived_channel(text, shared.names.derived); }));
  if (command.has(Trait::kNamesChannels) && given.count("space"))
    shared.names.bare_space = &space_option("--space", given["space"].as<std::string>());
  if (given.count("rescale-samples")) shared.samples_of_other_size = OtherSize::kRescale;
}

/// How the run goes.
void read_running(const po::variables_map& given, SharedOptions& shared) {
  if (given.count("threads"))
    shared.threads = static_cast<unsigned>(
        whole_number("--threads", given["threads"].as<std::string>(), 1, 1024));
  if (given.count("max-pixels"))
    shared.max_pixels =
        whole_number("--max-pixels", given["max-pixels"].as<std::string>(), 1, UINT64_MAX);
  if (given.count("seed"))
    shared.seed = whole_number("--seed", given["seed"].as<std::string>(), 0, UINT64_MAX);
  shared.clobber = given.count("no-clobber") == 0;
  shared.skip_bad = given.count("skip-bad") > 0;
  settle_parts(shared, given);
}

/// Errors    UsageError
void refuse_meaningless(const RefusedOptions& refused, const po::variables_map& given) {
  std::vector<std::string> options = refused.options;
  if (wants_no_figures("figures", text_of(given, "figures", ""))) std::erase(options, "figures");
  refuse_options(given, options, refused.why);
}

}  // namespace

SharedOptions shared_from(const Command& command, const po::variables_map& given) {
  refuse_meaningless(command.refuses, given);
  SharedOptions shared;
  shared.command = command.name;
  shared.output = text_of(given, "output", "");
  if (given.count("output") && shared.output.empty())
    throw UsageError("--output: the path is empty", "name a folder or a file");
  shared.operands = named_inputs(given);
  if (shared.operands.empty())
    throw UsageError("no input is given",
                     fmt::format("the call is chalcedony {} {}", command.name, command.operands));
  po::options_description declared;
  command.declare(declared);
  declare_shared(command, declared);
  shared.typed = typed_options(declared, given);
  set_inputs(shared, shared.operands, given.count("recursive") > 0);
  leave_out_partners(declared, shared);
  if (given.count("write")) shared.write = split_list(given["write"].as<std::string>());
  if (given.count("figures"))
    shared.figures = figure_format_named(
        one_of("--figures", given["figures"].as<std::string>(), {"png", "svg", "pdf", "none"}));
  read_counted(command, given, shared);
  read_meaning(command, given, shared);
  read_running(given, shared);
  return shared;
}

void refuse_options(const po::variables_map& given, const std::vector<std::string>& options,
                    const std::string& why) {
  for (const std::string& option : options)
    if (given.count(option))
      throw UsageError("--" + option + " means nothing here: " + why, "leave it out");
}

}  // namespace chalcedony::cli
