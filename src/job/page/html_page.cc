#include "job/page/html_page.h"

#include <cstddef>

#include "job/page/page_assets.h"

namespace chalcedony {

std::string html_page(const HtmlPage& page) {
  std::string out =
      "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
      "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n"
      "<link rel=\"icon\" href=\"data:,\">\n<title>" +
      escaped_html(page.title) + "</title>\n<style>\n" + kPageStyle;
  out += page.style;
  out += "</style>\n</head>\n<body>\n" + page.body + "<script>\n" + page.script +
         "</script>\n</body>\n</html>\n";
  return out;
}

std::string script_json(std::string json) {
  for (std::size_t at = json.find('<'); at != std::string::npos; at = json.find('<', at))
    json.replace(at, 1, "\\u003c");
  return json;
}

std::string escaped_html(const std::string& text) {
  std::string out;
  for (const char c : text) {
    switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      case '"':
        out += "&quot;";
        break;
      default:
        out += c;
    }
  }
  return out;
}

}  // namespace chalcedony
