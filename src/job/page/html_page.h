// A page of HTML in one file that needs no other, in light and dark as the reader's system is.
#ifndef CHALCEDONY_JOB_PAGE_HTML_PAGE_H_
#define CHALCEDONY_JOB_PAGE_HTML_PAGE_H_

#include <map>
#include <string>
#include <string_view>

namespace chalcedony {

struct HtmlPage {
  std::string title;        // as text
  std::string_view style;   // besides that of all pages
  std::string body;         // as HTML
  std::string script = {};  // run when the body is there
};

std::string html_page(const HtmlPage& page);

/// A body with each `{{word}}` replaced by what stands for the word, as HTML. What replaces one is
/// not looked through.
///
/// Errors    std::logic_error for a word that nothing stands for
std::string filled(std::string_view body, const std::map<std::string_view, std::string>& words);

/// JSON as it stands in a script element: no text in it can end the element.
std::string script_json(std::string json);

/// Text as it stands in HTML, also inside of quotes.
std::string escaped_html(const std::string& text);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PAGE_HTML_PAGE_H_
