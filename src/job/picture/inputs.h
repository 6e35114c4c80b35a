// The input pictures of a job, opened with what counts in them.
#ifndef CHALCEDONY_JOB_PICTURE_INPUTS_H_
#define CHALCEDONY_JOB_PICTURE_INPUTS_H_

#include <string>

#include "core/pixel/block_reader.h"
#include "core/pixel/road.h"
#include "io/picture/picture_file.h"
#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

/// An input picture and which of its pixels count.
struct CountedPicture {
  PictureFile file;
  Counting counting;

  const RasterShape& shape() const { return file.info.shape; }
  std::string name() const { return file.path.filename().string(); }
};

/// Opens a picture and settles the region and the mask for its size; warnings go to the context.
///
/// Errors    InputError
CountedPicture open_counted(const std::filesystem::path& path, const SharedOptions& options,
                            const Context& context);

/// The same options for another picture, of which all pixels count: region and mask are those of
/// the inputs.
SharedOptions of_whole_picture(SharedOptions options);

/// Keeps the rows of the first pass over a picture for the passes that follow, where they take no
/// more than 100 MB; larger pictures are decoded each time. Those that are read again quickly (held
/// by their decoder, or not compressed) are not kept, which would take longer.
void keep_rows(CountedPicture& picture);

/// Errors    InputError when a picture has more channels than a color, and nothing says which are
///           its color
void require_color(const PictureInfo& info);

/// The same as open_counted(), of a picture with more channels only those of its color: for
/// commands that write pictures of it.
///
/// Errors    InputError, also as require_color()
CountedPicture open_color(const std::filesystem::path& path, const SharedOptions& options,
                          const Context& context);

/// What counts of an input of this size by --region, --within and --alpha: what is in the
/// rectangle, and in the mask that goes with it, in classes of the class map, or in regions of the
/// sample file that do. Warnings go to the context.
///
/// Errors    InputError, also when there is none
Counting counting_for(const SharedOptions& options, const std::filesystem::path& input,
                      std::uint32_t width, std::uint32_t height, const Context& context);

/// The codes of a picture as its file stores them, which `picture` holds on to.
CodesOf codes_of(const CountedPicture& picture);

/// The road for one pass over a picture.
RoadOptions road_for(const CountedPicture& picture, const SharedOptions& options,
                     const Context& context);

/// The road for rows that are made of an input; `rows` of them in all.
RoadOptions road_for(const std::filesystem::path& input, std::uint32_t rows,
                     const SharedOptions& options, const Context& context);

/// Whether every pixel of the picture counts, whatever it holds: only a float can still be left out
/// for not being finite.
bool all_pixels_count(const CountedPicture& picture);

/// Errors    InputError when no pixel of the picture counts
void require_counted(std::uint64_t counted, const CountedPicture& picture);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_INPUTS_H_
