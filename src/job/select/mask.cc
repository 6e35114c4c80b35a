#include "job/select/mask.h"

#include <optional>
#include <utility>

#include "job/map/picture_shares.h"
#include "job/picture/inputs.h"
#include "job/repeat/picture_run.h"
#include "job/select/limit_warnings.h"
#include "job/select/write_mask.h"

namespace chalcedony {

const std::vector<ResultKind>& mask_results() {
  static const std::vector<ResultKind> kinds{
      {"mask", "<stem>.mask.png: 255 where selected, 0 elsewhere; <stem>.variants.csv of --vary"},
      {"cutout", "<stem>.cutout.png: the selected pixels, transparent elsewhere", "not vary"},
      {"coverage",
       "<stem>.coverage.csv: how many pixels are selected; of several pictures also coverage.csv",
       "not vary"},
      {"figure",
       "<stem>.mask.figure.png: picture, mask and cut-out side by side; of several pictures also "
       "coverage.figure.png: the shares of all; of --vary <stem>.variants.figure.png: all masks"}};
  return kinds;
}

Json run_mask(const MaskOptions& options, const Context& context) {
  if (options.where) warn_of_limits(*options.where, context);
  SharedOptions shared = options.shared;
  PictureRun run("mask", shared, context, mask_results());
  // What --like names is on the first input mostly.
  std::optional<CountedPicture> first;
  std::optional<DerivedSelection> like;
  if (options.like) {
    first = open_counted(options.shared.inputs.front(), options.shared, context);
    keep_rows(*first);
    like = like_selection(*first, *options.like, options.shared, context);
    // Samples of one input have a say in the masks of all.
    shared.typed.push_back({"found", {like->where}});
  }
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    const bool is_first = like && input == options.shared.inputs.front();
    CountedPicture picture =
        is_first ? std::move(*first) : open_counted(input, options.shared, its_context);
    // The first one keeps its rows already.
    const bool passes_again = options.threshold || !options.tidy.empty();
    if (passes_again && !is_first) keep_rows(picture);
    if (options.where)
      return write_mask(std::move(picture), *options.where, options, its_context, run.results(),
                        run.figures().of_each);
    const DerivedSelection found =
        like ? *like : auto_selection(picture, *options.threshold, options.shared, its_context);
    const Expression where = parse_expression(found.where, options.shared.names);
    Json json = write_mask(std::move(picture), where, options, its_context, run.results(),
                           run.figures().of_each);
    json.update(found.facts);
    return json;
  };
  return run.do_each(do_one, report_selected_shares);
}

}  // namespace chalcedony
