#include "cli/text/assess_versus.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/text/accuracy_text.h"
#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

std::string gain_text(const Json& v) {
  return fmt::format("{:+.2f} % ({:+.2f} to {:+.2f})", 100 * v["gain"].get<double>(),
                     100 * v["gain_low"].get<double>(), 100 * v["gain_high"].get<double>());
}

std::string p_text(double p) { return p < 1e-4 ? "below 0.0001" : fmt::format("{:.2g}", p); }

void print_one(const Json& v, std::ostream& out) {
  const std::string kappa =
      v.contains("kappa") ? fmt::format("{:.3f}", v["kappa"]) : "cannot be said";
  out << fmt::format("  {}: overall accuracy {}, kappa {}\n", v["file"],
                     with_interval(v, "overall", 100, " %"), kappa);
  out << fmt::format("  only the first is right on {}, only the second on {}\n",
                     plural(v["only_first"], "pixel"), counted(v["only_this"]));
  const auto test = [&](const char* field, const char* words) {
    if (v.contains(field))
      out << fmt::format("  {} {:.3g}, p {}\n", words, v[field]["statistic"],
                         p_text(v[field]["p"]));
  };
  test("kappa_difference", "difference of the kappas in standard errors (as of two samples): Z");
  test("mcnemar", "McNemar's test (the same pixels): chi-square");
  if (!v.contains("better_on")) return;
  out << fmt::format("  the second is right more often on {}, less often on {}",
                     plural(v["better_on"], "map"), counted(v["worse_on"]));
  if (v.contains("gain")) out << "; by " << gain_text(v) << ", by how much the maps differ";
  out << '\n';
}

void print_several(const Json& versus, std::ostream& out) {
  TextTable table(versus);
  table.words("versus", "file").cells("overall", [](const Json& v) {
    return share_text(v, "overall");
  });
  table.decimals("kappa", "kappa", 3)
      .counts("only the first right", "only_first")
      .counts("only this right", "only_this")
      .cells("p", [](const Json& v) {
        return v.contains("mcnemar") ? p_text(v["mcnemar"]["p_adjusted"]) : "";
      });
  if (versus[0].contains("better_on"))
    table.counts("better on", "better_on")
        .counts("worse on", "worse_on")
        .cells("gain", [](const Json& v) { return v.contains("gain") ? gain_text(v) : ""; });
  table.print(out);
  out << fmt::format("  p: McNemar's test on the same pixels, raised for {} comparisons\n",
                     versus.size());
  if (versus[0].contains("gain")) out << "  gain: with its interval by how much the maps differ\n";
}

}  // namespace

void print_assess_versus(const Json& assessment, std::ostream& out) {
  const Json& versus = assessment["versus"];
  versus.size() == 1 ? print_one(versus[0], out) : print_several(versus, out);
  if (assessment["design"] == "all") out << "  with all pixels taken, p is too small as well\n";
}

}  // namespace chalcedony::cli
