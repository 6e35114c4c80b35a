#include "core/learn/confidence_tally.h"

#include <catch2/catch.hpp>

#include "core/learn/classifier.h"

using namespace chalcedony;

TEST_CASE("confidence is told of each class and of all", "[core][learn]") {
  ConfidenceTally tally(3), other(3);
  // 0.01 to 1.00 of the first class, and pixels without one.
  std::vector<Label> labels;
  std::vector<float> confidence;
  for (int i = 1; i <= 100; ++i) {
    labels.insert(labels.end(), {1, 0});
    confidence.insert(confidence.end(), {static_cast<float>(i) / 100, 1.0f});
  }
  tally.add(labels.data(), confidence.data(), labels.size());
  const ConfidenceTally::Figures first = tally.of_class(0);
  CHECK(first.pixels == 100);
  CHECK(first.mean == Approx(50.5));
  CHECK(first.low == Approx(5));
  CHECK(first.median == Approx(50));
  const Label third = 3;
  const float sure = 1;
  for (int i = 0; i < 100; ++i) other.add(&third, &sure, 1);
  tally += other;
  CHECK(tally.of_class(1).pixels == 0);
  CHECK(tally.of_class(2).mean == Approx(100));
  CHECK(tally.of_all().pixels == 200);
  CHECK(tally.of_all().mean == Approx(75.25));
}

TEST_CASE("the winner is the largest of the probabilities", "[core][learn]") {
  std::vector<float> a{0.2f, 0.5f, 0}, b{0.7f, 0.3f, 0}, c{0.1f, 0.2f, 0};
  std::vector<float> out(3, 9);
  winner_probabilities({a.data(), b.data(), c.data()}, 3, out.data());
  CHECK(out == std::vector<float>{0.7f, 0.5f, 0});
  winner_probabilities({a.data(), b.data(), c.data()}, 3, a.data());  // in place
  CHECK(a == out);
}
