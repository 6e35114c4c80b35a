#include "job/map/class_map.h"

#include <algorithm>
#include <deque>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/learn/block_classifier.h"
#include "core/learn/class_tally.h"
#include "core/learn/confidence_tally.h"
#include "core/learn/doubt_tiles.h"
#include "core/palette/class_painter.h"
#include "core/pixel/flags.h"
#include "core/pixel/interleave.h"
#include "core/pixel/label.h"
#include "core/pixel/row_buffers.h"
#include "core/pixel/uncounted.h"
#include "figure/map_figure.h"
#include "io/metadata/class_legend.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "io/text/csv.h"
#include "job/learn/model_fit.h"
#include "job/map/class_shares.h"
#include "job/map/close_ups.h"
#include "job/map/suggested_samples.h"
#include "job/picture/figures.h"
#include "job/picture/preview.h"

namespace chalcedony {
namespace {

struct ClassBand {
  std::vector<EncodedRows> rows;      // for each file
  std::vector<std::uint64_t> counts;  // unclassified first; counted pixels only
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t near_gray = 0;
  std::uint64_t contested = 0;  // counted pixels that several classes would take
  std::uint64_t far = 0;        // counted pixels beyond what the samples of any class reach
  ConfidenceTally confidence;
};

PictureSpec confidence_spec(const RasterShape& size) {
  PictureSpec spec;
  spec.shape = {size.width, size.height, 1, SampleType::kU16};
  return spec;
}

PictureSpec blend_spec(const RasterShape& size) {
  PictureSpec spec;
  spec.shape = {size.width, size.height, 3, SampleType::kU8};
  return spec;
}

/// A picture that is written, and memory for its bands that goes round.
struct MapFile {
  std::unique_ptr<PictureWriter> writer;
  std::size_t pixel_bytes;
  RowBuffers buffers;

  MapFile(std::unique_ptr<PictureWriter> to, std::size_t bytes, std::size_t bands,
          std::size_t band_bytes)
      : writer(std::move(to)), pixel_bytes(bytes), buffers(bands, band_bytes) {}
};

class ClassMapJob {
 public:
  ClassMapJob(CountedPicture picture, const std::vector<MapClass>& classes, Labeling& labeling,
              const ClassMapOptions& wanted, const SharedOptions& options, const Context& context,
              Results& results, FigureFormat figures)
      : classes_(classes),
        labeling_(labeling),
        wanted_(wanted),
        options_(options),
        context_(context),
        results_(results),
        picture_(std::move(picture)),
        srgb_(info().shown(), channels_of(spaces::kSrgb)),
        preview_(info(), figures != FigureFormat::kNone),
        map_preview_(empty_preview(info().shape, preview_.wanted())),
        format_(figures),
        label_sample_(sample_for_labels(classes_.size())),
        counts_(classes_.size() + 1),
        confidence_(wanted.confidence ? classes_.size() : 0) {
    const RasterShape& size = info().shape;
    if (results.wants(wanted.thing))
      map_ = open("png", wanted.thing, class_map_spec(size, legend_of(classes_)));
    if (wanted.confidence && results.wants("confidence"))
      confidence_picture_ = open("png", "confidence", confidence_spec(size));
    if (wanted.blend > 0 && results.wants("blend")) blend_ = open("png", "blend", blend_spec(size));
    if (wanted.suggest > 0) doubt_.emplace(DoubtTiles(size.width, size.height));
    for (const MapClass& one : classes_) colors_.push_back(one.color);
  }

  Json run() {
    travel(
        *picture_.file.rows, road(), [this] { return Worker(*this); },
        [this](ClassBand&& band) { take(std::move(band)); });
    const std::uint64_t counted = info().shape.pixels() - excluded_.total();
    require_counted(counted, picture_);
    for (MapFile& file : files_) file.writer->finish();
    if (results_.wants("areas")) write_areas(counted);
    if (confidence_picture_) write_confidence();
    const std::optional<SuggestedSamples> suggested = suggest(counted);
    if (preview_.wanted()) draw(counted, suggested);
    Json json = report(counted);
    if (suggested) suggested->report(json);
    return json;
  }

 private:
  const PictureInfo& info() const { return picture_.file.info; }
  const std::filesystem::path& input() const { return picture_.file.path; }

  RoadOptions road() const {
    RoadOptions road = road_for(picture_, options_, context_);
    road.halo = labeling_.halo();
    return road;
  }

  /// The place of a new file among those that are written.
  std::size_t open(const char* extension, const std::string& thing, PictureSpec spec) {
    spec.carried = picture_.file.facts.carried;
    const std::size_t bytes = spec.shape.pixel_bytes();
    const std::size_t band_bytes =
        rows_per_band(info().shape, labeling_.halo()) * info().shape.width * bytes;
    files_.emplace_back(create_picture(results_.path(input(), thing, extension), spec), bytes,
                        bands_under_way(road()), band_bytes);
    return files_.size() - 1;
  }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(ClassMapJob& job)
        : job_(&job),
          reader_(job.info(), job.picture_.counting),
          labeler_(job.labeling_.labeler()),
          srgb_(job.srgb_),
          collector_(job.preview_),
          painter_(job.colors_),
          labels_(kBlockPixels + kPlanePadding),
          stored_(kBlockPixels * sizeof(Label)),
          tally_(job.classes_.size()) {}

    ClassBand operator()(const Band& band) {
      ClassBand out;
      if (job_->wanted_.confidence) out.confidence = ConfidenceTally(job_->classes_.size());
      const std::size_t pixels = std::size_t{band.rows()} * band.shape().width;
      samples_.clear();
      for (MapFile& file : job_->files_)
        samples_.push_back(file.buffers.take(pixels * file.pixel_bytes));
      std::size_t at = 0;
      reader_.for_each_block(band, [&](const Block& block) {
        add(block, at, out);
        at += block.size;
      });
      out.counts = tally_.take();
      out.excluded = reader_.take_excluded();
      out.clipped = labeler_->take_clipped();
      out.near_gray = labeler_->take_near_gray();
      for (std::size_t f = 0; f < samples_.size(); ++f)
        out.rows.push_back(
            job_->files_[f].writer->encode(band.first_row(), band.rows(), std::move(samples_[f])));
      return out;
    }

   private:
    void add(const Block& block, std::size_t at, ClassBand& out) {
      const Verdicts& found = labeler_->label(block);
      std::copy_n(found.labels.begin(), block.size, labels_.begin());
      clear_uncounted(block, labels_.data());
      const SampleType sample = job_->label_sample_;
      std::byte* const stored = job_->map_
                                    ? samples_[*job_->map_].data() + at * bytes_per_sample(sample)
                                    : stored_.data();
      store_labels(labels_.data(), block.size, sample, stored);
      tally_.add(stored, sample, block);
      out.far += count_flags(block, found.far.data());
      out.contested += count_flags(block, found.contested.data());
      if (job_->wanted_.confidence) add_confidence(found, block, at, out);
      if (job_->doubt_ || job_->blend_) srgb_.evaluate(block);
      if (job_->doubt_) job_->doubt_->local().add(block, found, srgb_.channels(0));
      if (job_->blend_) add_blend(block, at);
      if (job_->preview_.wanted()) collect(block);
    }

    void add_confidence(const Verdicts& found, const Block& block, std::size_t at, ClassBand& out) {
      float* const confidence = confidence_.plane(0);
      std::copy_n(found.confidence.begin(), block.size, confidence);
      fill_uncounted(block, 0, confidence);
      out.confidence.add(labels_.data(), confidence, block.size);
      if (!job_->confidence_picture_) return;
      write_plane(confidence, block.size, 1, SampleType::kU16, 0, share_scale(SampleType::kU16),
                  samples_[*job_->confidence_picture_].data() + 2 * at);
    }

    void add_blend(const Block& block, std::size_t at) {
      const ConstPlanes mixed = painter_.paint_over(
          srgb_.channels(0), labels_.data(), static_cast<float>(job_->wanted_.blend), block.size);
      const SampleScale code = sample_scale(spaces::kSrgb, 0, SampleType::kU8);
      write_planes(mixed, block.size, 3, SampleType::kU8, {code, code, code},
                   samples_[*job_->blend_].data() + 3 * at);
    }

    void collect(const Block& block) {
      collector_.add(block);
      job_->map_preview_.local().add(without_alpha(block),
                                     painter_.paint(labels_.data(), block.size));
    }

    ClassMapJob* job_;
    BlockReader reader_;
    std::unique_ptr<BlockLabeler> labeler_;
    ChannelEvaluator srgb_;
    Preview::Collector collector_;
    ClassPainter painter_;
    PlaneBuffer confidence_{1};
    std::vector<Label> labels_;
    std::vector<std::byte> stored_;  // labels as stored, where no map is written
    ClassTally tally_;
    std::vector<std::vector<std::byte>> samples_;  // of each file
  };

  void take(ClassBand&& band) {
    for (std::size_t c = 0; c < counts_.size(); ++c) counts_[c] += band.counts[c];
    excluded_ += band.excluded;
    clipped_ += band.clipped;
    near_gray_ += band.near_gray;
    contested_ += band.contested;
    far_ += band.far;
    confidence_ += band.confidence;
    for (std::size_t f = 0; f < files_.size(); ++f) {
      files_[f].writer->append(band.rows[f]);
      files_[f].buffers.give_back(band.rows[f].take_buffer());
    }
  }

  void write_areas(std::uint64_t counted) const {
    CsvTable table({"index", "class", "color", "pixels", "share_percent", "unit", "area"});
    const auto add = [&](std::size_t c, const std::string& name, const std::string& color) {
      table.add({std::uint64_t{c}, name, color, counts_[c], percent(counts_[c], counted),
                 wanted_.pixel_size.unit, wanted_.pixel_size.area(counts_[c])});
    };
    add(0, "unclassified", "");
    for (std::size_t c = 0; c < classes_.size(); ++c)
      add(c + 1, classes_[c].name, classes_[c].color);
    table.write(results_.path(input(), wanted_.table, "csv"));
  }

  void write_confidence() const {
    CsvTable table({"class", "pixels", "mean_percent", "percentile_5", "median_percent"});
    for (std::size_t c = 0; c < classes_.size(); ++c) {
      const ConfidenceTally::Figures figures = confidence_.of_class(c);
      if (figures.pixels == 0) {
        table.add({classes_[c].name, figures.pixels, CsvField(), CsvField(), CsvField()});
      } else {
        table.add({classes_[c].name, figures.pixels, figures.mean, figures.low, figures.median});
      }
    }
    table.write(results_.path(input(), "confidence", "csv"));
  }

  std::optional<SuggestedSamples> suggest(std::uint64_t counted) {
    if (!doubt_) return std::nullopt;
    const DoubtTiles& all =
        doubt_->merged([](DoubtTiles& total, const DoubtTiles& one) { total.merge(one); });
    SuggestedSamples samples(all, wanted_.suggest, info().shape, counted, classes_);
    if (results_.wants("suggested") && !samples.none()) {
      samples.write(results_.path(input(), "suggested", "geojson"));
      samples.write_table(results_.path(input(), "suggested", "csv"));
    }
    return samples;
  }

  void draw(std::uint64_t counted, const std::optional<SuggestedSamples>& suggested) {
    const std::vector<LegendLine> legend = classes_legend(classes_, counts_, counted);
    Plot plot(format_);
    const Thumbnail picture = preview_.thumbnail();
    add_class_map_figure(plot,
                         results_.path(input(), wanted_.thing + ".figure", extension_of(format_)),
                         picture_.name(), legend, picture, merged_thumbnail(map_preview_));
    if (suggested && !suggested->none())
      suggested->add_figure(plot, results_.path(input(), "suggested.figure", extension_of(format_)),
                            picture_.name(), picture,
                            close_ups(picture_.file, suggested->squares()));
    draw_figures(plot, context_);
  }

  Json report(std::uint64_t counted) const {
    Json json{{"file", input().string()},
              {"counted", counted},
              {"excluded", excluded_json(excluded_)},
              {"clipped", clipped_},
              {"contested", contested_},
              {"far", far_},
              {"far_percent", percent(far_, counted)},
              {"unclassified", counts_[0]},
              {"unclassified_percent", percent(counts_[0], counted)},
              {"unit", wanted_.pixel_size.unit},
              {"classes", classes_json(classes_, counts_, counted, wanted_.pixel_size)}};
    note_near_gray(json, near_gray_, counted);
    if (wanted_.confidence) {
      const ConfidenceTally::Figures figures = confidence_.of_all();
      json["confidence"] = {{"mean_percent", figures.mean},
                            {"percentile_5", figures.low},
                            {"median_percent", figures.median}};
    }
    return json;
  }

  std::vector<MapClass> classes_;
  Labeling& labeling_;
  const ClassMapOptions& wanted_;
  const SharedOptions& options_;
  const Context& context_;
  Results& results_;
  CountedPicture picture_;
  ChannelPlan srgb_;
  Preview preview_;
  Tallies<ThumbnailSums> map_preview_;
  FigureFormat format_;
  std::vector<std::string> colors_;
  std::deque<MapFile> files_;
  std::optional<std::size_t> map_, confidence_picture_, blend_;  // places in files_
  SampleType label_sample_;
  std::vector<std::uint64_t> counts_;
  Excluded excluded_;
  std::uint64_t clipped_ = 0;
  std::uint64_t near_gray_ = 0;
  std::uint64_t contested_ = 0;
  std::uint64_t far_ = 0;
  ConfidenceTally confidence_;
  std::optional<Tallies<DoubtTiles>> doubt_;  // where samples are to be suggested
};

}  // namespace

Json write_class_map(CountedPicture picture, const std::vector<MapClass>& classes,
                     Labeling& labeling, const ClassMapOptions& wanted,
                     const SharedOptions& options, const Context& context, Results& results,
                     FigureFormat figures) {
  return ClassMapJob(std::move(picture), classes, labeling, wanted, options, context, results,
                     figures)
      .run();
}

Json write_class_map(CountedPicture picture, const Model& model, const Classifier& classifier,
                     const ClassMapOptions& wanted, const SharedOptions& options,
                     const Context& context, Results& results, FigureFormat figures) {
  const std::string note = note_on_fit(model, picture.file.info);
  ModelLabeling labeling(picture.file.info, model, classifier,
                         wanted.confidence || wanted.suggest > 0, options.hue_floor,
                         picture.counting);
  Json json = write_class_map(std::move(picture), map_classes(model), labeling, wanted, options,
                              context, results, figures);
  if (!note.empty()) json["note"] = note;
  return json;
}

}  // namespace chalcedony
