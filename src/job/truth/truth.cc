#include "job/truth/truth.h"

#include <string>
#include <utility>

#include "io/document/truth_table.h"
#include "io/file/whole_file.h"
#include "io/picture/label_file.h"
#include "job/map/close_ups.h"
#include "job/picture/inputs.h"
#include "job/picture/label_input.h"
#include "job/picture/same_size.h"
#include "job/picture/thumbnail_url.h"
#include "job/repeat/picture_run.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"
#include "job/truth/drawn_pixels.h"
#include "job/truth/truth_page.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

constexpr std::uint32_t kSeenAround = 129;  // pixels; odd, so that the drawn one is in the middle

/// Each pixel with what lies around it in the picture.
std::vector<SeenPixel> seen_pixels(PictureFile& picture, const TruthTable& drawn) {
  std::vector<PixelRect> places;
  for (const TruthPixel& pixel : drawn.pixels) places.push_back({pixel.x, pixel.y, 1, 1});
  std::vector<SeenPixel> seen;
  for (const CloseUp& near : close_ups(picture, places, kSeenAround))
    seen.push_back({thumbnail_url(near.picture, ThumbnailColors::kExact), near.place.x,
                    near.place.y, near.picture.width, near.picture.height});
  return seen;
}

/// The picture that a map is of, all pixels of it.
CountedPicture picture_of(const path& image, const LabelFile& map, const SharedOptions& options,
                          const Context& context) {
  CountedPicture picture = open_color(image, of_whole_picture(options), context);
  require_same_size(image, picture.shape(), "the map", map.rows->shape(),
                    "name the picture that the map is of");
  return picture;
}

Json strata_json(const std::vector<Stratum>& strata) {
  Json json = Json::array();
  for (const Stratum& stratum : strata)
    if (stratum.entry.index > 0 || stratum.pixels > 0)
      json.push_back(
          {{"name", stratum.entry.name}, {"pixels", stratum.pixels}, {"drawn", stratum.drawn}});
  return json;
}

class TruthJob {
 public:
  TruthJob(const TruthOptions& options, const Results& results)
      : options_(options), results_(results), images_(options.image, is_picture_name) {}

  Json do_one(const path& input, const Context& context) const {
    LabelFile map = open_label_input(input, options_.shared, context);
    const DrawnPixels drawn = draw_pixels(map, options_.draw, options_.shared, context);
    const path& image = images_.of(input, *context.ledger);
    CountedPicture picture = picture_of(image, map, options_.shared, context);
    if (results_.wants("page")) write_page(input, image, drawn, picture.file);
    if (results_.wants("table"))
      write_truth_table(results_.path(input, "truth", "csv"), drawn.table);
    return {{"file", input.string()},
            {"image", image.string()},
            {"design", options_.draw.name()},
            {"drawn", drawn.table.pixels.size()},
            {"classes", strata_json(drawn.strata)}};
  }

 private:
  void write_page(const path& input, const path& image, const DrawnPixels& drawn,
                  PictureFile& picture) const {
    TruthPageContent content{input.filename().string(),
                             image.filename().string(),
                             options_.draw.name(),
                             input.stem().string() + ".truth.csv",
                             {},
                             drawn.table,
                             {}};
    for (const Stratum& stratum : drawn.strata)
      if (stratum.entry.index > 0) content.classes.push_back(stratum.entry);
    content.seen = seen_pixels(picture, drawn.table);
    write_text_file(results_.path(input, "truth", "html"), truth_page(content));
  }

  const TruthOptions& options_;
  const Results& results_;
  PartnerFiles images_;
};

}  // namespace

const std::vector<ResultKind>& truth_results() {
  static const std::vector<ResultKind> kinds{
      {"page",
       "<stem>.truth.html: a page for a browser that shows each pixel from near, takes what it is, "
       "and saves the table"},
      {"table", "<stem>.truth.csv: the pixels, with an empty column for their classes"}};
  return kinds;
}

Json run_truth(const TruthOptions& options, const Context& context) {
  PictureRun run("truth", options.shared, context, truth_results());
  const TruthJob job(options, run.results());
  return run.do_each([&](const path& input, const Context& its) { return job.do_one(input, its); });
}

}  // namespace chalcedony
