// How far apart classes lie in all pictures of a run together.
#ifndef CHALCEDONY_JOB_HISTOGRAM_APART_TOGETHER_H_
#define CHALCEDONY_JOB_HISTOGRAM_APART_TOGETHER_H_

#include <cstddef>
#include <filesystem>
#include <optional>
#include <vector>

#include "core/assess/class_list.h"
#include "figure/plot/plot.h"
#include "job/histogram/class_counts.h"
#include "job/histogram/picture_counts.h"
#include "job/run/context.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// A picture whose counts were added.
struct AddedPicture {
  const Json* told = nullptr;           // in the summary
  std::vector<std::size_t> class_here;  // for each of its classes which one it is of all
};

/// Classes of one name in several pictures are one class, whose pixels are added up, bin by bin:
/// where a channel says one thing in one light and another in another, classes overlap that lie
/// apart in every picture by itself.
class ApartTogether {
 public:
  ApartTogether(const SharedOptions& options, const Context& context)
      : options_(options), context_(context), pictures_(options, "class-histogram") {}

  /// Keeps the counts of a picture that has no table. May be called from any thread.
  void keep(const std::filesystem::path& input, const ClassCounts& counts) {
    pictures_.keep(input, counts);
  }

  /// Adds `together` to the summary of a run, writes apart.csv and apart.yaml and draws
  /// apart.figure, of the pictures whose channels and bins are those of the first; nothing where
  /// that leaves fewer than two, or classes of one name only. The user is told which picture is
  /// left out, and why.
  void report(Json& summary, Plot& plot, const Results& results) const;

 private:
  std::optional<ClassCounts> counts_of(const Json& told) const;
  /// The pictures that it added to `all`; `classes` are those of all pictures.
  std::vector<AddedPicture> add_up(const Json& pictures, ClassList& classes,
                                   ClassCounts& all) const;

  const SharedOptions& options_;
  const Context& context_;
  PictureCounts<ClassCounts> pictures_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_APART_TOGETHER_H_
