// The page of a report as HTML.
#ifndef CHALCEDONY_JOB_REPORT_REPORT_PAGE_H_
#define CHALCEDONY_JOB_REPORT_REPORT_PAGE_H_

#include <cstddef>
#include <string>
#include <vector>

namespace chalcedony {

/// A run as the page tells of it.
struct ReportRun {
  std::string command;                                     // as it was typed
  std::string facts;                                       // a sentence
  std::vector<std::pair<std::string, std::string>> files;  // name and link of each
  std::string outdated = {};  // why its results are not of what is there
};

/// A picture or figure: the image itself as a data URL.
struct ReportImage {
  std::string source;
  std::string alt;
  std::string caption;
  bool wide = false;  // a figure of several parts
};

/// All that was made of one picture, or of the run as a whole.
struct ReportGroup {
  std::string title;
  std::vector<ReportImage> images;
};

struct ReportTable {
  std::string title;
  std::vector<std::string> header;
  std::vector<std::vector<std::string>> rows;
  std::size_t all_rows = 0;  // in the file, which may be more than are shown
};

/// The share of a class of one picture, in percent.
struct ReportShare {
  std::string name;
  std::string color;
  double percent = 0;
};

struct ReportAreas {
  std::string title;
  std::vector<std::pair<std::string, std::vector<ReportShare>>> pictures;
};

struct ReportContent {
  std::string title;
  std::string facts;
  std::vector<ReportRun> runs;
  std::vector<ReportAreas> areas;
  std::vector<ReportGroup> groups;
  std::string left_out;  // a sentence about pictures that are not shown
  std::vector<ReportTable> tables;
  std::string outdated = {};  // a sentence about results that are to be made anew
};

/// The whole page: one file that needs no other, in light and dark as the reader's system is, with
/// a text for every image and tables that sort and filter.
std::string report_page(const ReportContent& content);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_REPORT_REPORT_PAGE_H_
