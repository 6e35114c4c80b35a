#include "job/tune/tune_page.h"

#include <bit>
#include <cstddef>
#include <cstdint>
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

/// The kinds of pixels as the page reads them.
struct KindColumns {
  std::vector<float> values;  // channel by channel: one for each kind
  std::vector<std::uint8_t> rgb, classes;

  KindColumns(const DistinctRows& kinds, std::size_t channels) {
    const KindWords layout(channels);
    for (std::size_t c = 0; c < channels; ++c)
      for (std::size_t k = 0; k < kinds.size(); ++k)
        values.push_back(KindWords::value(kinds.row(k), c));
    for (std::size_t k = 0; k < kinds.size(); ++k) {
      for (unsigned c = 0; c < 3; ++c) rgb.push_back(layout.color(kinds.row(k), c));
      classes.push_back(layout.class_of(kinds.row(k)));
    }
  }
};

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
  std::vector<std::string> words{command};
  words.insert(words.end(), content.typed.begin(), content.typed.end());
  for (const TypedOption& option : content.options)
    for (const std::string& value : option.values) {
      words.push_back("--" + option.name);
      words.push_back(value);
    }
  return typed_line(words);
}

Json frames_json(const std::vector<PictureFrame>& frames) {
  Json json = Json::array();
  for (const PictureFrame& one : frames)
    json.push_back({{"name", one.name},
                    {"left", one.left},
                    {"top", one.top},
                    {"width", one.width},
                    {"height", one.height},
                    {"step", one.step}});
  return json;
}

std::string begun_json(const TunePageContent& content, const FramedView& pictures) {
  Json json{{"stem", content.stem},
            {"mask", command_text("mask", content)},
            {"slice", command_text("slice", content)},
            {"width", pictures.view.width},
            {"height", pictures.view.height},
            {"kinds", pictures.view.kinds.size()},
            {"frames", frames_json(pictures.frames)},
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

std::string tune_page(const TunePageContent& content, const FramedView& pictures) {
  const KindColumns kinds(pictures.view.kinds, content.channels.size());
  const std::string body = filled(kTuneBody, {{"title", escaped_html(content.title)},
                                              {"values", numbers_text(kinds.values)},
                                              {"rgb", numbers_text(kinds.rgb)},
                                              {"classes", numbers_text(kinds.classes)},
                                              {"kinds", kinds_text(pictures.view.kind_of)},
                                              {"begun", begun_json(content, pictures)}});
  return html_page({"Tune " + content.title, kTuneStyle, body, kTuneScript});
}

}  // namespace chalcedony
