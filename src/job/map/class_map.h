// The class map of a picture, with its areas and its figure.
#ifndef CHALCEDONY_JOB_MAP_CLASS_MAP_H_
#define CHALCEDONY_JOB_MAP_CLASS_MAP_H_

#include <cstddef>
#include <string>
#include <vector>

#include "core/learn/classifier.h"
#include "core/learn/labeling.h"
#include "core/learn/map_class.h"
#include "figure/plot/plot.h"
#include "job/picture/inputs.h"
#include "job/picture/pixel_size.h"
#include "job/run/context.h"
#include "job/run/results.h"
#include "job/run/summary.h"

namespace chalcedony {

/// What is wanted besides the map.
struct ClassMapOptions {
  std::string thing = "classes";  // what the map is called in the names of files
  std::string table = "areas";    // and what its table of shares is
  PixelSize pixel_size = {};
  bool confidence = false;  // measure it, and write it where `confidence` is wanted
  std::size_t suggest = 0;  // samples to suggest at most
  double blend = 0;         // 0-1: how much of the class color a blend holds; 0: no blend
};

/// Gives each counted pixel its class by `labeling`, which is one for the picture; the numbers it
/// gives are those of `classes`, 1 for the first. Writes <stem>.THING.png, <stem>.TABLE.csv,
/// <stem>.confidence.png and .csv, <stem>.blend.png, <stem>.suggested.geojson and .csv, and the
/// figures of the map and of what is suggested where asked for and results named THING, `areas`,
/// `confidence`, `blend`, `suggested` and `figure` are wanted. Returns the summary of this input.
///
/// Errors    InputError, OutputError; no file is left then
Json write_class_map(CountedPicture picture, const std::vector<MapClass>& classes,
                     Labeling& labeling, const ClassMapOptions& wanted,
                     const SharedOptions& options, const Context& context, Results& results,
                     FigureFormat figures);

/// The same by `classifier`, which is one for `model`; with a note on how well that fits the
/// picture where there is one.
Json write_class_map(CountedPicture picture, const Model& model, const Classifier& classifier,
                     const ClassMapOptions& wanted, const SharedOptions& options,
                     const Context& context, Results& results, FigureFormat figures);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_MAP_CLASS_MAP_H_
