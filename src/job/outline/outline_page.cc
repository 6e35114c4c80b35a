#include "job/outline/outline_page.h"

#include <cstddef>

#include "core/learn/checked_guesses.h"
#include "core/palette/figure_colors.h"
#include "io/document/sample_file.h"
#include "io/text/json_text.h"
#include "job/page/html_page.h"
#include "job/page/page_assets.h"
#include "job/run/summary.h"

namespace chalcedony {
namespace {

constexpr std::size_t kColors = 64;  // for classes that have none

/// The classes by what they are called once they are no guesses.
Json classes_json(const std::vector<SampleClass>& classes) {
  SampleSet named;
  for (SampleClass one : classes) {
    if (is_guess(one.name)) one.name.pop_back();
    named.add({{one}, {}});
  }
  Json json = Json::array();
  for (const SampleClass& one : named.classes)
    json.push_back({{"name", one.name}, {"color", one.color}});
  return json;
}

std::string begun_json(const OutlinePageContent& content) {
  Json json{{"file", content.saved},
            {"classes", classes_json(content.begun.classes)},
            {"colors", Json::array()},
            {"samples", Json::parse(samples_text(content.begun, content.width, content.height))}};
  for (std::size_t i = 0; i < kColors; ++i) json["colors"].push_back(css_hex(class_color(i)));
  return script_json(json_text(json));
}

}  // namespace

std::string outline_page(const OutlinePageContent& content) {
  const std::string body = filled(kOutlineBody, {{"picture", escaped_html(content.picture)},
                                                 {"saved", escaped_html(content.saved)},
                                                 {"seen", content.seen},
                                                 {"map", content.map},
                                                 {"width", std::to_string(content.width)},
                                                 {"height", std::to_string(content.height)},
                                                 {"begun", begun_json(content)}});
  return html_page({"Outline " + content.picture, kOutlineStyle, body, kOutlineScript});
}

}  // namespace chalcedony
