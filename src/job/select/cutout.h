// The file of a cut-out and what a run asks of it.
#ifndef CHALCEDONY_JOB_SELECT_CUTOUT_H_
#define CHALCEDONY_JOB_SELECT_CUTOUT_H_

#include <filesystem>

#include "core/select/cutout.h"
#include "io/picture/picture_spec.h"

namespace chalcedony {

struct CutoutOptions {
  CutoutRest rest = CutoutRest::kTransparent;
  Color color = {};                    // of kColor
  std::filesystem::path picture = {};  // of kPicture; of the size of every input
};

/// sRGB with alpha, as deep as the picture.
inline PictureSpec cutout_spec(const RasterShape& shape) {
  PictureSpec spec;
  const bool deep = shape.sample != SampleType::kU8;
  spec.shape = {shape.width, shape.height, 4, deep ? SampleType::kU16 : SampleType::kU8};
  spec.alpha = true;
  return spec;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_CUTOUT_H_
