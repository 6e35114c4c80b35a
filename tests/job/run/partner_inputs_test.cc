// Inputs that only go with other inputs.
#include "job/run/partner_inputs.h"

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>
#include <vector>

#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;

namespace {

/// What is left of files of a folder, by their names.
std::vector<std::string> left_of(const TempDir& dir, const std::vector<std::string>& names,
                                 const std::string& pattern) {
  std::vector<std::filesystem::path> inputs;
  for (const std::string& name : names) {
    put_text(dir / name, "");
    inputs.push_back(dir / name);
  }
  std::vector<std::string> left;
  for (const std::filesystem::path& file : without_partners(inputs, dir / pattern))
    left.push_back(file.filename().string());
  return left;
}

using Names = std::vector<std::string>;

}  // namespace

TEST_CASE("masks that lie beside their pictures are no inputs", "[job][partners]") {
  const TempDir dir;
  CHECK(left_of(dir, {"a.png", "a.mask.png", "b.jpg", "b.mask.png"}, "*.mask.png") ==
        Names{"a.png", "b.jpg"});
  // One that goes with no input may be one itself, and a picture without a mask is one.
  CHECK(left_of(dir, {"a.png", "a.mask.png", "c.mask.png", "d.png"}, "*.mask.png") ==
        Names{"a.png", "c.mask.png", "d.png"});
}

TEST_CASE("what has a partner is an input, also where a pattern fits it", "[job][partners]") {
  const TempDir dir;
  // Masks, with the pictures that they are of.
  CHECK(left_of(dir, {"p-1.png", "p-1.mask.png", "p-2.png", "p-2.mask.png"}, "p-*.png") ==
        Names{"p-1.mask.png", "p-2.mask.png"});
  // Nothing goes with another of them.
  const TempDir other;
  CHECK(left_of(other, {"a.png", "b.png"}, "*.png") == Names{"a.png", "b.png"});
}

TEST_CASE("a folder, a file or a pattern that fits nothing leaves inputs as they are",
          "[job][partners]") {
  const TempDir dir;
  const Names both{"a.png", "a.mask.png"};
  CHECK(left_of(dir, both, "") == both);
  CHECK(left_of(dir, both, "a.mask.png") == both);
  CHECK(left_of(dir, both, "*.samples.geojson") == both);
  CHECK(left_of(dir, {"a.mask.png"}, "*.mask.png") == Names{"a.mask.png"});
  // However they are named.
  CHECK(without_partners({dir / "a.png", dir / "./a.mask.png"}, dir / "*.mask.png").size() == 1);
}
