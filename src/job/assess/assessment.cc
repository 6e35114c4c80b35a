#include "job/assess/assessment.h"

#include <array>
#include <cmath>

#include "core/stats/holm_adjustment.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

/// One measure with what is known of its error.
struct Measure {
  std::optional<double> value;
  std::optional<double> standard_error;
  std::optional<Interval> interval;
};

Measure measure(const std::optional<double>& value, const std::optional<Interval>& interval = {}) {
  return {value, {}, interval};
}
Measure measure(const Estimate& estimate) { return {estimate.value, estimate.standard_error, {}}; }
Measure measure(const std::optional<Estimate>& estimate) {
  return estimate ? measure(*estimate) : Measure{};
}

std::optional<double> complement(const std::optional<double>& share) {
  return share ? std::optional(1 - *share) : std::nullopt;
}

void put(Json& json, const std::string& name, const Measure& m) {
  if (!m.value) return;
  json[name] = *m.value;
  if (m.standard_error) json[name + "_standard_error"] = *m.standard_error;
  if (!m.interval) return;
  json[name + "_low"] = m.interval->low;
  json[name + "_high"] = m.interval->high;
}

/// The measures of the whole map, by their names in tables and summaries.
template <class Use>
void overall_measures(const Assessment& a, Use&& use) {
  const Accuracy& accuracy = a.map.accuracy;
  use("overall", measure(accuracy.overall, accuracy.overall_interval));
  if (accuracy.kappa) {
    use("kappa", Measure{accuracy.kappa->value, std::sqrt(accuracy.kappa->variance),
                         accuracy.kappa->interval});
    use("kappa_variance", measure(accuracy.kappa->variance));
  }
  use("quantity_disagreement", measure(accuracy.quantity_disagreement));
  use("allocation_disagreement", measure(accuracy.allocation_disagreement));
  if (a.adjusted) use("adjusted_overall", measure(a.adjusted->overall));
}

template <class Use>
void class_measures(const Assessment& a, std::size_t c, Use&& use) {
  const ClassAccuracy& one = a.map.accuracy.classes[c];
  use("users", measure(one.users, one.users_interval));
  use("commission", measure(complement(one.users)));
  use("precision", measure(one.users));
  use("producers", measure(one.producers, one.producers_interval));
  use("omission", measure(complement(one.producers)));
  use("recall", measure(one.producers));
  use("f1", measure(one.f1));
  use("intersection_over_union", measure(one.intersection));
  use("kappa_users", measure(one.kappa_users));
  use("kappa_producers", measure(one.kappa_producers));
  use("mapped_share", measure(a.mapped_shares[c]));
  if (!a.adjusted) return;
  const AdjustedClass& adjusted = a.adjusted->classes[c];
  use("area_share", measure(adjusted.area));
  use("adjusted_users", measure(adjusted.users));
  use("adjusted_producers", measure(adjusted.producers));
}

const char* name_of(MatchedBy by) {
  return by == MatchedBy::kName ? "name" : by == MatchedBy::kNumber ? "number" : "pairs";
}

Json matrix_json(const ErrorMatrix& matrix) {
  Json rows = Json::array();
  for (std::size_t r = 0; r < matrix.rows(); ++r) {
    Json& row = rows.emplace_back(Json::array());
    for (std::size_t c = 0; c < matrix.columns(); ++c) row.push_back(matrix.at(r, c));
  }
  return rows;
}

Json test_json(const TestResult& test) { return {{"statistic", test.statistic}, {"p", test.p}}; }

Json comparison_json(const Accuracy& first, const OtherMap& other) {
  const Accuracy& second = other.map.accuracy;
  Json json;
  put(json, "overall", measure(second.overall, second.overall_interval));
  if (second.kappa) json["kappa"] = second.kappa->value;
  json["only_first"] = other.only_first;
  json["only_this"] = other.only_this;
  if (first.kappa && second.kappa)
    if (const auto test = kappa_difference(*first.kappa, *second.kappa))
      json["kappa_difference"] = test_json(*test);
  if (const auto test = mcnemar(other.only_first, other.only_this))
    json["mcnemar"] = test_json(*test);
  return json;
}

/// Of several other maps, one is easily taken for different by chance.
Json comparisons_json(const Assessment& a) {
  Json all = Json::array();
  std::vector<double> p;
  for (const OtherMap& other : a.versus) {
    all.push_back(comparison_json(a.map.accuracy, other));
    if (all.back().contains("mcnemar")) p.push_back(all.back()["mcnemar"]["p"]);
  }
  const std::vector<double> adjusted = holm_adjusted(p);
  auto next = adjusted.begin();
  for (Json& one : all)
    if (one.contains("mcnemar")) one["mcnemar"]["p_adjusted"] = *next++;
  return all;
}

/// What the fields of RightCounts are called.
constexpr std::array<const char*, kRightMaps> kRightFields{"all", "first_and_some", "only_first",
                                                           "only_others", "none"};

Json right_in_json(const std::vector<RightCounts>& classes) {
  Json json;
  for (std::size_t r = 0; r < kRightMaps; ++r) {
    std::uint64_t pixels = 0;
    for (const RightCounts& one : classes) pixels += one[r];
    json[kRightFields[r]] = pixels;
  }
  return json;
}

}  // namespace

std::uint64_t right_pixels(const Agreement& agreement) {
  std::uint64_t right = 0;
  for (const ClassAccuracy& c : agreement.accuracy.classes) right += c.agreed;
  return right;
}

Json assessment_json(const Assessment& a) {
  const ClassMatching& matching = a.map.matching;
  Json json{{"matched_by", name_of(matching.by)},
            {"only_in_map", matching.only_in_map},
            {"only_in_reference", matching.only_in_reference},
            {"assessed", a.map.accuracy.total},
            {"matrix", matrix_json(a.map.matrix)}};
  overall_measures(a, [&](const char* name, const Measure& m) { put(json, name, m); });
  json["classes"] = Json::array();
  for (std::size_t c = 0; c < matching.names.size(); ++c) {
    const ClassAccuracy& one = a.map.accuracy.classes[c];
    Json entry{{"name", matching.names[c]},
               {"mapped", one.mapped},
               {"reference", one.reference},
               {"agreed", one.agreed}};
    class_measures(a, c, [&](const char* name, const Measure& m) { put(entry, name, m); });
    json["classes"].push_back(entry);
  }
  if (a.versus.empty()) return json;
  json["versus"] = comparisons_json(a);
  json["right_in"] = right_in_json(a.right_in);
  for (std::size_t c = 0; c < matching.names.size(); ++c)
    json["classes"][c]["right_in"] = right_in_json({a.right_in[c]});
  return json;
}

void write_matrix(const std::filesystem::path& path, const Agreement& agreement) {
  const ErrorMatrix& matrix = agreement.matrix;
  std::vector<std::string> header{"unit", "mapped_as"};
  for (const std::string& name : agreement.matching.names) header.push_back("reference_" + name);
  header.push_back("total");
  CsvTable table(header);
  const double total = static_cast<double>(matrix.total());
  for (const bool shares : {false, true}) {
    const auto field = [&](std::uint64_t count) {
      return shares ? CsvField(static_cast<double>(count) / total) : CsvField(count);
    };
    const auto row = [&](const std::string& name, auto count_in, std::uint64_t sum) {
      std::vector<CsvField> fields{shares ? "share" : "pixels", name};
      for (std::size_t c = 0; c < matrix.columns(); ++c) fields.push_back(field(count_in(c)));
      fields.push_back(field(sum));
      table.add(fields);
    };
    for (std::size_t r = 0; r < matrix.rows(); ++r)
      row(
          agreement.matching.row_name(r), [&](std::size_t c) { return matrix.at(r, c); },
          matrix.row_total(r));
    row(
        "total", [&](std::size_t c) { return matrix.column_total(c); }, matrix.total());
  }
  table.write(path);
}

void write_accuracy(const std::filesystem::path& path, const Assessment& a) {
  CsvTable table({"class", "measure", "value", "standard_error", "low", "high"});
  const auto add = [&](const std::string& name, const char* what, const Measure& m) {
    const auto field = [](const std::optional<double>& v) { return v ? CsvField(*v) : CsvField(); };
    table.add({name, what, field(m.value), field(m.standard_error),
               m.interval ? CsvField(m.interval->low) : CsvField(),
               m.interval ? CsvField(m.interval->high) : CsvField()});
  };
  overall_measures(a, [&](const char* what, const Measure& m) { add("", what, m); });
  for (std::size_t c = 0; c < a.map.matching.names.size(); ++c)
    class_measures(
        a, c, [&](const char* what, const Measure& m) { add(a.map.matching.names[c], what, m); });
  table.write(path);
}

void write_versus(const std::filesystem::path& path, const Assessment& a) {
  std::vector<std::string> header{"class", "pixels"};
  header.insert(header.end(), kRightFields.begin(), kRightFields.end());
  CsvTable table(header);
  for (std::size_t c = 0; c < a.right_in.size(); ++c) {
    std::vector<CsvField> row{a.map.matching.names[c], a.map.accuracy.classes[c].reference};
    row.insert(row.end(), a.right_in[c].begin(), a.right_in[c].end());
    table.add(row);
  }
  table.write(path);
}

void write_sampled(const std::filesystem::path& path, std::size_t pixels,
                   const std::function<ToldPixel(std::size_t)>& told) {
  std::vector<std::string> header{"x", "y", "mapped", "reference"};
  const bool several = pixels > 0 && !told(0).map.empty();
  if (several) header.insert(header.begin(), "map");
  CsvTable table(header);
  for (std::size_t i = 0; i < pixels; ++i) {
    const ToldPixel one = told(i);
    std::vector<CsvField> row{one.x, one.y, one.mapped, one.reference};
    if (several) row.insert(row.begin(), one.map);
    table.add(row);
  }
  table.write(path);
}

}  // namespace chalcedony
