#include "cli/text/outputs_text.h"

#include <fmt/format.h>

#include <ostream>
#include <set>
#include <string>

#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {

void print_outputs(const Json& summary, std::ostream& out) {
  if (summary.contains("unchanged"))
    out << plural(summary["unchanged"], "picture") << " done before, unchanged and left out\n";
  std::set<std::string> kept;
  for (const Json& path : summary.value("kept", Json::array())) kept.insert(path);
  for (const Json& path : summary["outputs"])
    if (!kept.contains(path)) out << "wrote " << path.get<std::string>() << '\n';
}

void print_use_of_selections(const Json& summary, std::string_view ending, std::ostream& out) {
  for (const Json& path : summary["outputs"])
    if (const auto text = path.get<std::string>(); text.ends_with(ending)) {
      out << "give " << text
          << " to slice with --config for a class map, or to tune to see and change it\n";
      return;
    }
}

void print_left_out(const Json& picture, std::ostream& out) {
  const auto line = [&](const char* kind, const char* words) {
    const Json& excluded = picture["excluded"];
    if (excluded.contains(kind))
      out << fmt::format("  not counted: {} {}\n", plural(excluded[kind], "pixel"), words);
  };
  line("outside_region", "outside the region");
  line("outside_mask", "outside the mask");
  line("transparent", "fully transparent");
  line("not_finite", "not a finite number");
  line("unlabelled", "without a label in the reference");
  line("trained", "that trained the model");
  const std::uint64_t clipped = picture.value("clipped", std::uint64_t{0});
  if (clipped > 0)
    out << fmt::format("  {} outside sRGB, clipped to 0-255 for this\n", plural(clipped, "pixel"));
  if (picture.contains("near_gray_percent"))
    out << fmt::format(
        "  {:.1f} % near gray (r g b within {:g} % of full scale), hue mostly noise\n",
        picture["near_gray_percent"], kNearGrayPercent);
}

void print_cut_off(double percent, std::ostream& out) {
  if (percent > 0)
    out << fmt::format("  {} leave the range and are cut off\n", rough_percent(percent));
}

}  // namespace chalcedony::cli
