#include "io/file/temporary_folder.h"

#include <stdlib.h>

#include <cstdlib>
#include <string>
#include <system_error>

#include "core/error.h"

namespace chalcedony {

TemporaryFolder::TemporaryFolder() {
  const char* const named = std::getenv("TMPDIR");
  const std::filesystem::path among = named && *named ? named : "/tmp";
  std::string name = (among / "chalcedony-XXXXXX").string();
  if (!::mkdtemp(name.data()))
    throw OutputError("no temporary folder can be made in it",
                      "let TMPDIR name a folder that may be written", among.string());
  path_ = name;
}

TemporaryFolder::~TemporaryFolder() {
  std::error_code ignored;
  std::filesystem::remove_all(path_, ignored);
}

}  // namespace chalcedony
