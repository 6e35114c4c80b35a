// The files of one map of an assessment.
#ifndef CHALCEDONY_JOB_ASSESS_ASSESSED_FILES_H_
#define CHALCEDONY_JOB_ASSESS_ASSESSED_FILES_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

struct AssessedFiles {
  std::filesystem::path map, reference;
  std::vector<std::filesystem::path> versus;  // other maps of the same picture
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_ASSESS_ASSESSED_FILES_H_
