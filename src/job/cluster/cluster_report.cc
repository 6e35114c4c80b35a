#include "job/cluster/cluster_report.h"

#include <fmt/format.h>

#include <cmath>

#include "io/text/csv.h"

namespace chalcedony {
namespace {

void add_runs(Json& json, const KMeans& found) {
  json["best_run"] = found.best + 1;
  for (const KMeansRun& run : found.runs)
    json["runs"].push_back({{"sum_of_squares", run.sum_of_squares},
                            {"iterations", run.iterations},
                            {"settled", run.settled},
                            {"regrouped", run.regrouped}});
}

void add_runs(Json& json, const GaussianMixture& found) {
  json["best_run"] = found.best + 1;
  for (const MixtureRun& run : found.runs)
    json["runs"].push_back(
        {{"log_likelihood", run.log_likelihood}, {"iterations", run.iterations}});
  json.update({{"log_likelihood", found.log_likelihood},
               {"parameters", found.parameters},
               {"aic", found.aic()},
               {"bic", found.bic()},
               {"icl", found.icl()},
               {"iterations", found.iterations},
               {"settled", found.settled},
               {"faded", found.faded}});
}

Json group_json(const Grouping& groups, std::size_t e, const ColorPoints& colors) {
  const GroupLook& look = groups.looks[e];
  const ModelClass& one = groups.model.classes[e];
  Json json{{"index", e + 1},
            {"name", one.name},
            {"color", one.color},
            {"pixels", std::llround(look.pixels)},
            {"percent", 100 * look.pixels / static_cast<double>(colors.pixels())},
            {"center", std::vector<double>(one.statistics.mean.begin(), one.statistics.mean.end())},
            {"spread", look.spread},
            {"percentile_95", look.far_spread}};
  if (look.nearest != e) {
    json["nearest"] = look.nearest + 1;
    json["nearest_delta_e"] = look.nearest_distance;
  }
  return json;
}

}  // namespace

void write_centers(const std::filesystem::path& path, const Grouping& groups,
                   const ColorPoints& colors) {
  const auto names = features_of(groups.model.features);
  std::vector<std::string> header{"index",
                                  "class",
                                  "color",
                                  "pixels",
                                  "share_percent",
                                  "spread_delta_e",
                                  "percentile_95_delta_e",
                                  "nearest",
                                  "nearest_delta_e"};
  for (const Feature& feature : names) header.push_back(feature.name());
  CsvTable table(header);
  for (std::size_t e = 0; e < groups.looks.size(); ++e) {
    const GroupLook& look = groups.looks[e];
    const ModelClass& one = groups.model.classes[e];
    std::vector<CsvField> row{std::uint64_t{e + 1},
                              one.name,
                              one.color,
                              static_cast<std::uint64_t>(std::llround(look.pixels)),
                              100 * look.pixels / static_cast<double>(colors.pixels()),
                              look.spread,
                              look.far_spread};
    if (look.nearest == e) {
      row.insert(row.end(), {CsvField(), CsvField()});
    } else {
      row.insert(row.end(), {std::uint64_t{look.nearest + 1}, look.nearest_distance});
    }
    for (const double mean : one.statistics.mean) row.emplace_back(mean);
    table.add(row);
  }
  table.write(path);
}

void write_shares(const std::filesystem::path& path, const Json& picture) {
  CsvTable table({"index", "class", "color", "pixels", "share_percent"});
  for (const Json& c : picture["classes"])
    table.add({c["index"].get<std::uint64_t>(), c["name"].get<std::string>(),
               c["color"].get<std::string>(), c["pixels"].get<std::uint64_t>(),
               c["percent"].get<double>()});
  table.write(path);
}

void write_criteria(const std::filesystem::path& path, const std::vector<GroupCriteria>& criteria) {
  CsvTable table({"k", "sum_of_squares", "explained_percent", "silhouette", "log_likelihood",
                  "parameters", "aic", "bic", "icl", "lone_percent"});
  const auto field = [](const std::optional<double>& value) {
    return value ? CsvField(*value) : CsvField();
  };
  for (const GroupCriteria& one : criteria)
    table.add({std::uint64_t{one.k}, one.sum_of_squares, one.explained_percent, one.silhouette,
               field(one.log_likelihood),
               one.bic ? CsvField(std::uint64_t{one.parameters}) : CsvField(), field(one.aic),
               field(one.bic), field(one.icl), field(one.lone_percent)});
  table.write(path);
}

Json criteria_json(const std::vector<GroupCriteria>& criteria) {
  Json choices = Json::array();
  for (const GroupCriteria& one : criteria) {
    Json json{{"k", one.k},
              {"sum_of_squares", one.sum_of_squares},
              {"explained_percent", one.explained_percent},
              {"silhouette", one.silhouette}};
    if (one.lone_percent) json["lone_percent"] = *one.lone_percent;
    if (one.bic)
      json.update({{"log_likelihood", *one.log_likelihood},
                   {"parameters", one.parameters},
                   {"aic", *one.aic},
                   {"bic", *one.bic},
                   {"icl", *one.icl}});
    choices.push_back(json);
  }
  return choices;
}

Json grouping_json(const Grouping& groups, const ColorPoints& colors) {
  Json json{{"method", groups.mixture   ? "gaussian-mixture"
                       : groups.k_means ? "k-means"
                                        : groups.model.method},
            {"features", Json::array()},
            {"scaling", groups.model.scaling},
            {"divisors", groups.model.divisors},
            {"pixels", colors.pixels()},
            {"points", colors.points().size},
            {"left_out", colors.left_out()},
            {"sum_of_squares", groups.sum_of_squares}};
  for (const Feature& feature : features_of(groups.model.features))
    json["features"].push_back(feature.name());
  if (colors.sampled()) json["sampled"] = {{"drawn", colors.drawn()}, {"of", colors.deep()}};
  if (groups.k_means) add_runs(json, *groups.k_means);
  if (groups.mixture) add_runs(json, *groups.mixture);
  json["groups"] = Json::array();
  for (std::size_t e = 0; e < groups.looks.size(); ++e)
    json["groups"].push_back(group_json(groups, e, colors));
  return json;
}

std::string choice_title(std::size_t k, double lone_percent) {
  return fmt::format("{} group{}, lone {:.2f} %", k, k == 1 ? "" : "s", lone_percent);
}

}  // namespace chalcedony
