// A results folder as one page that opens anywhere.
#ifndef CHALCEDONY_JOB_REPORT_REPORT_H_
#define CHALCEDONY_JOB_REPORT_REPORT_H_

#include <cstddef>
#include <filesystem>
#include <string>

#include "job/run/context.h"
#include "job/run/summary.h"

namespace chalcedony {

struct ReportOptions {
  std::filesystem::path folder;
  std::filesystem::path page;      // the file to write
  std::string title;               // empty: the name of the folder
  std::size_t most_pictures = 40;  // shown; all are in the tables
  std::size_t most_rows = 500;     // of a table
};

/// Reads the records of the folder and of those below it, and writes a page with what was run, the
/// pictures, figures and tables it made, and the areas of classes over all pictures. The page needs
/// no other file. Returns the summary.
///
/// Errors    InputError when no folder holds a record; OutputError
Json run_report(const ReportOptions& options, const Context& context);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPORT_REPORT_H_
