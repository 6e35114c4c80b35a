// What the classes of a map, or a selection, take of several pictures together.
#ifndef CHALCEDONY_JOB_MAP_PICTURE_SHARES_H_
#define CHALCEDONY_JOB_MAP_PICTURE_SHARES_H_

#include <string>

#include "figure/plot/plot.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// Of the summaries of pictures with `counted` and, of each class, `classes` as classes_json() has
/// them, with an `area` or without: how many `pictures` there are, what is `counted` and
/// `unclassified` in all of them, and for each class its `index`, `name`, `color`, `pixels`,
/// `percent` and `area` in all, and the lowest and highest of its shares in a picture:
/// `lowest_percent`, `lowest_file`, `highest_percent`, `highest_file` (the first such picture).
/// Pictures without classes, as tables of colors are, do not count. Null where that leaves fewer
/// than two pictures, or their classes are not the same.
Json class_shares_of_all(const Json& pictures);

/// The same of one selection, from `selected` in place of `classes`: `pictures`, `counted`,
/// `selected`, `selected_percent`, and the lowest and the highest share. Pictures on which several
/// selections were tried do not count.
Json selected_shares_of_all(const Json& pictures);

/// What the figure of class shares is called.
struct SharesName {
  std::string what;  // in its title: "classes"
  std::string file;  // without its extension
};

/// Adds class_shares_of_all() of the pictures to the summary as `together`, and where figures are
/// drawn their figure to the plot. Where pictures say `far_percent`, it is shown beside.
void report_class_shares(Json& summary, const Json& pictures, const SharesName& name, Plot& plot,
                         Results& results);

/// The same of selected_shares_of_all() of the inputs.
void report_selected_shares(Json& summary, Plot& plot, Results& results);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_PICTURE_SHARES_H_
