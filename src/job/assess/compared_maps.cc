#include "job/assess/compared_maps.h"

#include <algorithm>
#include <cstddef>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/assess/class_matching.h"
#include "io/text/csv.h"

namespace chalcedony {
namespace {

namespace fs = std::filesystem;

/// The classes of a map, then those that only the maps it is held against have.
std::vector<std::string> classes_of_all(const Assessment& one) {
  std::vector<std::string> names = one.map.matching.names;
  for (const OtherMap& other : one.versus)
    for (const std::string& name : other.map.matching.names) place_in_list(names, name);
  return names;
}

/// An accuracy with the classes of a list, by their names; nothing of those that are not there.
Accuracy accuracy_of_classes(const Agreement& agreement, const std::vector<std::string>& classes) {
  Accuracy accuracy = agreement.accuracy;
  accuracy.classes.assign(classes.size(), {});
  for (std::size_t c = 0; c < classes.size(); ++c)
    if (const auto place = place_of_class(agreement.matching.names, classes[c]))
      accuracy.classes[c] = agreement.accuracy.classes[*place];
  return accuracy;
}

/// The last folders and the name of a file.
fs::path end_of(const fs::path& file, std::size_t parts) {
  fs::path end;
  for (fs::path rest = file; parts > 0 && rest.has_filename(); rest = rest.parent_path(), --parts)
    end = end.empty() ? rest.filename() : rest.filename() / end;
  return end;
}

/// The names of files with as many of their folders as tell all of them apart; the folders alone
/// where all files are called the same.
std::vector<std::string> names_apart(const std::vector<fs::path>& files) {
  const auto ends = [&](std::size_t parts) {
    std::vector<fs::path> names;
    for (const fs::path& file : files) names.push_back(end_of(file, parts));
    return names;
  };
  const auto different = [](const std::vector<fs::path>& names) {
    return std::set<fs::path>(names.begin(), names.end()).size();
  };
  std::size_t parts = 1;
  while (different(ends(parts)) < files.size() && ends(parts) != ends(parts + 1)) ++parts;
  const std::vector<fs::path> names = ends(parts);
  const bool folders = different(ends(1)) == 1 &&
                       std::all_of(names.begin(), names.end(),
                                   [](const fs::path& name) { return name.has_parent_path(); });
  std::vector<std::string> texts;
  for (const fs::path& name : names)
    texts.push_back((folders ? name.parent_path() : name).string());
  return texts;
}

std::vector<CsvField> map_row(const fs::path& map, const fs::path& reference,
                              const Agreement& agreement, const std::vector<std::string>& classes) {
  const auto field = [](const std::optional<double>& v) { return v ? CsvField(*v) : CsvField(); };
  const Accuracy accuracy = accuracy_of_classes(agreement, classes);
  const auto& interval = accuracy.overall_interval;
  std::vector<CsvField> row{map.string(),
                            reference.string(),
                            accuracy.total,
                            right_pixels(agreement),
                            field(accuracy.overall),
                            interval ? CsvField(interval->low) : CsvField(),
                            interval ? CsvField(interval->high) : CsvField(),
                            accuracy.kappa ? CsvField(accuracy.kappa->value) : CsvField()};
  for (const ClassAccuracy& c : accuracy.classes)
    for (const std::optional<double>& share : {c.users, c.producers, c.f1})
      row.push_back(field(share));
  return row;
}

/// One map and those it is held against.
MapsFigure figure_of_one(const JudgedMap& one) {
  std::vector<fs::path> files{one.files.map};
  files.insert(files.end(), one.files.versus.begin(), one.files.versus.end());
  const std::vector<std::string> names = names_apart(files);
  MapsFigure figure;
  figure.classes = classes_of_all(one.assessment);
  figure.maps.push_back({names[0], accuracy_of_classes(one.assessment.map, figure.classes)});
  for (std::size_t v = 0; v < one.assessment.versus.size(); ++v)
    figure.maps.push_back(
        {names[v + 1], accuracy_of_classes(one.assessment.versus[v].map, figure.classes)});
  figure.title = "Accuracy of " + std::to_string(files.size()) + " maps of one picture";
  figure.line_of = names[0];
  return figure;
}

/// Maps of several pictures.
MapsFigure figure_of_several(const JudgedMaps& judged, const AssessOptions& options) {
  std::vector<fs::path> files;
  for (const JudgedMap& one : judged.each) files.push_back(one.files.map);
  const std::vector<std::string> names = names_apart(files);
  MapsFigure figure;
  for (const fs::path& versus : options.versus) figure.rings.push_back(versus.string());
  for (std::size_t i = 0; i < judged.each.size(); ++i) {
    const Assessment& one = judged.each[i].assessment;
    MapAccuracy& map = figure.maps.emplace_back(MapAccuracy{names[i], one.map.accuracy});
    for (const OtherMap& other : one.versus) map.rings.push_back(other.map.accuracy.overall);
  }
  figure.classes = judged.together.map.matching.names;
  figure.title = "Accuracy of " + std::to_string(files.size()) + " maps";
  figure.line_of = "all maps together";
  figure.between = judged.between;
  return figure;
}

}  // namespace

void write_maps(const fs::path& path, const JudgedMaps& judged) {
  std::vector<std::string> header{"map",     "reference",   "assessed",     "right",
                                  "overall", "overall_low", "overall_high", "kappa"};
  const std::vector<std::string> classes = classes_of_all(judged.each.front().assessment);
  for (const std::string& name : classes)
    for (const char* measure : {"users_", "producers_", "f1_"}) header.push_back(measure + name);
  CsvTable table(header);
  for (const JudgedMap& one : judged.each) {
    const auto& [map, reference, versus] = one.files;
    table.add(map_row(map, reference, one.assessment.map, classes));
    for (std::size_t v = 0; v < versus.size(); ++v)
      table.add(map_row(versus[v], reference, one.assessment.versus[v].map, classes));
  }
  table.write(path);
}

MapsFigure maps_figure(const JudgedMaps& judged, const AssessOptions& options) {
  MapsFigure figure =
      judged.alone() ? figure_of_one(judged.each.front()) : figure_of_several(judged, options);
  figure.line = judged.together.map.accuracy.overall.value_or(0);
  return figure;
}

}  // namespace chalcedony
