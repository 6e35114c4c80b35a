// Which of what a file says of its color counts.
#ifndef CHALCEDONY_IO_PICTURE_COLOR_SETTLING_H_
#define CHALCEDONY_IO_PICTURE_COLOR_SETTLING_H_

#include "io/picture/picture_file.h"

namespace chalcedony {

/// Settles the space of an open picture by what it says (`file.stated`): by the first of these, in
/// the order of StatedColor, that can be honored, else by options.assume, which goes before the
/// rest where code points or a profile cannot be honored. A profile, or a gamma, like a space we
/// have makes it that space; by any other, rows become sRGB floats. What cannot be honored is a
/// warning that says what was taken instead. The channels of labels, and those that --bands chose
/// or is yet to choose, are none of a color profile.
///
/// Source    PNG, third edition, 4.3 (the order of its chunks); Exif 2.32, 4.6.5: a color profile
///           says more than its ColorSpace
void settle_color(PictureFile& file, const ReadOptions& options);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_PICTURE_COLOR_SETTLING_H_
