// A page of tune, worked on in a browser, and what stands in it.
#ifndef CHALCEDONY_TESTS_SUPPORT_TUNE_PAGE_H_
#define CHALCEDONY_TESTS_SUPPORT_TUNE_PAGE_H_

#include <cstdint>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "tests/support/browser.h"
#include "tests/support/pictures.h"
#include "tests/support/temp_dir.h"

namespace chalcedony::test {

/// What a page tells once `work` was done on it by pointer and keys.
inline nlohmann::json found_on_tune(const TempDir& dir, const std::filesystem::path& page,
                                    const std::string& work, const std::string& size = "1280,800") {
  const std::string hands = R"(
Element.prototype.setPointerCapture = () => {};
const press = (key, more) => dispatchEvent(new KeyboardEvent("keydown", { key, ...more }));
const pointer = (target, kind, x, y) => target.dispatchEvent(new PointerEvent(kind,
  { button: 0, pointerId: 1, bubbles: true, clientX: x, clientY: y }));
const over = (...places) => {
  const frame = sheet.getBoundingClientRect(), at = ([x, y]) => [frame.left + x * zoom, frame.top + y * zoom];
  pointer(seen, "pointerdown", ...at(places[0]));
  for (const place of places) pointer(seen, "pointermove", ...at(place));
  pointer(seen, "pointerup", ...at(places[places.length - 1]));
};
const slide = (name, from, to) => {
  const { channel, canvas } = panels.find(panel => panel.channel.name === name), frame = canvas.getBoundingClientRect();
  const at = v => [frame.left + (v - channel.low) / (channel.high - channel.low) * frame.width, frame.top + 20];
  pointer(canvas, "pointerdown", ...at(from));
  pointer(canvas, "pointermove", ...at(to));
  pointer(canvas, "pointerup", ...at(to));
};
const type = (name, end, text) => {
  const input = panels.find(panel => panel.channel.name === name)[end];
  input.value = text;
  input.dispatchEvent(new Event("change"));
  return input.validationMessage;
};
const isTaken = (x, y) => taken[kindOf[y * size.width + x]] === 1;
const count = () => taken.reduce((sum, is, k) => sum + is * weights[k], 0);
found.taken = [];
const note = () => found.taken.push([selectionText(current().limits, channels), count()]);
)";
  return found_on_page(dir, page, hands + work + R"(
found.selection = selectionText(current().limits, channels);
found.file = fileText();)",
                       size);
}

/// The JSON that stands in an element of a page.
inline nlohmann::json page_json(const std::string& page, const std::string& id) {
  const std::size_t begin = page.find('>', page.find("id=\"" + id + "\"")) + 1;
  return nlohmann::json::parse(page.substr(begin, page.find("</script>", begin) - begin));
}

/// The bytes that stand in an element of a page.
inline std::vector<std::uint8_t> bytes_on(const std::filesystem::path& page,
                                          const std::string& id) {
  const std::string digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/",
                    text = text_of_file(page), begin = "id=\"" + id + "\">";
  std::vector<std::uint8_t> bytes;
  std::uint32_t bits = 0;
  int held = 0;
  for (std::size_t at = text.find(begin) + begin.size(); text[at] != '<' && text[at] != '='; ++at) {
    bits = bits << 6 | static_cast<std::uint32_t>(digits.find(text[at]));
    held += 6;
    if (held < 8) continue;
    held -= 8;
    bytes.push_back(static_cast<std::uint8_t>(bits >> held));
  }
  return bytes;
}

}  // namespace chalcedony::test

#endif  // CHALCEDONY_TESTS_SUPPORT_TUNE_PAGE_H_
