#include "job/grouping.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/learn/classifier.h"
#include "core/learn/reach.h"
#include "core/palette/figure_colors.h"
#include "core/pixel/planes.h"

namespace chalcedony {
namespace {

/// Sums of one entry over its points.
struct EntrySums {
  double pixels = 0;
  std::vector<double> sums, products, smallest, largest;
};

using AllSums = std::vector<EntrySums>;

AllSums& operator+=(AllSums& all, const AllSums& later) {
  for (std::size_t e = 0; e < later.size(); ++e) {
    EntrySums& to = all[e];
    const EntrySums& from = later[e];
    to.pixels += from.pixels;
    for (std::size_t i = 0; i < to.sums.size(); ++i) {
      to.sums[i] += from.sums[i];
      to.smallest[i] = std::min(to.smallest[i], from.smallest[i]);
      to.largest[i] = std::max(to.largest[i], from.largest[i]);
    }
    for (std::size_t i = 0; i < to.products.size(); ++i) to.products[i] += from.products[i];
  }
  return all;
}

AllSums sums_of(const Points& points, const std::vector<std::uint8_t>& labels,
                std::size_t entries) {
  const std::size_t d = points.dimensions();
  const AllSums empty(entries, {0, std::vector<double>(d), std::vector<double>(d * (d + 1) / 2),
                                std::vector<double>(d, 1e300), std::vector<double>(d, -1e300)});
  return sum_over_chunks(points.size, empty, [&](std::size_t begin, std::size_t end) {
    AllSums all = empty;
    for (std::size_t i = begin; i < end; ++i) {
      EntrySums& to = all[labels[i] - 1u];
      const double weight = points.weights[i];
      to.pixels += weight;
      std::size_t product = 0;
      for (std::size_t f = 0; f < d; ++f) {
        const double value = static_cast<double>(points.features[f][i]);
        to.sums[f] += weight * value;
        to.smallest[f] = std::min(to.smallest[f], value);
        to.largest[f] = std::max(to.largest[f], value);
        for (std::size_t g = f; g < d; ++g)
          to.products[product++] += weight * value * static_cast<double>(points.features[g][i]);
      }
    }
    return all;
  });
}

/// The statistics of an entry in the units of the features: sums are of divided ones.
ClassStatistics statistics_of(const EntrySums& sums, const std::vector<double>& divisors) {
  const std::size_t d = sums.sums.size();
  const auto rows = static_cast<Eigen::Index>(d);
  ClassStatistics out;
  out.count = static_cast<std::uint64_t>(std::llround(sums.pixels));
  out.mean = out.smallest = out.largest = Eigen::VectorXd::Zero(rows);
  out.covariance = Eigen::MatrixXd::Zero(rows, rows);
  std::size_t product = 0;
  for (std::size_t f = 0; f < d; ++f) {
    const auto i = static_cast<Eigen::Index>(f);
    const double unit = divisors.empty() ? 1 : divisors[f];
    out.mean[i] = unit * sums.sums[f] / std::max(1.0, sums.pixels);
    out.smallest[i] = unit * std::min(sums.smallest[f], 1e200);
    out.largest[i] = unit * std::max(sums.largest[f], -1e200);
    for (std::size_t g = f; g < d; ++g, ++product) {
      if (sums.pixels < 2) continue;
      const auto j = static_cast<Eigen::Index>(g);
      const double other = divisors.empty() ? 1 : divisors[g];
      double value = unit * other *
                     (sums.products[product] - sums.sums[f] * sums.sums[g] / sums.pixels) /
                     (sums.pixels - 1);
      if (f == g) value = std::max(value, 0.0);
      out.covariance(i, j) = out.covariance(j, i) = value;
    }
  }
  return out;
}

/// Fills in looks; with `statistics` also those of the model's entries.
void look_at(Grouping& grouping, const ColorPoints& colors, bool statistics) {
  const Points points = colors.points();
  const auto labels = point_labels(points, grouping.model);
  grouping.looks = group_looks(colors.oklab(), labels, grouping.model.classes.size());
  if (!statistics) return;
  const AllSums sums = sums_of(points, labels, grouping.model.classes.size());
  for (std::size_t e = 0; e < sums.size(); ++e) {
    ClassStatistics& own = grouping.model.classes[e].statistics;
    ClassStatistics found = statistics_of(sums[e], grouping.model.divisors);
    // The center and, for a mixture, the covariance are those that were fitted.
    if (grouping.mixture) found.covariance = own.covariance;
    found.mean = own.mean;
    own = found;
  }
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

double squares_within(const Points& points, const Model& model) {
  const Model divided = scaled(model);
  const auto labels = point_labels(points, model);
  return sum_over_chunks(points.size, 0.0, [&](std::size_t begin, std::size_t end) {
    double sum = 0;
    for (std::size_t i = begin; i < end; ++i) {
      const Eigen::VectorXd& mean = divided.classes[labels[i] - 1u].statistics.mean;
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
std::vector<float> distances_to_own(const Points& points, const std::vector<std::uint8_t>& labels,
                                    const Model& model) {
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
      for (std::size_t i = 0; i < n; ++i) distances[first + i] = planes[labels[first + i] - 1u][i];
    }
  });
  return distances;
}

}  // namespace

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

void measure_reach(Model& model, const Points& points) {
  const auto labels = point_labels(points, model);
  const std::vector<float> distances = distances_to_own(points, labels, model);
  tbb::parallel_for(std::size_t{0}, model.classes.size(), [&](std::size_t e) {
    std::vector<std::pair<float, std::uint64_t>> own;
    for (std::size_t i = 0; i < points.size; ++i)
      if (labels[i] == e + 1)
        own.emplace_back(distances[i], static_cast<std::uint64_t>(points.weights[i]));
    model.classes[e].reach =
        own.empty() ? std::vector<double>(kReachPercents.size()) : reach_of(own);
  });
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
  look_at(grouping, colors, true);
  put_in_order(grouping, frame);
  find_neighbors(grouping.looks);
  return grouping;
}

Grouping grouping_of(GaussianMixture result, const ColorPoints& colors,
                     const GroupingFrame& frame) {
  Grouping grouping;
  grouping.model = empty_model("maximum-likelihood", frame);
  grouping.k = result.components.size();
  const auto d = static_cast<Eigen::Index>(features_of(frame.features).size());
  Eigen::VectorXd units = Eigen::VectorXd::Ones(d);
  for (std::size_t f = 0; f < frame.divisors.size(); ++f)
    units[static_cast<Eigen::Index>(f)] = frame.divisors[f];
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
  const std::vector<ModelClass> fitted = grouping.model.classes;
  look_at(grouping, colors, true);
  for (std::size_t c = 0; c < fitted.size(); ++c)
    grouping.model.classes[c].statistics.count = fitted[c].statistics.count;
  put_in_order(grouping, frame);
  find_neighbors(grouping.looks);
  grouping.sum_of_squares = squares_within(colors.points(), grouping.model);
  return grouping;
}

Grouping grouping_of(Model model, const ColorPoints& colors) {
  Grouping grouping;
  grouping.k = model.classes.size();
  grouping.model = std::move(model);
  look_at(grouping, colors, false);
  find_neighbors(grouping.looks);
  grouping.sum_of_squares = squares_within(colors.points(), grouping.model);
  return grouping;
}

}  // namespace chalcedony
