#include "job/tune/tune_page.h"

#include <bit>
#include <cstddef>
#include <cstring>
#include <string_view>

#include "core/select/expression.h"
#include "core/select/likeness.h"
#include "io/text/base64.h"
#include "io/text/json_text.h"
#include "job/page/html_page.h"
#include "job/page/page_assets.h"
#include "job/run/summary.h"
#include "job/run/typed_line.h"

namespace chalcedony {
namespace {

// Scripts read numbers as the machine has them, and all browsers' have them so.
static_assert(std::endian::native == std::endian::little);

template <class Number>
std::string numbers_text(const std::vector<Number>& numbers) {
  return base64({reinterpret_cast<const char*>(numbers.data()), numbers.size() * sizeof(Number)});
}

/// Numbers below 2^24 in three bytes each.
std::string kinds_text(const std::vector<std::uint32_t>& kind_of) {
  std::string bytes;
  bytes.reserve(3 * kind_of.size());
  for (const std::uint32_t kind : kind_of)
    for (const int shift : {0, 8, 16}) bytes.push_back(static_cast<char>(kind >> shift));
  return base64(bytes);
}

Json channels_json(const std::vector<Channel>& channels) {
  Json json = Json::array();
  for (const Channel& channel : channels)
    json.push_back({{"name", channel.name()},
                    {"unit", channel.shown_unit()},
                    {"hue", channel.is_hue()},
                    {"near", equality_tolerance(channel)},
                    {"step", end_step(channel)},
                    {"least", least_width(channel)}});
  return json;
}

Json limits_json(const std::vector<ChannelLimits>& limits) {
  Json json = Json::object();
  for (const ChannelLimits& one : limits) {
    Json& ends = json[one.channel.name()] = Json::array();
    for (const std::optional<double>& end : {one.low, one.high})
      ends.push_back(end ? Json(*end) : Json());
  }
  return json;
}

Json tuned_json(const std::vector<TunedClass>& classes) {
  Json json = Json::array();
  for (const TunedClass& one : classes)
    json.push_back({{"name", one.name}, {"color", one.color}, {"limits", limits_json(one.limits)}});
  if (json.empty()) json.push_back({{"name", ""}, {"color", ""}, {"limits", Json::object()}});
  return json;
}

/// The command that selects, but for its selection and folder.
std::string command_text(const std::string& command, const TunePageContent& content) {
  std::vector<std::string> words{command, content.typed};
  for (const TypedOption& option : content.options)
    for (const std::string& value : option.values) {
      words.push_back("--" + option.name);
      words.push_back(value);
    }
  return typed_line(words);
}

std::string begun_json(const TunePageContent& content, const PictureView& view) {
  Json json{{"stem", content.stem},
            {"mask", command_text("mask", content)},
            {"slice", command_text("slice", content)},
            {"step", view.step},
            {"width", view.width},
            {"height", view.height},
            {"kinds", view.kinds},
            {"channels", channels_json(content.channels)},
            {"tuned", tuned_json(content.begun)},
            {"classes", Json::array()},
            {"options", Json::array()}};
  for (const CountedClass& one : content.classes)
    json["classes"].push_back({{"name", one.name}, {"color", one.color}});
  for (const TypedOption& option : content.options)
    json["options"].push_back({{"name", option.name}, {"values", option.values}});
  return script_json(json_text(json));
}

}  // namespace

std::string tune_page(const TunePageContent& content, const PictureView& view) {
  const std::string body = filled(kTuneBody, {{"picture", escaped_html(content.picture)},
                                              {"values", numbers_text(view.values)},
                                              {"rgb", numbers_text(view.rgb)},
                                              {"classes", numbers_text(view.classes)},
                                              {"kinds", kinds_text(view.kind_of)},
                                              {"begun", begun_json(content, view)}});
  return html_page({"Tune " + content.picture, kTuneStyle, body, kTuneScript});
}

}  // namespace chalcedony
