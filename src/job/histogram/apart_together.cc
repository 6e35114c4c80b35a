#include "job/histogram/apart_together.h"

#include <algorithm>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "core/error.h"
#include "job/histogram/apart_report.h"
#include "job/run/selection_file.h"

namespace chalcedony {
namespace {

std::vector<CountedClass> classes_told(const Json& picture) {
  std::vector<CountedClass> classes;
  for (const Json& one : picture["classes"]) classes.push_back({one["name"], one["color"]});
  return classes;
}

ClassCounts none_of(const ClassCounts& like, std::size_t classes) {
  ClassCounts none;
  for (const CountedChannel& one : like.channels)
    none.channels.push_back(
        {one.channel, one.codes, ClassHistogram(one.histogram.binning(), classes)});
  return none;
}

/// The same channel in the same bins; null where there is none.
const CountedChannel* same_channel(const ClassCounts& counts, const CountedChannel& as) {
  const auto same = [&](const CountedChannel& one) {
    return one.channel == as.channel && one.histogram.binning() == as.histogram.binning();
  };
  const auto found = std::find_if(counts.channels.begin(), counts.channels.end(), same);
  return found == counts.channels.end() ? nullptr : &*found;
}

bool same_channels(const ClassCounts& a, const ClassCounts& b) {
  return a.channels.size() == b.channels.size() &&
         std::all_of(a.channels.begin(), a.channels.end(),
                     [&](const CountedChannel& one) { return same_channel(b, one); });
}

void add_counts_of(ClassCounts& all, const ClassCounts& picture,
                   const std::vector<std::size_t>& class_here) {
  for (CountedChannel& one : all.channels) {
    const CountedChannel& own = *same_channel(picture, one);
    one.codes = one.codes && own.codes;
    one.histogram.merge(own.histogram, class_here);
  }
}

/// Pictures of which nothing is added, by the reason, each reason told once.
class LeftOut {
 public:
  void add(const Json& picture, const std::string& why) {
    const auto file = picture["file"].get<std::string>();
    const auto [at, is_new] = place_of_.emplace(why, reasons_.size());
    if (is_new) reasons_.push_back({why, file, 0});
    ++reasons_[at->second].pictures;
  }

  void warn(const Context& context) const {
    for (const Reason& one : reasons_) {
      const std::string others =
          one.pictures == 1 ? " is" : " and " + std::to_string(one.pictures - 1) + " more are";
      context.warn(one.first + others + " left out of what is said of all pictures: " + one.why);
    }
  }

 private:
  struct Reason {
    std::string why, first;
    std::size_t pictures;
  };

  std::vector<Reason> reasons_;
  std::map<std::string, std::size_t> place_of_;
};

/// How much of every class its interval takes in each picture.
class TakenInPictures {
 public:
  explicit TakenInPictures(const FoundApart& found)
      : found_(found), percents_(found.classes.size()), files_(found.classes.size()) {}

  void add(const AddedPicture& added, const ClassCounts& picture) {
    for (std::size_t own = 0; own < added.class_here.size(); ++own) {
      const std::size_t c = added.class_here[own];
      const ChannelFindings* const best = telling_channel(found_, c);
      if (!best || picture.pixels(own) == 0) continue;
      const CountedChannel& channel = *same_channel(picture, *best->counted);
      percents_[c].push_back(100 * share_in(channel.histogram, own, best->intervals[c].bins));
      files_[c].push_back((*added.told)["file"]);
    }
  }

  void report(Json& classes) const {
    for (std::size_t c = 0; c < percents_.size(); ++c)
      if (classes[c].contains("best"))
        add_lowest_and_highest(classes[c]["best"], percents_[c], files_[c]);
  }

 private:
  const FoundApart& found_;
  std::vector<std::vector<double>> percents_;
  std::vector<std::vector<std::string>> files_;
};

/// For each channel its overlap in a picture by itself, in percent, on average.
std::vector<double> overlaps_of_each(const Json& channels,
                                     const std::vector<AddedPicture>& pictures) {
  std::vector<double> means;
  for (const Json& channel : channels) {
    double sum = 0;
    for (const AddedPicture& picture : pictures)
      for (const Json& own : (*picture.told)["channels"])
        if (own["channel"] == channel["channel"]) sum += own["overlap_percent"].get<double>();
    means.push_back(sum / static_cast<double>(pictures.size()));
  }
  return means;
}

void write(const FoundApart& found, const SharedOptions& options, const Results& results) {
  if (results.wants_of_all("intervals")) write_class_intervals(results.path("apart.csv"), found);
  const std::vector<ClassSelection> selections = class_selections(found);
  if (results.wants_of_all("selections") && !selections.empty())
    write_selection_file(results.path("apart.yaml"), selections, options);
}

}  // namespace

std::optional<ClassCounts> ApartTogether::counts_of(const Json& told) const {
  return pictures_.of(told["file"].get<std::string>(), [&](const std::filesystem::path& table) {
    return read_class_histograms(table, told, options_.names);
  });
}

std::vector<AddedPicture> ApartTogether::add_up(const Json& pictures, ClassList& classes,
                                                ClassCounts& all) const {
  std::vector<std::vector<std::size_t>> class_here;
  for (const Json& picture : pictures)
    class_here.push_back(add_classes(classes_told(picture), classes));
  std::vector<AddedPicture> added;
  LeftOut left_out;
  for (std::size_t p = 0; p < pictures.size(); ++p) {
    const Json& picture = pictures[p];
    try {
      const auto counts = counts_of(picture);
      if (!counts) {
        left_out.add(picture, "no class-histogram.csv");
        continue;
      }
      if (added.empty()) all = none_of(*counts, classes.size());
      if (!same_channels(all, *counts)) {
        left_out.add(picture, "other channels or bins than those of the first");
        continue;
      }
      add_counts_of(all, *counts, class_here[p]);
      added.push_back({&picture, class_here[p]});
    } catch (const InputError& problem) {
      left_out.add(picture, problem.what());
    }
  }
  left_out.warn(context_);
  return added;
}

void ApartTogether::report(Json& summary, Plot& plot, const Results& results) const {
  const Json& pictures = summary["inputs"];
  if (pictures.size() < 2) return;
  ClassList classes;
  ClassCounts all;
  const std::vector<AddedPicture> added = add_up(pictures, classes, all);
  if (added.size() < 2 || all.classes_with_pixels() < 2) return;
  const FoundApart found{classes_of(classes), channels_apart(all)};
  Json together{{"pictures", added.size()}};
  report_apart(found, together);
  TakenInPictures taken(found);
  for (const AddedPicture& picture : added)
    if (const auto counts = counts_of(*picture.told)) taken.add(picture, *counts);
  taken.report(together["classes"]);
  const std::vector<double> of_each = overlaps_of_each(together["channels"], added);
  for (std::size_t i = 0; i < of_each.size(); ++i)
    together["channels"][i]["of_each_percent"] = of_each[i];
  write(found, options_, results);
  if (plot.format() != FigureFormat::kNone)
    add_apart_figure(plot, results.path("apart.figure." + extension_of(plot.format())),
                     std::to_string(added.size()) + " pictures", found, of_each);
  summary["together"] = std::move(together);
}

}  // namespace chalcedony
