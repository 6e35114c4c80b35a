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

constexpr const char* kTools = R"(<main>
<div class="steps" role="toolbar" aria-label="How to draw">
<button type="button" data-tool="rectangle">Rectangle<kbd>r</kbd></button>
<button type="button" data-tool="polygon">Polygon<kbd>p</kbd></button>
<button type="button" data-tool="disc">Disc or pixel<kbd>d</kbd></button>
<button type="button" data-tool="choose">Choose, move<kbd>c</kbd></button>
<button type="button" id="undo">Undo<kbd>Ctrl Z</kbd></button>
<button type="button" id="remove">Remove<kbd>Delete</kbd></button>
<button type="button" id="show-map" hidden>Map<kbd>m</kbd></button>
<button type="button" id="farther" aria-label="Farther">&minus;</button>
<button type="button" id="nearer" aria-label="Nearer">+</button>
<button type="button" id="whole">Whole picture<kbd>w</kbd></button>
</div>
<div class="told"><p id="hint" role="status"></p><p id="state" role="status"></p><p><a id="save" href="#" download="%SAVED%">Save the regions</a></p></div>
<div class="work">
<div><div class="stage" id="stage" tabindex="0" aria-label="The picture"><div class="sheet" id="sheet"><img id="seen" alt="the picture" src=")";

constexpr const char* kMap = R"("><img id="map" alt="its class map" hidden src=")";

constexpr const char* kLists =
    R"("><svg id="drawing" viewBox="0 0 %SIZE%" preserveAspectRatio="none" aria-hidden="true"></svg></div></div>
<p id="under"></p></div>
<aside>
<h2>Classes</h2>
<div class="classes" id="classes" role="group" aria-label="The class of what is drawn"></div>
<form id="another"><input id="name" autocomplete="off" aria-label="Name of a class" placeholder="name of a class"><button id="add">Add</button><button id="rename">Rename</button></form>
<div class="steps" id="guesses"><button type="button" id="next">Next guess<kbd>n</kbd></button><button type="button" id="confirm">It is so<kbd>Enter</kbd></button></div>
<h2>Regions</h2>
<ol id="regions"></ol>
<form id="numbers"><input id="place" autocomplete="off" aria-label="A region by numbers" placeholder="X,Y or X,Y,W,H"><button>Add by numbers</button><button type="button" id="anew">Begin anew</button></form>
</aside>
</div>
)";

/// A text in which a word stands for another.
std::string with_word(std::string text, const std::string& word, const std::string& meaning) {
  return text.replace(text.find(word), word.size(), meaning);
}

}  // namespace

std::string outline_page(const OutlinePageContent& content) {
  const std::string picture = escaped_html(content.picture), saved = escaped_html(content.saved);
  const std::string body =
      "<header><h1>Outline " + picture +
      "</h1>\n<p>Draw what belongs together and name it. Keys: the numbers beside the classes, and "
      "the letters beside the tools.</p></header>\n" +
      with_word(kTools, "%SAVED%", saved) + content.seen +
      (content.map.empty() ? "" : kMap + content.map) +
      with_word(kLists, "%SIZE%",
                std::to_string(content.width) + " " + std::to_string(content.height)) +
      "<p>The regions are saved as " + saved +
      ". Put the file beside the picture: <code>chalcedony train</code>, <code>spots</code>, "
      "<code>assess</code> and others take it.</p>\n</main>\n"
      "<script type=\"application/json\" id=\"begun\">" +
      begun_json(content) + "</script>\n";
  return html_page({"Outline " + content.picture, kOutlineStyle, body, kOutlineScript});
}

}  // namespace chalcedony
