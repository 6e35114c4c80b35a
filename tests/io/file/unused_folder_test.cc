// Folders that were made for results and hold none.
#include "io/file/unused_folder.h"

#include <catch2/catch.hpp>

#include "tests/support/temp_dir.h"

using namespace chalcedony;
using namespace chalcedony::test;
namespace fs = std::filesystem;

TEST_CASE("folders that were made and hold nothing go away", "[io]") {
  const TempDir dir;
  fs::create_directories(dir / "there");
  SECTION("with those around them that were made as well") {
    {
      const UnusedFolder unused(dir / "there/a/b/");
      fs::create_directories(dir / "there/a/b");
    }
    CHECK_FALSE(fs::exists(dir / "there/a"));
    CHECK(fs::exists(dir / "there"));
  }
  SECTION("not when they hold something") {
    {
      const UnusedFolder unused(dir / "a/b");
      fs::create_directories(dir / "a/b");
      put_text(dir / "a/b/result", "");
    }
    CHECK(fs::exists(dir / "a/b/result"));
  }
  SECTION("not when something stands beside them") {
    {
      const UnusedFolder unused(dir / "a/b");
      fs::create_directories(dir / "a/b");
      fs::create_directories(dir / "a/c");
    }
    CHECK_FALSE(fs::exists(dir / "a/b"));
    CHECK(fs::exists(dir / "a/c"));
  }
  SECTION("not when they were there") {
    { const UnusedFolder unused(dir / "there"); }
    CHECK(fs::exists(dir / "there"));
  }
  SECTION("nor files and links") {
    {
      const UnusedFolder file(dir / "file"), link(dir / "link");
      put_text(dir / "file", "");
      fs::create_directory_symlink(dir / "there", dir / "link");
    }
    CHECK(fs::exists(dir / "file"));
    CHECK(fs::is_symlink(dir / "link"));
  }
  SECTION("and no folder at all is fine") { const UnusedFolder none(""); }
}
