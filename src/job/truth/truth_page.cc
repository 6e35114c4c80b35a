#include "job/truth/truth_page.h"

#include <cstddef>

#include "io/text/json_text.h"
#include "job/page/html_page.h"
#include "job/page/page_assets.h"
#include "job/run/summary.h"

namespace chalcedony {
namespace {

/// As the script of the page reads it.
std::string drawn_json(const TruthPageContent& content) {
  Json json{{"table", content.table},
            {"drawn", word_of(content.drawn.drawn)},
            {"classes", Json::array()},
            {"pixels", Json::array()}};
  for (const LegendEntry& one : content.classes)
    json["classes"].push_back({{"name", one.name}, {"color", one.color}});
  for (std::size_t i = 0; i < content.drawn.pixels.size(); ++i) {
    const TruthPixel& pixel = content.drawn.pixels[i];
    const SeenPixel& seen = content.seen[i];
    Json one{{"x", pixel.x},      {"y", pixel.y},      {"left", seen.left}, {"top", seen.top},
             {"wide", seen.wide}, {"high", seen.high}, {"seen", seen.seen}};
    if (pixel.stratum) one["stratum"] = *pixel.stratum;
    json["pixels"].push_back(std::move(one));
  }
  return script_json(json_text(json));
}

}  // namespace

std::string truth_page(const TruthPageContent& content) {
  const std::string body =
      filled(kTruthBody, {{"pixels", std::to_string(content.drawn.pixels.size())},
                          {"picture", escaped_html(content.picture)},
                          {"map", escaped_html(content.map)},
                          {"how", escaped_html(content.how)},
                          {"table", escaped_html(content.table)},
                          {"drawn", drawn_json(content)}});
  return html_page({"What is it? " + content.map, kTruthStyle, body, kTruthScript});
}

}  // namespace chalcedony
