// On which input the places are that --like and --unlike name.
#ifndef CHALCEDONY_JOB_SELECT_LIKE_PLACES_H_
#define CHALCEDONY_JOB_SELECT_LIKE_PLACES_H_

#include <filesystem>
#include <string>
#include <vector>

#include "job/run/run_ledger.h"

namespace chalcedony {

/// Those of one input, as add_places() takes them.
struct LikePlaces {
  std::vector<std::string> like, unlike;

  bool empty() const { return like.empty() && unlike.empty(); }
};

/// The places of each input: a sample file is of the input that it is called after, as
/// `pane.samples.geojson` after `pane.png`; of a pattern, as `*.samples.geojson:CLASS`, each input
/// has the file that goes with it (see PartnerFiles), where that has samples of the class. All
/// other places, and files that are called after no input, are of the first one. Files of a pattern
/// are noted in the ledger.
///
/// Errors    InputError when no file fits a pattern, goes with an input or has samples of its class
std::vector<LikePlaces> places_of_inputs(const std::vector<std::string>& like,
                                         const std::vector<std::string>& unlike,
                                         const std::vector<std::filesystem::path>& inputs,
                                         RunLedger& ledger);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_SELECT_LIKE_PLACES_H_
