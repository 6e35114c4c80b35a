#include "job/report/report.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <optional>
#include <set>
#include <utility>
#include <vector>

#include "core/error.h"
#include "core/palette/figure_colors.h"
#include "io/file/whole_file.h"
#include "io/text/csv.h"
#include "job/map/class_shares.h"
#include "job/report/outdated_runs.h"
#include "job/report/recorded_runs.h"
#include "job/report/report_images.h"
#include "job/report/report_page.h"
#include "job/run/input_list.h"
#include "job/run/picture_of_result.h"
#include "job/run/run_facts.h"
#include "job/run/run_record.h"
#include "job/run/typed_line.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

// Wider tables cannot be read on a page; they are linked.
constexpr std::size_t kMostColumns = 24;

/// THING of `<stem>.THING.<ext>` in words: `classes.figure` is "classes, figure".
std::string thing_words(const std::string& thing) {
  static const std::map<std::string, std::string> words{{"areas", "shares of the classes"},
                                                        {"classes", "class map"},
                                                        {"coverage", "shares selected"},
                                                        {"cutout", "cut-out"},
                                                        {"histogram", "histograms"},
                                                        {"joint", "joint histogram"},
                                                        {"clusters", "map of groups"},
                                                        {"slices", "map of slices"},
                                                        {"counts", "numbers of regions"},
                                                        {"sizes", "sizes of regions"},
                                                        {"shares", "what regions hold"},
                                                        {"shaded", "regions by what they hold"},
                                                        {"parts", "regions counted in parts"},
                                                        {"tidy", "cleaned"},
                                                        {"versus", "comparison with other maps"},
                                                        {"matrix", "error matrix"},
                                                        {"suggested", "suggested samples"},
                                                        {"apart", "classes in each channel"},
                                                        {"blend", "classes over the picture"}};
  std::string text = thing;
  const bool figure = text.ends_with("figure");
  if (figure) text.resize(std::max<std::size_t>(text.size(), 7) - 7);
  if (const auto at = words.find(text); at != words.end()) text = at->second;
  return figure ? (text.empty() ? "figure" : text + ", figure") : text;
}

class ReportJob {
 public:
  ReportJob(const ReportOptions& options, const Context& context)
      : options_(options),
        context_(context),
        runs_(runs_below(options.folder)),
        outdated_(runs_, options.folder) {
    const path place = options.page.parent_path();
    std::error_code error;
    if (!place.empty() && !std::filesystem::is_directory(place, error))
      throw OutputError("cannot be written, its folder is not there",
                        "make the folder, or choose another -o", options.page.string());
    find_originals();
    originals_by_name_.emplace(originals_);
  }

  Json run() {
    for (std::size_t r = 0; r < runs_.size(); ++r) {
      const RecordedRun& one = runs_[r];
      add_run(one, outdated_.of(r));
      for (const Json& output : one.run["outputs"]) add_output(one, output.get<std::string>());
    }
    add_tables();
    add_areas();
    settle_groups();
    content_.title = options_.title.empty() ? title_of_folder() : options_.title;
    content_.facts = fmt::format("{} of {}, made with Chalcedony {}", count(runs_.size(), "run"),
                                 count(originals_.size(), "picture"), program_version());
    content_.outdated = outdated_sentence();
    write_text_file(options_.page, report_page(content_));
    Json summary = summary_frame("report");
    summary["inputs"].push_back({{"file", options_.folder.string()}});
    summary["outputs"].push_back(options_.page.string());
    summary["runs"] = runs_.size();
    summary["pictures"] = originals_.size();
    summary["images"] = images_;
    summary["tables"] = content_.tables.size();
    summary["outdated"] = told_outdated_;
    return summary;
  }

 private:
  static std::string count(std::size_t n, const std::string& what) {
    return fmt::format("{} {}{}", n, what, n == 1 ? "" : "s");
  }

  std::string title_of_folder() const {
    const path folder = std::filesystem::weakly_canonical(options_.folder);
    return folder.filename().empty() ? "Results" : folder.filename().string();
  }

  /// What is said behind the name of a result.
  std::string mark_of(const path& result) const {
    return outdated_.wrote(result) ? ", outdated" : "";
  }

  std::string outdated_sentence() const {
    const std::size_t runs = outdated_.count();
    if (runs == 0) return "";
    return runs == 1
               ? "1 run is outdated: a result that it has read is another one now. What it made "
                 "is marked."
               : count(runs, "run") +
                     " are outdated: results that they have read are other ones now. What "
                     "they made is marked.";
  }

  /// The pictures that the runs began with, not those that one run made for another.
  void find_originals() {
    std::set<path> found;
    for (const RecordedRun& one : runs_)
      for (const Json& input : one.run["inputs"]) {
        const path file = file_read_at(one.run, input["file"].get<std::string>(), one.folder);
        if (!is_picture_name(file) || lies_below(file, options_.folder)) continue;
        if (found.insert(file).second) originals_.push_back(file);
      }
  }

  void add_run(const RecordedRun& one, const std::optional<OutdatedBy>& outdated) {
    path output = std::filesystem::weakly_canonical(one.folder)
                      .lexically_relative(typed_in(one.run, one.folder));
    if (one.run.contains("output")) output /= one.run["output"].get<std::string>();
    ReportRun run;
    run.command = typed_line(words_of_run(one.run, output));
    run.facts = fmt::format("{} read, {} written", count(one.run["inputs"].size(), "file"),
                            count(one.run["outputs"].size(), "file"));
    if (outdated) tell_outdated(one, *outdated, run);
    for (const Json& file : one.run["outputs"]) {
      const auto name = file.get<std::string>();
      run.files.emplace_back(name, link_to(one.folder / name));
    }
    content_.runs.push_back(std::move(run));
  }

  /// On the page and in the summary; those that only follow from others are not warned of.
  void tell_outdated(const RecordedRun& one, const OutdatedBy& why, ReportRun& run) {
    run.outdated = why.follows
                       ? why.file + ", which this has read, is outdated; do this anew after it."
                       : why.file + " is another one now than this has read; do it anew.";
    told_outdated_.push_back(
        {{"command", one.run["command"]}, {"file", why.file}, {"typed", run.command}});
    if (!why.follows)
      context_.warn("'" + one.run["command"].get<std::string>() + "' has read " + why.file +
                    ", which is another one now; do it anew: " + run.command);
  }

  std::string link_to(const path& file) const {
    const path page = std::filesystem::weakly_canonical(std::filesystem::absolute(options_.page));
    return std::filesystem::weakly_canonical(file)
        .lexically_relative(page.parent_path())
        .generic_string();
  }

  void add_output(const RecordedRun& one, const std::string& name) {
    const path file = one.folder / name;
    if (!seen_.insert(file.lexically_normal()).second) return;
    if (file.extension() == ".csv") {
      tables_.push_back(file);
    } else if (is_picture_name(file) || file.extension() == ".svg") {
      add_image(one, file);
    }
  }

  PictureOfResult original_of(const path& file) const { return originals_by_name_->of(file); }

  /// What a result holds by its name, `a.areas.csv` areas; empty when it bears the stem alone.
  static std::string thing_of(const path& file, const PictureOfResult& original) {
    const std::string stem = file.stem().string();
    const std::size_t begin = original.picture ? original.named + 1 : 0;
    return stem.substr(std::min(stem.size(), begin));
  }

  void add_image(const RecordedRun& one, const path& file) {
    const PictureOfResult named_after = original_of(file);
    const path* const original = named_after.picture;
    const std::string key = original ? original->string() : "";
    auto at = std::find_if(groups_.begin(), groups_.end(),
                           [&](const auto& group) { return group.first == key; });
    if (at == groups_.end()) {
      const std::size_t named = groups_.size() - (has_common_ ? 1 : 0);
      if (original && named >= options_.most_pictures) {
        skipped_.insert(key);
        return;
      }
      has_common_ = has_common_ || !original;
      at = groups_.insert(
          groups_.end(),
          {key, {original ? original->filename().string() : "All pictures together", {}}});
      if (original) add_original(*original, at->second);
    }
    const auto image = inlined_image(file, context_);
    if (!image) return;
    const std::string command = one.run["command"].get<std::string>();
    const std::string words = thing_words(thing_of(file, named_after));
    at->second.images.push_back(
        {image->source,
         words + (original ? " of " + original->filename().string() : "") + ", made by " + command,
         words + " (" + command + mark_of(file) + ")", image->is_figure});
    ++images_;
  }

  void add_original(const path& original, ReportGroup& group) {
    const auto image = inlined_image(original, context_);
    if (!image) return;
    const std::string name = original.filename().string();
    group.images.push_back({image->source, name + " as it was read", "the picture", false});
    ++images_;
  }

  /// The pictures in order, what belongs to all of them last.
  void settle_groups() {
    std::stable_partition(groups_.begin(), groups_.end(),
                          [](const auto& group) { return !group.first.empty(); });
    for (auto& [key, group] : groups_)
      if (!group.images.empty()) content_.groups.push_back(std::move(group));
    if (!skipped_.empty())
      content_.left_out =
          fmt::format("The first {} pictures; {} more are in the tables and among the files.",
                      options_.most_pictures, skipped_.size());
  }

  /// Whether a table of several pictures holds one with this stem; one that does not name its
  /// pictures is of all that have such tables.
  bool holds_rows_of(const path& joined, const std::string& stem) {
    const auto [at, is_new] = stems_in_.emplace(joined, std::nullopt);
    std::error_code error;
    if (is_new && std::filesystem::exists(joined, error)) {
      const auto rows = read_csv(joined);
      if (!rows.empty() && !rows[0].empty() && rows[0][0] == "picture") {
        at->second.emplace();
        for (std::size_t r = 1; r < rows.size(); ++r)
          at->second->insert(path(rows[r][0]).stem().string());
      }
    }
    return !at->second || at->second->count(stem) > 0;
  }

  /// Whether the rows of a picture's table stand in a table of several pictures too:
  /// `a.b.areas.csv` in `areas.csv`, here or in a folder above.
  bool is_joined(const path& file) {
    const std::string name = file.filename().string();
    for (path folder = file.parent_path();; folder = folder.parent_path()) {
      for (std::size_t dot = name.find('.'); dot != std::string::npos;
           dot = name.find('.', dot + 1)) {
        const path joined = (folder / name.substr(dot + 1)).lexically_normal();
        if (seen_.count(joined) && holds_rows_of(joined, name.substr(0, dot))) return true;
      }
      const bool at_top =
          (folder / "").lexically_normal() == (options_.folder / "").lexically_normal();
      if (at_top || folder.empty() || folder == folder.parent_path()) return false;
    }
  }

  void add_tables() {
    static const std::vector<std::string> drawn{"histogram", "joint", "joint-matrix", "cube",
                                                "class-histogram"};
    for (const path& file : tables_) {
      const std::string thing = thing_of(file, original_of(file));
      if (is_joined(file) || std::find(drawn.begin(), drawn.end(), thing) != drawn.end()) continue;
      std::error_code error;
      if (!std::filesystem::exists(file, error)) continue;
      auto rows = read_csv(file);
      if (rows.size() < 2 || rows.front().size() > kMostColumns) continue;
      ReportTable table;
      table.title = file.lexically_relative(options_.folder).generic_string() + mark_of(file);
      table.header = rows.front();
      table.all_rows = rows.size() - 1;
      rows.erase(rows.begin());
      if (rows.size() > options_.most_rows) rows.resize(options_.most_rows);
      table.rows = std::move(rows);
      content_.tables.push_back(std::move(table));
    }
  }

  /// The tables of shares, and what the page calls them.
  struct ShareTable {
    std::string_view name, title;
  };
  static constexpr ShareTable kShareTables[]{{"areas.csv", "Shares of the classes"},
                                             {"clusters.csv", "Shares of the groups"},
                                             {"coverage.csv", "Shares selected"},
                                             {"slices.csv", "Shares of the slices"},
                                             {"tidy.csv", "Shares of the cleaned classes"}};

  static const ShareTable* share_table_of(const std::string& name) {
    for (const ShareTable& table : kShareTables)
      if (name == table.name || name.ends_with("." + std::string(table.name))) return &table;
    return nullptr;
  }

  void add_areas() {
    for (const path& file : tables_) {
      const ShareTable* const table = share_table_of(file.filename().string());
      if (!table || is_joined(file)) continue;
      const path* const original = original_of(file).picture;
      const std::string picture = original ? original->filename().string() : "";
      const std::string place = file.parent_path().lexically_relative(options_.folder).string();
      const std::string shares(table->title);
      const std::string title = (place == "." ? shares : shares + ", " + place) + mark_of(file);
      auto at = std::find_if(content_.areas.begin(), content_.areas.end(),
                             [&](const ReportAreas& areas) { return areas.title == title; });
      if (at == content_.areas.end()) at = content_.areas.insert(content_.areas.end(), {title, {}});
      add_shares(read_csv(file), picture, *at);
      if (at->pictures.size() > options_.most_rows) at->pictures.resize(options_.most_rows);
    }
  }

  static void add_shares(const std::vector<std::vector<std::string>>& rows, const std::string& own,
                         ReportAreas& areas) {
    const std::size_t columns = rows[0].size();
    const auto column = [&](const char* name) {
      return static_cast<std::size_t>(std::find(rows[0].begin(), rows[0].end(), name) -
                                      rows[0].begin());
    };
    const std::size_t picture = column("picture"), name = column("class"), color = column("color"),
                      share = column("share_percent"), selected = column("selected_percent");
    const bool of_classes = std::max({name, color, share}) < columns;
    if (!of_classes && selected >= columns) return;
    for (std::size_t r = 1; r < rows.size(); ++r) {
      const std::vector<std::string>& row = rows[r];
      const std::string of = picture < columns ? path(row[picture]).filename().string() : own;
      if (areas.pictures.empty() || areas.pictures.back().first != of)
        areas.pictures.push_back({of, {}});
      areas.pictures.back().second.push_back(
          of_classes ? ReportShare{row[name], row[color], std::stod(row[share])}
                     : ReportShare{"selected", kSelectedColor, std::stod(row[selected])});
    }
  }

  const ReportOptions& options_;
  const Context& context_;
  std::vector<RecordedRun> runs_;
  OutdatedRuns outdated_;
  std::vector<path> originals_;
  std::optional<PicturesByName> originals_by_name_;
  std::set<path> seen_;
  std::map<path, std::optional<std::set<std::string>>> stems_in_;  // of joined tables
  std::vector<path> tables_;
  std::vector<std::pair<std::string, ReportGroup>> groups_;
  bool has_common_ = false;
  std::set<std::string> skipped_;
  std::size_t images_ = 0;
  Json told_outdated_ = Json::array();
  ReportContent content_;
};

}  // namespace

Json run_report(const ReportOptions& options, const Context& context) {
  return ReportJob(options, context).run();
}

}  // namespace chalcedony
