#include "job/report/report_images.h"

#include "core/error.h"
#include "core/letter_case.h"
#include "figure/plot/plot.h"
#include "io/picture/label_picture.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/picture/reduced_picture.h"
#include "job/picture/thumbnail_url.h"
#include "job/run/input_list.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr std::uintmax_t kSmallBytes = 200'000;

/// Whether a picture is a page of figures: of its size, or with their name no higher.
bool is_page(const RasterShape& shape, const path& stem) {
  return shape.width == Plot::kWidth &&
         (shape.height == Plot::kHeight ||
          (shape.height < Plot::kHeight && stem.extension() == ".figure"));
}

/// A reduced copy: labels without loss, as their colors must not run, all else as JPEG.
std::string reduced_url(CountedPicture& picture, bool labels, const Context& context) {
  return thumbnail_url(
      reduced_picture(picture, SharedOptions{}, context, kPreviewWidth, kPreviewHeight),
      labels ? ThumbnailColors::kExact : ThumbnailColors::kNearly);
}

}  // namespace

std::optional<InlinedImage> inlined_image(const path& file, const Context& context) {
  const std::string extension = lower_case(file.extension().string());
  std::error_code error;
  if (!std::filesystem::is_regular_file(file, error)) return std::nullopt;
  if (extension == ".svg") return InlinedImage{data_url("svg+xml", file), true};
  if (!is_picture_name(file)) return std::nullopt;
  try {
    CountedPicture picture = open_counted(file, SharedOptions{}, without_warnings(context));
    const RasterShape shape = picture.shape();
    const bool is_png = extension == ".png";
    const bool is_figure = is_png && is_page(shape, file.stem());
    const bool is_small = is_png && shape.width <= kPreviewWidth &&
                          shape.height <= kPreviewHeight && shape.sample == SampleType::kU8 &&
                          std::filesystem::file_size(file, error) <= kSmallBytes;
    if (is_figure || is_small) return InlinedImage{data_url("png", file), is_figure};
    const bool labels = holds_labels(picture.file);
    return InlinedImage{reduced_url(picture, labels, without_warnings(context)), false};
  } catch (const InputError&) {
    return std::nullopt;
  }
}

}  // namespace chalcedony
