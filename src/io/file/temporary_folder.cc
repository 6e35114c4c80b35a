#include "io/file/temporary_folder.h"

#include <stdlib.h>

#include <string>
#include <system_error>

#include "core/error.h"

namespace chalcedony {

TemporaryFolder::TemporaryFolder() {
  std::string name = (std::filesystem::temp_directory_path() / "chalcedony-XXXXXX").string();
  if (!::mkdtemp(name.data()))
    throw OutputError("cannot be made", "check that the folder for temporary files may be written",
                      name);
  path_ = name;
}

TemporaryFolder::~TemporaryFolder() {
  std::error_code ignored;
  std::filesystem::remove_all(path_, ignored);
}

}  // namespace chalcedony
