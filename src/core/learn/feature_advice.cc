#include "core/learn/feature_advice.h"

#include <algorithm>
#include <string>
#include <utility>

#include "core/learn/separability.h"

namespace chalcedony {
namespace {

// Of 2: pairs above the first are seldom confused, pairs below the second often.
constexpr double kApart = 1.8, kMixed = 1.0;
// What the worst pair may lose by leaving lightness out.
constexpr double kNoCost = 0.02;

/// The Jeffries-Matusita distance of two classes by some of the features.
std::optional<double> distance_by(const Model& model, std::size_t first, std::size_t second,
                                  const std::vector<std::size_t>& features) {
  const Eigen::VectorXd floor = smallest_spread(model);
  std::vector<Eigen::Index> at(features.begin(), features.end());
  const auto part = [&](const ClassStatistics& all) {
    ClassStatistics s;
    s.count = all.count;
    s.mean = all.mean(at);
    s.covariance = all.covariance(at, at);
    return s;
  };
  const auto found = separability(part(model.classes[first].statistics),
                                  part(model.classes[second].statistics), floor(at));
  if (!found) return std::nullopt;
  return found->jeffries_matusita;
}

std::vector<std::size_t> all_but(std::size_t features, std::size_t left_out) {
  std::vector<std::size_t> out;
  for (std::size_t f = 0; f < features; ++f)
    if (f != left_out) out.push_back(f);
  return out;
}

bool is_lightness(const Channel& channel) {
  if (!channel.space || channel.is_hue()) return false;
  const Space& space = *channel.space;
  const std::string_view name = space.channels[channel.index].name;
  if (space.channel_count == 1) return true;  // a gray
  if (space.id == "hwb" || space.id == "srgb") return false;
  return name == "l" || name == "v" || name == "i" || name == "lum" ||
         (name == "y" && space.id.starts_with("ycbcr"));
}

/// The distance of the pair that is least apart.
std::optional<double> worst_pair(const Model& model, const std::vector<std::size_t>& features) {
  std::optional<double> worst;
  for (std::size_t a = 0; a < model.classes.size(); ++a)
    for (std::size_t b = a + 1; b < model.classes.size(); ++b) {
      const auto distance = distance_by(model, a, b, features);
      if (!distance) return std::nullopt;
      worst = std::min(worst.value_or(*distance), *distance);
    }
  return worst;
}

}  // namespace

std::vector<LoneFeature> lone_features(const Model& model) {
  const std::size_t features = features_of(model.features).size();
  std::vector<LoneFeature> out;
  if (features < 2) return out;
  for (std::size_t a = 0; a < model.classes.size(); ++a)
    for (std::size_t b = a + 1; b < model.classes.size(); ++b) {
      const auto with = distance_by(model, a, b, all_but(features, features));
      if (!with || *with < kApart) continue;
      for (std::size_t f = 0; f < features; ++f) {
        const auto without = distance_by(model, a, b, all_but(features, f));
        if (without && *without < kMixed) out.push_back({a, b, f, *with, *without});
      }
    }
  return out;
}

std::optional<NeedlessLightness> needless_lightness(const Model& model) {
  const std::vector<Feature> features = features_of(model.features);
  NeedlessLightness out;
  for (std::size_t f = 0; f < features.size(); ++f)
    if (!is_lightness(features[f].channel)) out.features.push_back(f);
  if (out.features.empty() || out.features.size() == features.size()) return std::nullopt;
  const auto with = worst_pair(model, all_but(features.size(), features.size()));
  const auto without = worst_pair(model, out.features);
  if (!with || !without || *without < *with - kNoCost) return std::nullopt;
  out.with = *with;
  out.without = *without;
  return out;
}

std::pair<std::size_t, std::size_t> most_telling_features(const Model& model) {
  std::vector<std::pair<double, std::size_t>> ranking;
  const std::size_t features = features_of(model.features).size();
  for (std::size_t f = 0; f < features; ++f) {
    const auto i = static_cast<Eigen::Index>(f);
    double mean = 0, between = 0, within = 1e-12;
    for (const ModelClass& c : model.classes) mean += c.statistics.mean[i];
    mean /= static_cast<double>(model.classes.size());
    for (const ModelClass& c : model.classes) {
      between += (c.statistics.mean[i] - mean) * (c.statistics.mean[i] - mean);
      within += c.statistics.covariance(i, i);
    }
    ranking.emplace_back(-between / within, f);
  }
  std::sort(ranking.begin(), ranking.end());
  return std::minmax(ranking[0].second, ranking[1].second);
}

}  // namespace chalcedony
