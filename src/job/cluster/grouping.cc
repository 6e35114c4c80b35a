#include "job/cluster/grouping.h"

#include <tbb/parallel_invoke.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/cluster/point_moments.h"
#include "core/learn/class_statistics.h"
#include "core/learn/classifier.h"
#include "core/learn/reach.h"
#include "core/palette/figure_colors.h"
#include "core/planes.h"

namespace chalcedony {
namespace {

/// Sums over the points of each entry.
struct EntrySums {
  std::vector<ClassSums> entries;

  EntrySums& operator+=(const EntrySums& later) {
    for (std::size_t e = 0; e < entries.size(); ++e) entries[e] += later.entries[e];
    return *this;
  }
};

EntrySums sums_of(const Points& points, const Grouping& grouping) {
  const EntrySums empty{
      std::vector<ClassSums>(grouping.model.classes.size(), ClassSums(points.dimensions()))};
  return sum_over_chunks(points.size, empty, [&](std::size_t begin, std::size_t end) {
    std::vector<PointMoments> moments(empty.entries.size(), PointMoments(points.dimensions()));
    add_moments_by_label(points, grouping.labels.data(), begin, end, moments);
    EntrySums sums = empty;
    for (std::size_t e = 0; e < moments.size(); ++e) sums.entries[e].add(moments[e]);
    return sums;
  });
}

/// Statistics of divided features in the units of the features. Centers and pixels are known, and a
/// mixture's covariance is the one that was found.
void take_statistics(const ClassStatistics& found, const Eigen::VectorXd& units, bool fitted,
                     ClassStatistics& own) {
  own.smallest = units.cwiseProduct(found.smallest);
  own.largest = units.cwiseProduct(found.largest);
  if (fitted) return;
  own.covariance = units.asDiagonal() * found.covariance * units.asDiagonal();
}

/// The divisors of the features, all 1 where there are none.
Eigen::VectorXd units_of(const std::vector<double>& divisors, std::size_t dimensions) {
  Eigen::VectorXd units = Eigen::VectorXd::Ones(static_cast<Eigen::Index>(dimensions));
  for (std::size_t f = 0; f < divisors.size(); ++f)
    units[static_cast<Eigen::Index>(f)] = divisors[f];
  return units;
}

void put_in_order(Grouping& grouping, const GroupingFrame& frame) {
  std::vector<std::size_t> order(grouping.looks.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
    const GroupLook &first = grouping.looks[a], &second = grouping.looks[b];
    if (frame.order == GroupOrder::kLightness) return first.oklab[0] > second.oklab[0];
    if (first.pixels != second.pixels) return first.pixels > second.pixels;
    return first.oklab[0] > second.oklab[0];
  });
  std::vector<GroupLook> looks;
  std::vector<ModelClass> classes;
  for (const std::size_t e : order) {
    looks.push_back(grouping.looks[e]);
    ModelClass& one = classes.emplace_back(grouping.model.classes[e]);
    one.name = "group " + std::to_string(classes.size());
    one.color =
        css_hex(frame.colors == GroupColors::kCenters ? Color{&spaces::kOklab, looks.back().oklab}
                                                      : class_color(classes.size() - 1));
  }
  grouping.looks = std::move(looks);
  grouping.model.classes = std::move(classes);
}

Model empty_model(const char* method, const GroupingFrame& frame) {
  Model model;
  model.method = method;
  model.features = frame.features;
  model.scaling = frame.scaling;
  model.divisors = frame.divisors;
  return model;
}

/// The same with a name for every entry.
Model with_entries_apart(Model model) {
  for (std::size_t e = 0; e < model.classes.size(); ++e)
    model.classes[e].name = std::to_string(e + 1);
  return model;
}

double squares_within(const Points& points, const Grouping& grouping) {
  const Model divided = scaled(grouping.model);
  return sum_over_chunks(points.size, 0.0, [&](std::size_t begin, std::size_t end) {
    double sum = 0;
    for (std::size_t i = begin; i < end; ++i) {
      const Eigen::VectorXd& mean = divided.classes[grouping.labels[i] - 1u].statistics.mean;
      for (std::size_t f = 0; f < points.dimensions(); ++f) {
        const double step =
            static_cast<double>(points.features[f][i]) - mean[static_cast<Eigen::Index>(f)];
        sum += points.weights[i] * step * step;
      }
    }
    return sum;
  });
}

/// The distance of every point to the entry it falls to.
std::vector<float> distances_to_own(const Points& points, const Grouping& grouping) {
  const Model& model = grouping.model;
  const auto classifier = make_classifier(with_entries_apart(model));
  std::vector<float> distances(points.size);
  for_each_chunk(points.size, [&](std::size_t, std::size_t begin, std::size_t end) {
    PlaneBuffer buffer(model.classes.size());
    std::vector<float*> planes;
    for (std::size_t e = 0; e < model.classes.size(); ++e) planes.push_back(buffer.plane(e));
    for (std::size_t first = begin; first < end; first += kBlockPixels) {
      const std::size_t n = std::min(kBlockPixels, end - first);
      std::vector<const float*> features;
      for (const float* feature : points.features) features.push_back(feature + first);
      classifier->distances(features, n, planes);
      for (std::size_t i = 0; i < n; ++i)
        distances[first + i] = planes[grouping.labels[first + i] - 1u][i];
    }
  });
  return distances;
}

/// The number of the entry each point falls to, 1 for the first, as the classifier of the model
/// says. Room for the padding is at the end.
std::vector<std::uint8_t> point_labels(const Points& points, const Model& model) {
  const auto classifier = make_classifier(with_entries_apart(model));
  std::vector<std::uint8_t> labels(points.size + kPlanePadding);
  for_each_chunk(points.size, [&](std::size_t, std::size_t begin, std::size_t end) {
    std::vector<const float*> features;
    for (const float* feature : points.features) features.push_back(feature + begin);
    std::vector<Label> own(end - begin + kPlanePadding);
    classifier->classify(features, end - begin, own.data());
    std::copy_n(own.begin(), end - begin, labels.begin() + static_cast<std::ptrdiff_t>(begin));
  });
  return labels;
}

/// How far the points of every entry reach, for classify --reject; see ModelClass.
void measure_reach(Grouping& grouping, const Points& points) {
  const std::vector<float> distances = distances_to_own(points, grouping);
  const std::size_t n = points.size, entries = grouping.model.classes.size();
  std::vector<std::vector<double>> reaches =
      reaches_of({distances, {grouping.labels.data(), n}, {points.weights, n}}, entries);
  for (std::size_t e = 0; e < entries; ++e) grouping.model.classes[e].reach = std::move(reaches[e]);
}

/// What all groupings that are found go through once they have a model.
void finish(Grouping& grouping, const ColorPoints& colors, const GroupingFrame& frame) {
  const Points points = colors.points();
  grouping.looks = group_looks(colors.oklab(), point_labels(points, grouping.model),
                               grouping.model.classes.size());
  if (!grouping.mixture)
    for (std::size_t e = 0; e < grouping.looks.size(); ++e)
      grouping.model.classes[e].statistics.count =
          static_cast<std::uint64_t>(std::llround(grouping.looks[e].pixels));
  put_in_order(grouping, frame);
  // Of equal distances the first entry is taken, so the order has a say.
  grouping.labels = point_labels(points, grouping.model);
  find_neighbors(grouping.looks);
}

}  // namespace

void complete_model(Grouping& grouping, const ColorPoints& colors) {
  const Points points = colors.points();
  const Eigen::VectorXd units = units_of(grouping.model.divisors, points.dimensions());
  std::vector<ClassSums> entries;
  // Ranks are found by one thread.
  tbb::parallel_invoke([&] { entries = sums_of(points, grouping).entries; },
                       [&] { measure_reach(grouping, points); });
  for (std::size_t e = 0; e < entries.size(); ++e)
    if (!entries[e].empty())
      take_statistics(entries[e].statistics(), units, grouping.mixture.has_value(),
                      grouping.model.classes[e].statistics);
}

Grouping grouping_of(KMeans result, const ColorPoints& colors, const GroupingFrame& frame) {
  Grouping grouping;
  grouping.model = empty_model("minimum-distance", frame);
  const std::size_t d = features_of(frame.features).size();
  grouping.k = result.centers.size() / d;
  for (std::size_t c = 0; c < grouping.k; ++c) {
    ModelClass& one = grouping.model.classes.emplace_back();
    one.name = std::to_string(c);
    one.prior = 1 / static_cast<double>(grouping.k);
    one.statistics.mean.resize(static_cast<Eigen::Index>(d));
    for (std::size_t f = 0; f < d; ++f)
      one.statistics.mean[static_cast<Eigen::Index>(f)] =
          result.centers[c * d + f] * (frame.divisors.empty() ? 1 : frame.divisors[f]);
    one.statistics.smallest = one.statistics.largest = one.statistics.mean;
    one.statistics.covariance =
        Eigen::MatrixXd::Zero(one.statistics.mean.size(), one.statistics.mean.size());
  }
  grouping.sum_of_squares = result.sum_of_squares();
  grouping.k_means = std::move(result);
  finish(grouping, colors, frame);
  return grouping;
}

Grouping grouping_of(GaussianMixture result, const ColorPoints& colors,
                     const GroupingFrame& frame) {
  Grouping grouping;
  grouping.model = empty_model("maximum-likelihood", frame);
  grouping.k = result.components.size();
  const Eigen::VectorXd units = units_of(frame.divisors, features_of(frame.features).size());
  for (const Component& component : result.components) {
    ModelClass& one = grouping.model.classes.emplace_back();
    one.name = std::to_string(grouping.model.classes.size());
    one.prior = component.weight;
    one.statistics.count =
        static_cast<std::uint64_t>(std::llround(component.weight * result.pixels));
    one.statistics.mean = units.cwiseProduct(component.mean);
    one.statistics.covariance = units.asDiagonal() * component.covariance * units.asDiagonal();
    one.statistics.smallest = one.statistics.largest = one.statistics.mean;
  }
  grouping.mixture = std::move(result);
  finish(grouping, colors, frame);
  grouping.sum_of_squares = squares_within(colors.points(), grouping);
  return grouping;
}

Grouping grouping_of(Model model, const ColorPoints& colors) {
  Grouping grouping;
  grouping.k = model.classes.size();
  grouping.model = std::move(model);
  grouping.labels = point_labels(colors.points(), grouping.model);
  grouping.looks = group_looks(colors.oklab(), grouping.labels, grouping.k);
  find_neighbors(grouping.looks);
  grouping.sum_of_squares = squares_within(colors.points(), grouping);
  return grouping;
}

}  // namespace chalcedony
