// Limits of classifiers: what is far, what is rejected, how sure a class is, and why.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/error.h"
#include "core/learn/block_classifier.h"
#include "core/learn/classifier.h"
#include "core/learn/confidence.h"
#include "core/learn/reach.h"
#include "core/learn/remembered_labels.h"
#include "core/learn/sample_matrix.h"
#include "tests/support/trained_models.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

constexpr std::size_t kGridPixels = kBlockPixels;

struct Grid {
  PlaneBuffer buffer{2};
  std::vector<const float*> planes{buffer.plane(0), buffer.plane(1)};

  Grid() {
    std::mt19937 random(9);
    std::uniform_real_distribution<float> value(-60, 60);
    for (std::size_t i = 0; i < kGridPixels; ++i)
      for (std::size_t f = 0; f < 2; ++f) buffer.plane(f)[i] = value(random);
  }
};

template <class Value>
std::vector<Value> room() {
  return std::vector<Value>(kGridPixels + kPlanePadding);
}

}  // namespace

TEST_CASE("a share of samples to accept means the same for every method", "[core][learn]") {
  const std::string method =
      GENERATE("minimum-distance", "mahalanobis", "maximum-likelihood", "nearest-neighbor");
  const SampleTable samples = clouds();
  const Model model = trained(method, samples);
  const Grid grid;
  auto plain = room<Label>(), strict = room<Label>();
  auto far = room<std::uint8_t>();
  PlaneBuffer distances(2);
  const auto classifier = make_classifier(model);
  classifier->classify(grid.planes, kGridPixels, plain.data(), {far.data(), nullptr});
  classifier->distances(grid.planes, kGridPixels, {distances.plane(0), distances.plane(1)});
  make_classifier(model, 95)->classify(grid.planes, kGridPixels, strict.data());
  std::size_t rejected = 0, beyond = 0;
  for (std::size_t i = 0; i < kGridPixels; ++i) {
    const std::size_t own = plain[i] - 1u;
    // Within rounding of a limit either answer will do.
    const double ratio = distances.plane(own)[i] / model.classes[own].reach[1];
    if (std::abs(ratio - 1) > 1e-4) CHECK((strict[i] == 0) == (ratio > 1));
    if (strict[i] != 0) CHECK(strict[i] == plain[i]);
    rejected += strict[i] == 0;
    double nearest = 1e30;
    for (std::size_t c = 0; c < 2; ++c)
      nearest = std::min(nearest, distances.plane(c)[i] / model.classes[c].reach[2]);
    if (std::abs(nearest - 1) > 1e-4) CHECK((far[i] == 1) == (nearest > 1));
    beyond += far[i];
  }
  CHECK(rejected > kGridPixels / 4);
  CHECK(rejected < kGridPixels);
  CHECK(beyond > kGridPixels / 4);
  // All samples lie within 100 % of themselves, and about so many within less.
  for (const double percent : kReachPercents) {
    std::size_t kept = 0;
    for_each_sample_block(samples.of(0), {}, [&](std::size_t, std::size_t n, const auto& planes) {
      std::vector<Label> labels(n + kPlanePadding);
      make_classifier(model, percent)->classify(planes, n, labels.data());
      for (std::size_t i = 0; i < n; ++i) kept += labels[i] != 0;
    });
    // A neighbor may be the sample itself here, so nearest neighbors keep all.
    const double least = percent / 100 * 2000 - 1;
    CHECK(static_cast<double>(kept) >= least);
    if (method != "nearest-neighbor" && percent < 99) CHECK(kept < 2000);
  }
}

TEST_CASE("boxes reject by nature and what is asked besides", "[core][learn]") {
  const SampleTable samples = clouds();
  const Model model = trained("parallelepiped", samples);
  const Grid grid;
  auto plain = room<Label>(), strict = room<Label>();
  PlaneBuffer distances(2);
  make_classifier(model)->classify(grid.planes, kGridPixels, plain.data());
  make_classifier(model, 90)->classify(grid.planes, kGridPixels, strict.data());
  make_classifier(model)->distances(grid.planes, kGridPixels,
                                    {distances.plane(0), distances.plane(1)});
  std::size_t inside = 0, kept = 0;
  for (std::size_t i = 0; i < kGridPixels; ++i) {
    const float nearest = std::min(distances.plane(0)[i], distances.plane(1)[i]);
    CHECK((plain[i] != 0) == (nearest <= 1));
    inside += plain[i] != 0;
    kept += strict[i] != 0;
  }
  CHECK(kept < inside);
  CHECK(kept > 0);
}

TEST_CASE("a model that does not know its reach cannot reject", "[core][learn]") {
  Model model = trained("minimum-distance", clouds());
  model.classes[1].reach.clear();
  CHECK_THROWS_WITH(make_classifier(model, 95),
                    Catch::Contains("does not know how far its samples reach"));
  auto labels = room<Label>();
  auto far = room<std::uint8_t>();
  const Grid grid;
  make_classifier(model)->classify(grid.planes, kGridPixels, labels.data(), {far.data(), nullptr});
  CHECK(std::count(far.begin(), far.end(), 1) == 0);
}

TEST_CASE("the explanation comes to the classifier's decision", "[core][learn]") {
  const std::string method = GENERATE("minimum-distance", "parallelepiped", "mahalanobis",
                                      "maximum-likelihood", "nearest-neighbor");
  const Model model = trained(method, clouds());
  const Grid grid;
  constexpr std::size_t kExplained = 100;
  auto labels = room<Label>();
  PlaneBuffer distances(2), shares(2);
  const auto classifier = make_classifier(model);
  classifier->classify(grid.planes, kExplained, labels.data());
  classifier->distances(grid.planes, kExplained, {distances.plane(0), distances.plane(1)});
  classifier->probabilities(grid.planes, kExplained, {shares.plane(0), shares.plane(1)});
  for (std::size_t i = 0; i < kExplained; ++i) {
    const Explanation why = method_of(model).explain(
        scaled(model), {double{grid.planes[0][i]}, double{grid.planes[1][i]}});
    const std::size_t winner = ranking_of(why)[0];
    const bool inside = why.classes[winner].inside.value_or(true);
    CHECK(labels[i] == (inside ? winner + 1 : 0));
    for (std::size_t c = 0; c < 2; ++c) {
      const ClassExplanation& one = why.classes[c];
      CHECK(one.distance == Approx(distances.plane(c)[i]).epsilon(1e-4));
      if (one.probability) CHECK(*one.probability == Approx(shares.plane(c)[i]).margin(1e-4));
      if (one.inside) continue;
      double sum = one.terms.empty() ? one.sum : 0;
      for (const FeatureTerm& term : one.terms) sum += term.part;
      CHECK(one.sum == Approx(sum));
    }
  }
}

TEST_CASE("confidence is a probability or a margin", "[core][learn]") {
  const SampleTable samples = clouds();
  const Grid grid;
  auto labels = room<Label>();
  std::vector<float> confidence(kGridPixels + kPlanePadding);
  PlaneBuffer planes(2);
  const auto gaussian = make_classifier(trained("maximum-likelihood", samples));
  gaussian->classify(grid.planes, kGridPixels, labels.data());
  gaussian->probabilities(grid.planes, kGridPixels, {planes.plane(0), planes.plane(1)});
  ConfidenceMeter(*gaussian).measure(grid.planes, kGridPixels, labels.data(), confidence.data());
  for (std::size_t i = 0; i < kGridPixels; ++i) {
    CHECK(confidence[i] == planes.plane(labels[i] - 1u)[i]);
    CHECK(confidence[i] >= 0.5f);
  }
  const auto means = make_classifier(trained("minimum-distance", samples));
  means->classify(grid.planes, kGridPixels, labels.data());
  means->distances(grid.planes, kGridPixels, {planes.plane(0), planes.plane(1)});
  ConfidenceMeter(*means).measure(grid.planes, kGridPixels, labels.data(), confidence.data());
  for (std::size_t i = 0; i < kGridPixels; ++i) {
    const float own = planes.plane(labels[i] - 1u)[i], other = planes.plane(2u - labels[i])[i];
    CHECK(confidence[i] == Approx(1 - own / other).margin(1e-6));
  }
}

TEST_CASE("what is remembered of a color is what the classifier says", "[core][learn]") {
  const std::string method = GENERATE("nearest-neighbor", "parallelepiped");
  PictureInfo info;
  info.shape = {64, 64, 3, SampleType::kU8};
  const SampleTable samples = clouds();
  const Model model = trained(method, samples);
  REQUIRE(remembers_colors(info, model, true));
  const FeaturePlan plan(info, model.features);
  const auto classifier = make_classifier(model);
  VerdictsByColor known(true);
  RememberingLabeler remembering(std::make_unique<BlockClassifier>(plan, *classifier, true), known,
                                 info.shape.channels);
  BlockClassifier plain(plan, *classifier, true);
  std::mt19937 random(2);
  PlaneBuffer color;
  for (int round = 0; round < 3; ++round) {
    Block block;
    block.picture_width = 64;
    block.size = block.counted_size = 900;
    std::vector<std::byte> stored(3 * block.size);
    block.stored = stored.data();
    for (std::size_t c = 0; c < 3; ++c) {
      for (std::size_t i = 0; i < block.size; ++i) {
        const auto code = static_cast<std::uint8_t>(random() % 6 * 51);  // colors come again
        stored[3 * i + c] = static_cast<std::byte>(code);
        color.plane(c)[i] = code;
      }
      block.color[c] = color.plane(c);
    }
    const Verdicts& found = remembering.label(block);
    const Verdicts& asked = plain.label(block);
    for (std::size_t i = 0; i < block.size; ++i) {
      CHECK(found.labels[i] == asked.labels[i]);
      CHECK(found.far[i] == asked.far[i]);
      CHECK(found.contested[i] == asked.contested[i]);
      CHECK(found.confidence[i] == Approx(asked.confidence[i]).margin(1e-5));
    }
  }
  PictureInfo other = info;
  other.shape.sample = SampleType::kU16;
  CHECK_FALSE(remembers_colors(other, model, true));
  CHECK_FALSE(remembers_colors(info, model, false));  // small, and the method quick
  other = info;
  other.shape = {1000, 1000, 3, SampleType::kU8};
  CHECK(remembers_colors(other, model, false));
  Model stored = model;
  stored.features = channels_named("file.0,file.1");
  CHECK_FALSE(remembers_colors(info, stored, true));
  Model of_many = model;
  of_many.classes.resize(63);
  CHECK_FALSE(remembers_colors(info, of_many, true));
}

TEST_CASE("samples classified by their own model", "[core][learn]") {
  SampleTable table(2);
  const float red[] = {50, 40}, blue[] = {0, -40}, stray[] = {2, -38};
  table.add(0, red, 9);
  table.add(0, stray);
  table.add(1, blue, 5);
  table.join_equal_rows();
  const Model model = trained("minimum-distance", table);
  const ErrorMatrix matrix = sample_matrix(*make_classifier(model), model, table);
  CHECK(matrix.rows() == 3);
  CHECK(matrix.at(0, 0) == 9);
  CHECK(matrix.at(1, 0) == 1);
  CHECK(matrix.at(1, 1) == 5);
  CHECK(matrix.row_total(2) == 0);
}
