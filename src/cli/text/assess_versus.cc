#include "cli/text/assess_versus.h"

#include <fmt/format.h>

#include <cstdint>
#include <ostream>
#include <string>

#include "cli/text/accuracy_text.h"
#include "cli/text/json_format.h"
#include "cli/text/text_table.h"
#include "io/text/number_text.h"

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
      out << fmt::format("  {} {}, p {}\n", words, rounded_text(v[field]["statistic"], 3),
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

std::string percent_text(std::uint64_t pixels, std::uint64_t of) {
  return fmt::format("{:.1f} %", 100 * static_cast<double>(pixels) / static_cast<double>(of));
}

/// How many pixels all maps have right, and so on; and the class that none is right in most often.
void print_right_in(const Json& assessment, std::ostream& out) {
  const Json& right = assessment["right_in"];
  const auto share = [&](const char* in) {
    return percent_text(right[in], assessment["assessed"]);
  };
  if (assessment["versus"].size() == 1) {
    out << fmt::format("  both are right on {}, neither on {}", share("all"), share("none"));
  } else {
    out << fmt::format(
        "  all are right on {}, the first and some on {}, only the first on {}, "
        "only others on {},\n  none on {}",
        share("all"), share("first_and_some"), share("only_first"), share("only_others"),
        share("none"));
  }
  const Json* worst = nullptr;
  double most = 0;
  for (const Json& c : assessment["classes"]) {
    if (c["reference"] == 0) continue;
    const double none = c["right_in"]["none"].get<double>() / c["reference"].get<double>();
    if (none > most) most = none, worst = &c;
  }
  if (worst) out << fmt::format("; worst for {}: {:.1f} %", (*worst)["name"], 100 * most);
  out << '\n';
}

}  // namespace

void print_assess_versus(const Json& assessment, std::ostream& out) {
  const Json& versus = assessment["versus"];
  versus.size() == 1 ? print_one(versus[0], out) : print_several(versus, out);
  print_right_in(assessment, out);
  if (assessment["design"] == "all") out << "  with all pixels taken, p is too small as well\n";
}

}  // namespace chalcedony::cli
