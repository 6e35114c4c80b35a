// What is said of how far a run is.
#include "cli/terminal/progress.h"

#include <catch2/catch.hpp>

using namespace chalcedony;
using namespace chalcedony::cli;

TEST_CASE("progress tells rate and time left in units that fit", "[cli][progress]") {
  CHECK(pictures_text({0, 0, 200}, 0) == "0 of 200 pictures");
  CHECK(pictures_text({12, 1, 200}, 4) == "12 of 200 pictures, 1 failed, 3 a second, 63 s left");
  CHECK(pictures_text({1, 0, 10}, 60) == "1 of 10 pictures, 1 a minute, 9 min left");
  CHECK(pictures_text({100, 0, 100000}, 100) == "100 of 100000 pictures, 1 a second, 27.8 h left");
  CHECK(pictures_text({200, 3, 200}, 10) == "200 of 200 pictures, 3 failed, 20 a second");
}
