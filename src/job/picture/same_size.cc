#include "job/picture/same_size.h"

#include "core/error.h"

namespace chalcedony {

void require_same_size(const std::filesystem::path& file, const RasterShape& shape,
                       const std::string& what, const RasterShape& other,
                       const std::string& remedy) {
  if (shape.width != other.width || shape.height != other.height)
    throw InputError("is " + shape.size_text() + ", " + what + " " + other.size_text(), remedy,
                     file.string());
}

}  // namespace chalcedony
