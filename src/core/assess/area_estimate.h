// Areas of classes estimated from a sample of a map and its reference: the map's own areas,
// corrected for what the sample shows the map to get wrong.
#ifndef CHALCEDONY_CORE_ASSESS_AREA_ESTIMATE_H_
#define CHALCEDONY_CORE_ASSESS_AREA_ESTIMATE_H_

#include <cstdint>
#include <optional>
#include <vector>

#include "core/assess/error_matrix.h"

namespace chalcedony {

/// A value and its standard error; the error is absent when a class of the map has one sample only.
struct Estimate {
  double value = 0;
  std::optional<double> standard_error;
};

struct AdjustedClass {
  Estimate area;  // share of the map's area, 0-1
  std::optional<Estimate> users;
  std::optional<Estimate> producers;
};

struct AreaAdjusted {
  Estimate overall;
  std::vector<AdjustedClass> classes;  // one for each column of the matrix
};

/// `sample` counts the sampled pixels (rows map, columns reference; a row for unclassified may
/// follow), drawn at random within each class of the map; `mapped_shares` are the shares of the
/// map's area that its rows have, 0-1, one a row. Nothing when a row that has area has no sample.
///
/// Source    Olofsson et al. (2014), Remote Sensing of Environment 148, equations 4 to 11; the
///           same estimators serve a simple random sample, stratified after the fact
std::optional<AreaAdjusted> area_adjusted(const ErrorMatrix& sample,
                                          const std::vector<double>& mapped_shares);

/// How many pixels a stratified sample needs so that the overall accuracy is known within
/// +-half_width at this level, when the classes of the map are as accurate as this sample says.
///
/// Source    Olofsson et al. (2014), equation 13 (Cochran 1977, 5.25)
std::uint64_t stratified_sample_size(const ErrorMatrix& sample,
                                     const std::vector<double>& mapped_shares, double half_width,
                                     double level);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ASSESS_AREA_ESTIMATE_H_
