// What `apart` says of a picture: tables and a part of the summary.
#ifndef CHALCEDONY_JOB_HISTOGRAM_APART_REPORT_H_
#define CHALCEDONY_JOB_HISTOGRAM_APART_REPORT_H_

#include <filesystem>
#include <string>
#include <vector>

#include "figure/plot/plot.h"
#include "job/histogram/class_source.h"
#include "job/histogram/classes_apart.h"
#include "job/run/selection_file.h"
#include "job/run/summary.h"

namespace chalcedony {

/// The findings of a picture.
struct FoundApart {
  std::vector<CountedClass> classes;
  std::vector<ChannelFindings> channels;  // best first
};

/// Of every class with pixels in every channel the interval that takes it best.
void write_class_intervals(const std::filesystem::path& path, const FoundApart& found);
/// Of each class the interval that takes it best, as a selection. That which takes least of other
/// classes comes first: where several take a pixel it is likeliest to be right.
std::vector<ClassSelection> class_selections(const FoundApart& found);

/// What every two classes have in common in every channel.
void write_class_overlaps(const std::filesystem::path& path, const FoundApart& found);
/// The counts of every class in the bins of every channel, best channels first.
void write_class_histograms(const std::filesystem::path& path, const FoundApart& found);

/// What write_class_histograms wrote; `told` is what report_apart() says of the picture.
///
/// Errors    InputError when the table has other rows
ClassCounts read_class_histograms(const std::filesystem::path& path, const Json& told,
                                  const ChannelNames& names);

/// The channel whose interval takes class c best; null when none tells it from the others.
const ChannelFindings* telling_channel(const FoundApart& found, std::size_t c);

/// The figure of the classes in every channel. `name` is of the picture, or of several; then
/// `of_each` are their own overlaps in percent, on average, one for each channel that was found.
void add_apart_figure(Plot& plot, const std::filesystem::path& path, const std::string& name,
                      const FoundApart& found, const std::vector<double>& of_each = {});

/// `classes` and `channels`.
void report_apart(const FoundApart& found, Json& json);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_HISTOGRAM_APART_REPORT_H_
