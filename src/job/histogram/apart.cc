#include "job/histogram/apart.h"

#include <algorithm>
#include <array>
#include <numeric>
#include <string>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/pixel/side_by_side.h"
#include "core/stats/class_histogram.h"
#include "figure/class_histogram_figure.h"
#include "io/text/csv.h"
#include "job/histogram/channel_interval.h"
#include "job/histogram/class_source.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/tallies.h"
#include "job/repeat/each_input.h"
#include "job/run/partner_files.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

struct ApartTally {
  std::vector<ClassHistogram> channels;
  Excluded excluded;

  void merge(const ApartTally& other) {
    for (std::size_t i = 0; i < channels.size(); ++i) channels[i].merge(other.channels[i]);
    excluded += other.excluded;
  }
};

/// Two classes, by their places, and what they have in common.
struct ClassPair {
  std::size_t first = 0, second = 0;
  double overlap = 0;  // 0-1
};

/// What is said of a channel.
struct ChannelFindings {
  Channel channel;
  const ClassHistogram* histogram = nullptr;
  std::vector<ClassPair> pairs;          // of classes with pixels
  std::vector<ClassInterval> intervals;  // of each class; of one without pixels nothing

  double mean_overlap() const {
    double sum = 0;
    for (const ClassPair& pair : pairs) sum += pair.overlap;
    return sum / static_cast<double>(pairs.size());
  }
  const ClassPair& most_alike() const {
    return *std::max_element(
        pairs.begin(), pairs.end(),
        [](const ClassPair& a, const ClassPair& b) { return a.overlap < b.overlap; });
  }
};

class ApartJob {
 public:
  ApartJob(const path& input, const path& classes, const ApartOptions& options,
           const Context& context)
      : options_(options),
        context_(context),
        picture_(open_counted(input, options.shared, context)),
        classes_path_(classes),
        source_(open_classes(classes, picture_.shape(), options.shared)),
        plan_(picture_.file.info, options.channels, options.shared.hue_floor),
        tally_(empty()) {}

  Json run(Results& results, FigureFormat format) {
    count();
    require_classes();
    find();
    const path& input = picture_.file.path;
    if (results.wants("intervals")) write_intervals(results.path(input, "intervals", "csv"));
    if (results.wants("overlaps")) write_overlaps(results.path(input, "overlaps", "csv"));
    if (results.wants("counts")) write_counts(results.path(input, "class-histogram", "csv"));
    if (format != FigureFormat::kNone)
      draw(results.path(input, "apart.figure", extension_of(format)), format);
    return report();
  }

 private:
  const PictureInfo& info() const { return picture_.file.info; }

  ApartTally empty() const {
    ApartTally tally;
    for (const Channel& channel : options_.channels)
      tally.channels.emplace_back(channel_binning(channel, options_.bins, info()),
                                  source_.classes.size());
    return tally;
  }

  /// One for each thread.
  class Worker {
   public:
    Worker(const ApartJob& job, const SideBySide& rows, SampleType labels,
           Tallies<ApartTally>& tallies)
        : job_(&job),
          tallies_(&tallies),
          labels_at_(rows.part(1)),
          label_type_(labels),
          reader_(job.info(), job.picture_.counting),
          channels_(job.plan_) {}

    bool operator()(const Band& band) {
      ApartTally& tally = tallies_->local();
      const RasterShape& shape = job_->picture_.shape();
      for (std::uint32_t r = 0; r < band.rows(); ++r) {
        const std::uint32_t y = band.first_row() + r;
        for (std::uint32_t x = 0; x < shape.width; x += kBlockPixels) {
          const std::size_t n = std::min<std::size_t>(kBlockPixels, shape.width - x);
          const Block& block = reader_.read(band.row(y) + x * shape.pixel_bytes(),
                                            std::uint64_t{y} * shape.width + x, n);
          if (read_classes(band.row(y) + labels_at_, x, n)) add(block, tally);
        }
      }
      tally.excluded += reader_.take_excluded();
      return true;
    }

   private:
    /// False when none of the pixels has one.
    bool read_classes(const std::byte* labels, std::uint32_t x, std::size_t n) {
      std::array<Label, kBlockPixels> numbers;
      read_labels(labels + x * bytes_of(label_type_), n, label_type_, numbers.data());
      std::uint8_t some = 0;
      for (std::size_t i = 0; i < n; ++i) {
        classes_[i] = job_->source_.class_of[numbers[i]];
        some |= classes_[i];
      }
      return some != 0;
    }

    void add(const Block& block, ApartTally& tally) {
      channels_.evaluate(block);
      for (std::size_t c = 0; c < tally.channels.size(); ++c)
        tally.channels[c].add(block, channels_.channel(c), classes_.data());
    }

    static std::size_t bytes_of(SampleType sample) { return sample == SampleType::kU8 ? 1 : 2; }

    const ApartJob* job_;
    Tallies<ApartTally>* tallies_;
    std::size_t labels_at_;  // where the labels of a row begin
    SampleType label_type_;
    BlockReader reader_;
    ChannelEvaluator channels_;
    std::array<std::uint8_t, kBlockPixels> classes_{};
  };

  void count() {
    const SampleType labels = source_.rows->shape().sample;
    const RoadOptions road = road_for(picture_, options_.shared, context_);
    RowSources sources;
    sources.push_back(std::move(picture_.file.rows));
    sources.push_back(std::move(source_.rows));
    SideBySide rows(std::move(sources));
    Tallies<ApartTally> tallies(empty());
    travel(
        rows, road, [&] { return Worker(*this, rows, labels, tallies); }, [](bool) {});
    tally_ = tallies.merged([](ApartTally& total, const ApartTally& one) { total.merge(one); });
  }

  std::uint64_t pixels(std::size_t c) const { return tally_.channels.front().total(c); }

  void require_classes() const {
    std::size_t some = 0;
    for (std::size_t c = 0; c < source_.classes.size(); ++c) some += pixels(c) > 0 ? 1 : 0;
    if (some < 2)
      throw InputError("has fewer than two classes with pixels that count",
                       "give a map with more, or check --region and --within",
                       classes_path_.string());
  }

  /// The channels, in the order of how well they tell the classes apart.
  void find() {
    for (std::size_t i = 0; i < options_.channels.size(); ++i) {
      const ClassHistogram& histogram = tally_.channels[i];
      ChannelFindings& one = findings_.emplace_back();
      one.channel = options_.channels[i];
      one.histogram = &histogram;
      const Binning& binning = histogram.binning();
      const bool circle = one.channel.is_hue() && binning.high() - binning.low() >= 360;
      for (std::size_t a = 0; a < source_.classes.size(); ++a) {
        one.intervals.push_back(pixels(a) > 0 ? best_interval(histogram, a, circle)
                                              : ClassInterval());
        for (std::size_t b = a + 1; b < source_.classes.size(); ++b)
          if (pixels(a) > 0 && pixels(b) > 0) one.pairs.push_back({a, b, overlap(histogram, a, b)});
      }
    }
    std::stable_sort(findings_.begin(), findings_.end(),
                     [](const ChannelFindings& a, const ChannelFindings& b) {
                       return a.mean_overlap() < b.mean_overlap();
                     });
  }

  ChannelInterval values_of(const ChannelFindings& found, std::size_t c) const {
    return interval_of(found.channel, found.histogram->binning(), found.intervals[c].bins,
                       has_codes(found.channel, info()));
  }

  void write_intervals(const path& file) const {
    CsvTable table({"class", "channel", "from", "to", "own_percent", "others_percent", "where"});
    for (std::size_t c = 0; c < source_.classes.size(); ++c)
      for (const ChannelFindings& found : findings_) {
        if (pixels(c) == 0) continue;
        const ChannelInterval values = values_of(found, c);
        table.add({source_.classes[c].name, found.channel.name(), values.low, values.high,
                   100 * found.intervals[c].own, 100 * found.intervals[c].others, values.text()});
      }
    table.write(file);
  }

  void write_overlaps(const path& file) const {
    CsvTable table({"channel", "first", "second", "overlap_percent"});
    for (const ChannelFindings& found : findings_)
      for (const ClassPair& pair : found.pairs)
        table.add({found.channel.name(), source_.classes[pair.first].name,
                   source_.classes[pair.second].name, 100 * pair.overlap});
    table.write(file);
  }

  void write_counts(const path& file) const {
    CsvTable table({"class", "channel", "bin", "from", "below", "count", "share_percent"});
    for (std::size_t c = 0; c < source_.classes.size(); ++c)
      for (std::size_t i = 0; i < options_.channels.size(); ++i) {
        const ClassHistogram& histogram = tally_.channels[i];
        const auto add = [&](CsvField bin, CsvField from, CsvField below, std::uint64_t count) {
          table.add({source_.classes[c].name, options_.channels[i].name(), std::move(bin),
                     std::move(from), std::move(below), count, percent(count, histogram.total(c))});
        };
        for (std::size_t b = 0; b < histogram.binning().bins(); ++b)
          add(std::uint64_t{b}, histogram.binning().edge(b), histogram.binning().edge(b + 1),
              histogram.count(c, b));
        add(std::string("beside"), {}, {}, histogram.beside(c));
      }
    table.write(file);
  }

  void draw(const path& file, FigureFormat format) const {
    std::vector<ShownChannel> shown;
    for (const ChannelFindings& found : findings_)
      shown.push_back({found.channel, found.histogram, 100 * found.mean_overlap()});
    std::vector<LegendLine> legend;
    for (const CountedClass& one : source_.classes) legend.push_back({one.name, one.color});
    Plot plot(format);
    add_class_histogram_figure(plot, file, picture_.name(), shown, legend);
    draw_figures(plot, context_);
  }

  Json class_json(std::size_t c) const {
    const auto best = std::max_element(findings_.begin(), findings_.end(),
                                       [&](const ChannelFindings& a, const ChannelFindings& b) {
                                         return a.intervals[c].gain() < b.intervals[c].gain();
                                       });
    Json json{{"name", source_.classes[c].name},
              {"color", source_.classes[c].color},
              {"pixels", pixels(c)}};
    if (pixels(c) == 0) return json;
    const ChannelInterval values = values_of(*best, c);
    json["best"] = {{"channel", best->channel.name()},
                    {"from", values.low},
                    {"to", values.high},
                    {"own_percent", 100 * best->intervals[c].own},
                    {"others_percent", 100 * best->intervals[c].others},
                    {"where", values.text()}};
    return json;
  }

  Json report() const {
    Json json{{"file", picture_.file.path.string()},
              {"classes_from", classes_path_.string()},
              {"excluded", excluded_json(tally_.excluded)},
              {"classes", Json::array()},
              {"channels", Json::array()}};
    for (std::size_t c = 0; c < source_.classes.size(); ++c)
      json["classes"].push_back(class_json(c));
    for (const ChannelFindings& found : findings_) {
      const ClassPair& alike = found.most_alike();
      json["channels"].push_back({{"channel", found.channel.name()},
                                  {"unit", found.channel.unit_name()},
                                  {"overlap_percent", 100 * found.mean_overlap()},
                                  {"most_alike",
                                   {{"first", source_.classes[alike.first].name},
                                    {"second", source_.classes[alike.second].name},
                                    {"overlap_percent", 100 * alike.overlap}}}});
    }
    return json;
  }

  const ApartOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  path classes_path_;
  ClassSource source_;
  ChannelPlan plan_;
  ApartTally tally_;
  std::vector<ChannelFindings> findings_;
};

}  // namespace

const std::vector<ResultKind>& apart_results() {
  static const std::vector<ResultKind> kinds{
      {"intervals",
       "<stem>.intervals.csv: of every class in every channel the interval that takes it best, as "
       "a selection"},
      {"overlaps", "<stem>.overlaps.csv: what every two classes have in common in every channel"},
      {"counts", "<stem>.class-histogram.csv: the bins of every channel, class by class"},
      {"figure", "<stem>.apart.figure.png: a curve for each class in every channel"}};
  return kinds;
}

Json run_apart(const ApartOptions& options, const Context& context) {
  Results results(options.shared, context, apart_results());
  const FigureFormat format = figure_formats(results, options.shared, context).of_each;
  Json summary = summary_frame("apart");
  const PartnerFiles classes(options.classes, is_picture_or_samples, "reference");
  const auto do_one = [&](const path& input, const Context& its_context) {
    return ApartJob(input, classes.of(input), options, its_context).run(results, format);
  };
  for_each_input(options.shared, context, summary, do_one);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
