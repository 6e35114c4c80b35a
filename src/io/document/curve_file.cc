#include "io/document/curve_file.h"

#include <array>
#include <nlohmann/json.hpp>
#include <utility>

#include "core/error.h"
#include "io/file/whole_file.h"
#include "io/text/file_kind.h"
#include "io/text/json_text.h"
#include "io/text/known_keys.h"

namespace chalcedony {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array<std::pair<CurveKind, std::string_view>, 5> kNames{
    {{CurveKind::kNone, "none"},
     {CurveKind::kGain, "gain"},
     {CurveKind::kPower, "power"},
     {CurveKind::kAsinh, "asinh"},
     {CurveKind::kTable, "table"}}};

[[noreturn]] void reject_curves(const std::string& problem) {
  throw InputError(problem, "give a file written by 'chalcedony balance --save'");
}

CurveKind kind_named(const std::string& name) {
  for (const auto& [kind, known] : kNames)
    if (known == name) return kind;
  reject_curves("has a curve of the unknown kind '" + name + "'");
}

ToneCurve curve_of(const Json& json) {
  check_keys(json, {"kind", "black", "white", "strength", "table"});
  ToneCurve curve;
  curve.kind = kind_named(json.at("kind").get<std::string>());
  curve.black = json.at("black").get<double>();
  curve.white = json.at("white").get<double>();
  curve.strength = json.value("strength", 1.0);
  if (json.contains("table")) curve.table = json.at("table").get<std::vector<double>>();
  const bool has_table = curve.kind == CurveKind::kTable;
  if (has_table && curve.table.size() < 2) reject_curves("has a table without values");
  if (!(curve.white > curve.black))
    reject_curves("has a curve whose white does not lie above its black");
  // Every kind rises from its low end to its high end, and so must what a file says.
  for (int i = 1; i <= 16; ++i) {
    const double width = curve.white - curve.black;
    if (!(curve.at(curve.black + width * i / 16) > curve.at(curve.black + width * (i - 1) / 16)))
      reject_curves("has a curve that does not rise");
  }
  return curve;
}

CurveSet set_of(const Json& json) {
  if (!is_of_kind(json, "curves")) reject_curves("is not a file of curves");
  const int version = json.at("version").get<int>();
  if (version > kCurvesVersion)
    throw InputError("has curves of version " + std::to_string(version) +
                         ", this program reads up to " + std::to_string(kCurvesVersion),
                     "use the newer program that wrote it");
  check_keys(json, {"chalcedony", "version", "of", "curves"});
  const auto of = json.at("of").get<std::string>();
  if (of != "lightness" && of != "channels")
    reject_curves("has curves of '" + of + "', not of channels or lightness");
  CurveSet set;
  set.on_lightness = of == "lightness";
  for (const Json& curve : json.at("curves")) set.curves.push_back(curve_of(curve));
  if (set.curves.size() != 1 && (set.on_lightness || set.curves.size() != 3))
    reject_curves("has " + std::to_string(set.curves.size()) + " curves");
  return set;
}

}  // namespace

std::string_view curve_name(CurveKind kind) {
  for (const auto& [known, name] : kNames)
    if (known == kind) return name;
  return "";
}

std::string curves_text(const CurveSet& set) {
  Json json{{"chalcedony", "curves"},
            {"version", kCurvesVersion},
            {"of", set.on_lightness ? "lightness" : "channels"},
            {"curves", Json::array()}};
  for (const ToneCurve& curve : set.curves) {
    Json one{{"kind", std::string(curve_name(curve.kind))},
             {"black", curve.black},
             {"white", curve.white}};
    if (curve.kind != CurveKind::kNone && curve.kind != CurveKind::kTable)
      one["strength"] = curve.strength;
    if (curve.kind == CurveKind::kTable) one["table"] = curve.table;
    json["curves"].push_back(std::move(one));
  }
  return json_text(json, 1) + "\n";
}

CurveSet parse_curves(std::string_view text) {
  try {
    return set_of(Json::parse(text));
  } catch (const nlohmann::json::exception&) {
    reject_curves("cannot be read as curves");
  }
}

CurveSet read_curves(const std::filesystem::path& path) {
  return errors_at(path.string(), [&] { return parse_curves(read_text_file(path)); });
}

}  // namespace chalcedony
