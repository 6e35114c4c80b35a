// The pictures a run works on: files, folders and lists of files.
#ifndef CHALCEDONY_JOB_RUN_INPUT_LIST_H_
#define CHALCEDONY_JOB_RUN_INPUT_LIST_H_

#include <filesystem>
#include <iosfwd>
#include <string>
#include <vector>

#include "job/run/context.h"

namespace chalcedony {

/// Whether a file is a picture this program reads, by its extension.
bool is_picture_name(const std::filesystem::path& path);

/// Whether a picture is a figure of ours, made to be looked at, by its name:
/// `pane.mask.figure.png`, `pane.histogram.png`, `pane.joint.png`, or the swatches
/// `pane.palette.png`.
bool is_figure_name(const std::filesystem::path& path);

/// Whether a file is a table that stands for pictures, of colors or of samples, by its extension.
bool is_table_name(const std::filesystem::path& path);

/// Puts the files that `named` stands for into the options, in the order named. Of a folder: its
/// pictures by their names, in natural order, hidden ones, figures and pictures that say how right
/// a map is (`pane.errors.png`, `pane.versus.png`) left out; with `recursive` those of the folders
/// below it too, but not what lies in the output folder. Results of a file from a folder below keep
/// that folder below -o.
///
/// Errors    UsageError for a folder without pictures
void set_inputs(SharedOptions& options, const std::vector<std::string>& named, bool recursive);

/// The files of a folder that `may_be` takes, by their names in natural order; those below it are
/// left out, and what set_inputs() leaves out.
///
/// Errors    InputError when it cannot be read
std::vector<std::filesystem::path> files_in(const std::filesystem::path& folder,
                                            bool (*may_be)(const std::filesystem::path&));

/// The lines of a list of files; empty lines are left out.
///
/// Errors    InputError when it is no text, but a picture, say; without a place
std::vector<std::string> listed_inputs(std::istream& list);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_INPUT_LIST_H_
