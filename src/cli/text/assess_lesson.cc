#include "cli/text/assess_lesson.h"

#include <fmt/format.h>

#include <map>
#include <ostream>
#include <string>
#include <vector>

#include "cli/text/json_format.h"
#include "cli/text/text_table.h"

namespace chalcedony::cli {
namespace {

/// The matrix of a summary with its totals.
struct Totals {
  std::vector<std::string> names;                  // of the columns
  std::vector<std::vector<std::uint64_t>> matrix;  // the last row is unclassified
  std::vector<std::uint64_t> row, column;
  std::uint64_t all = 0, agreed = 0;

  explicit Totals(const Json& assessment) {
    for (const Json& c : assessment["classes"]) names.push_back(c["name"]);
    column.resize(names.size());
    for (const Json& line : assessment["matrix"]) {
      matrix.push_back(line.get<std::vector<std::uint64_t>>());
      row.push_back(0);
      for (std::size_t c = 0; c < names.size(); ++c) {
        row.back() += matrix.back()[c];
        column[c] += matrix.back()[c];
      }
      all += row.back();
    }
    for (std::size_t c = 0; c < names.size(); ++c) agreed += matrix[c][c];
  }
};

void tell_fill(const Json& assessment, std::ostream& out) {
  out << "\nStep 1. Every assessed pixel adds 1 to one cell: its row is what the map says, its "
         "column what the reference says.\n";
  std::map<std::pair<std::string, std::string>, int> cells;
  int number = 0;
  for (const Json& pixel : assessment["shown"]) {
    const auto mapped = pixel["mapped"].get<std::string>();
    const auto reference = pixel["reference"].get<std::string>();
    out << fmt::format(
        "  {:>3}. {}pixel {},{}: map {}, reference {}; row {}, column {} is now {}{}\n", ++number,
        pixel.contains("map") ? pixel["map"].get<std::string>() + ", " : "", pixel["x"], pixel["y"],
        mapped, reference, mapped, reference, ++cells[{mapped, reference}],
        mapped == reference ? "" : " (an error)");
  }
}

void tell_classes(const Totals& t, std::ostream& out) {
  out << "\nStep 3. Omission: the part of a column that is not on the diagonal. Commission: the "
         "same "
         "of a row.\n";
  for (std::size_t c = 0; c < t.names.size(); ++c) {
    const auto right = t.matrix[c][c];
    const auto one = [&](const char* what, const char* complement, std::uint64_t total) {
      if (total == 0) {
        out << fmt::format("  {}: {} has no pixels to judge by\n", t.names[c], what);
        return;
      }
      const double share = 100.0 * static_cast<double>(right) / static_cast<double>(total);
      out << fmt::format("  {}: {} = ({} - {}) / {} = {:.2f} %, so {} = {:.2f} %\n", t.names[c],
                         what, total, right, total, 100 - share, complement, share);
    };
    one("omission", "producer's accuracy", t.column[c]);
    one("commission", "user's accuracy", t.row[c]);
  }
}

void tell_kappa(const Totals& t, std::ostream& out) {
  const double n = static_cast<double>(t.all), observed = static_cast<double>(t.agreed) / n;
  std::string diagonal, products;
  double chance = 0;
  for (std::size_t c = 0; c < t.names.size(); ++c) {
    diagonal += (c ? " + " : "") + std::to_string(t.matrix[c][c]);
    products += fmt::format("{}{} x {}", c ? " + " : "", t.row[c], t.column[c]);
    chance += static_cast<double>(t.row[c]) * static_cast<double>(t.column[c]) / (n * n);
  }
  out << fmt::format(
      "\nStep 4. Overall accuracy: the diagonal over all pixels.\n  ({}) / {} = {} / "
      "{} = {:.4f}\n",
      diagonal, t.all, t.agreed, t.all, observed);
  out << fmt::format(
      "\nStep 5. Agreement by chance: row total times column total of each class, "
      "over the square of all pixels.\n  ({}) / {}^2 = {:.4f}\n",
      products, t.all, chance);
  out << "\nStep 6. Kappa: what is agreed beyond chance, of what could be.\n";
  if (chance >= 1) {
    out << "  chance alone explains all of it, so kappa cannot be said\n";
    return;
  }
  out << fmt::format("  ({:.4f} - {:.4f}) / (1 - {:.4f}) = {:.4f}\n", observed, chance, chance,
                     (observed - chance) / (1 - chance));
}

}  // namespace

void print_assess_lesson(const Json& assessment, std::ostream& out) {
  const Totals totals(assessment);
  tell_fill(assessment, out);
  out << fmt::format("\nStep 2. All {} pixels make the matrix above, with its totals.\n",
                     counted(totals.all));
  tell_classes(totals, out);
  tell_kappa(totals, out);
}

}  // namespace chalcedony::cli
