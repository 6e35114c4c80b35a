#include "core/assess/error_matrix.h"

#include <catch2/catch.hpp>

#include "tests/support/tables.h"

using namespace chalcedony;

TEST_CASE("the 434-sample matrix of Congalton (1991) gives the printed figures", "[core][assess]") {
  ErrorMatrix matrix(4, 4);
  const auto rows = test::table("error-matrix-congalton-1991.csv");
  for (std::size_t r = 0; r < 4; ++r)
    for (std::size_t c = 0; c < 4; ++c) matrix.add(r, c, std::stoull(rows[r][c + 1]));
  CHECK(matrix.total() == 434);
  CHECK(*matrix.overall() == Approx(321.0 / 434));
  const double producers[] = {0.87, 0.79, 0.74, 0.64}, users[] = {0.57, 0.81, 0.74, 0.87};
  for (std::size_t c = 0; c < 4; ++c) {
    CHECK(*matrix.producers(c) == Approx(producers[c]).margin(0.005));
    CHECK(*matrix.users(c) == Approx(users[c]).margin(0.005));
  }
  CHECK(*matrix.kappa() == Approx(0.65).margin(0.005));
}

TEST_CASE("awkward matrices: empty, one class, an empty row, unclassified", "[core][assess]") {
  CHECK_FALSE(ErrorMatrix(2, 2).overall().has_value());
  CHECK_FALSE(ErrorMatrix(2, 2).kappa().has_value());
  ErrorMatrix single(1, 1);
  single.add(0, 0, 10);
  CHECK(single.overall() == 1.0);
  CHECK_FALSE(single.kappa().has_value());
  ErrorMatrix m(3, 2);  // the third row is unclassified
  m.add(0, 0, 6);
  m.add(2, 0, 2);
  m.add(2, 1, 2);
  CHECK(m.overall() == Approx(0.6));
  CHECK_FALSE(m.users(1).has_value());
  CHECK(m.users(2) == 0.0);
  CHECK(m.producers(0) == Approx(0.75));
  CHECK(m.kappa() == Approx((0.6 - 0.48) / 0.52));
  m.merge(m);
  CHECK(m.total() == 20);
}
