#include "job/page/html_page.h"

#include <cstddef>
#include <stdexcept>

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

std::string filled(std::string_view body, const std::map<std::string_view, std::string>& words) {
  std::string out;
  std::size_t from = 0;
  for (std::size_t at = body.find("{{"); at != std::string_view::npos; at = body.find("{{", from)) {
    const std::size_t end = body.find("}}", at);
    const auto word = words.find(body.substr(at + 2, end - at - 2));
    if (end == std::string_view::npos || word == words.end())
      throw std::logic_error("a body has a word that nothing stands for");
    out.append(body, from, at - from).append(word->second);
    from = end + 2;
  }
  return out.append(body, from);
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
