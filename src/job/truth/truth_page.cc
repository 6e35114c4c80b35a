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
  std::string body = "<header><h1>What is it?</h1>\n<p>" +
                     std::to_string(content.drawn.pixels.size()) + " pixels of " +
                     escaped_html(content.picture) + ", drawn to judge " +
                     escaped_html(content.map) + " (" + escaped_html(content.how) +
                     "). What the map says is not shown. Keys: the numbers beside the classes, 0, "
                     "and the arrows.</p></header>\n";
  body += R"(<main>
<p id="where" role="status"></p>
<div class="views">
<figure><div class="view" id="near"><img alt=""><i></i></div><figcaption>from near</figcaption></figure>
<figure><div class="view" id="around"><img alt=""><i></i></div><figcaption>what lies around it</figcaption></figure>
</div>
<div class="classes" id="classes" role="group" aria-label="What it is"></div>
<form id="another"><label for="name">Another class</label><input id="name" autocomplete="off"><button>It is this</button></form>
<div class="steps"><button type="button" id="unknown">It cannot be told<kbd>0</kbd></button>
<button type="button" id="back">Back</button><button type="button" id="next">Next</button></div>
<p id="state" role="status"></p>
)";
  body += "<p><a id=\"save\" download=\"" + escaped_html(content.table) +
          "\">Save the table</a> as " + escaped_html(content.table) +
          ", in the place of the empty one; then <code>chalcedony assess</code> takes it with "
          "--reference.</p>\n</main>\n<script type=\"application/json\" id=\"drawn\">" +
          drawn_json(content) + "</script>\n";
  return html_page({"What is it? " + content.map, kTruthStyle, std::move(body), kTruthScript});
}

}  // namespace chalcedony
