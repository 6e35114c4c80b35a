#include "job/cluster/group_choice.h"

#include <fmt/format.h>

#include <algorithm>

#include "core/cluster/knee.h"
#include "core/cluster/points.h"
#include "core/cluster/scatter.h"
#include "core/cluster/silhouette.h"

namespace chalcedony {
namespace {

using Criterion = double (*)(const GroupCriteria&);

std::vector<double> values_of(const std::vector<GroupCriteria>& criteria, Criterion criterion) {
  std::vector<double> values;
  for (const GroupCriteria& one : criteria) values.push_back(criterion(one));
  return values;
}

double squares(const GroupCriteria& c) { return c.sum_of_squares; }
double silhouette(const GroupCriteria& c) { return c.silhouette; }
double bic(const GroupCriteria& c) { return *c.bic; }
double aic(const GroupCriteria& c) { return *c.aic; }
double icl(const GroupCriteria& c) { return *c.icl; }

std::size_t smallest(const std::vector<double>& values) {
  return static_cast<std::size_t>(std::min_element(values.begin(), values.end()) - values.begin());
}

std::size_t largest(const std::vector<double>& values) {
  return static_cast<std::size_t>(std::max_element(values.begin(), values.end()) - values.begin());
}

std::string at(const std::vector<GroupCriteria>& criteria, std::size_t place) {
  return fmt::format("{} group{}", criteria[place].k, criteria[place].k == 1 ? "" : "s");
}

}  // namespace

std::vector<GroupCriteria> criteria_of(const std::vector<Grouping>& groupings,
                                       const ColorPoints& colors, std::uint64_t seed) {
  const Points points = colors.points();
  const std::vector<std::size_t> drawn = even_draw(points, kSilhouettePixels, seed);
  std::vector<float> values;
  for (const std::size_t i : drawn)
    for (const float* feature : points.features) values.push_back(feature[i]);
  const Silhouette judge(values, points.dimensions());
  const double all = scatter_of(points).sum_of_squares;
  std::vector<GroupCriteria> criteria;
  for (const Grouping& grouping : groupings) {
    GroupCriteria& one = criteria.emplace_back();
    one.k = grouping.k;
    one.sum_of_squares = grouping.sum_of_squares;
    one.explained_percent = all > 0 ? 100 * std::max(0.0, 1 - grouping.sum_of_squares / all) : 100;
    std::vector<std::uint8_t> of_drawn;
    for (const std::size_t i : drawn) of_drawn.push_back(grouping.labels[i]);
    one.silhouette = judge.mean(of_drawn);
    if (!grouping.mixture) continue;
    one.log_likelihood = grouping.mixture->log_likelihood;
    one.parameters = grouping.mixture->parameters;
    one.aic = grouping.mixture->aic();
    one.bic = grouping.mixture->bic();
    one.icl = grouping.mixture->icl();
  }
  return criteria;
}

GroupSuggestion suggest(const std::vector<GroupCriteria>& criteria) {
  if (criteria.size() < 3) {
    const std::size_t last = criteria.size() - 1;
    return {last,
            fmt::format("Too few numbers were tried to compare; shown is {}.", at(criteria, last))};
  }
  const auto silhouettes = values_of(criteria, silhouette);
  const std::size_t best = largest(silhouettes);
  const std::string by_silhouette =
      fmt::format("the silhouette is best for {} ({:.2f})", at(criteria, best), silhouettes[best]);
  if (criteria[0].bic) {
    const auto values = values_of(criteria, bic);
    const std::size_t least = smallest(values), bend = knee(values);
    if (least + 1 < criteria.size())
      return {least,
              fmt::format("BIC is smallest for {}; {}.", at(criteria, least), by_silhouette)};
    return {best,
            fmt::format("BIC is still falling at {} and bends at {}, so it decides nothing; {}.",
                        at(criteria, least), at(criteria, bend), by_silhouette)};
  }
  const std::size_t bend = knee(values_of(criteria, squares));
  return {
      best,
      fmt::format("Of the numbers tried, {}; the sum of squares bends at {}, which explain {:.1f} "
                  "% of it.",
                  by_silhouette, at(criteria, bend), criteria[bend].explained_percent)};
}

std::vector<CriterionCurve> criterion_curves(const std::vector<GroupCriteria>& criteria) {
  const auto falling = [&](const char* title, Criterion criterion, bool has_best) {
    CriterionCurve curve{title, values_of(criteria, criterion), {}, {}};
    if (has_best) curve.best = smallest(curve.values);
    if (const std::size_t bend = knee(curve.values); bend > 0) curve.knee = bend;
    return curve;
  };
  std::vector<CriterionCurve> curves;
  curves.push_back(falling("sum of squares within groups", squares, false));
  CriterionCurve judged{"silhouette", values_of(criteria, silhouette), {}, {}};
  judged.best = largest(judged.values);
  curves.push_back(judged);
  if (!criteria[0].bic) return curves;
  curves.push_back(falling("BIC", bic, true));
  curves.push_back(falling("AIC", aic, true));
  curves.push_back(falling("ICL", icl, true));
  return curves;
}

}  // namespace chalcedony
