#include "job/cluster/cluster_maps.h"

#include <array>
#include <deque>
#include <memory>

#include "core/cluster/lone_pixels.h"
#include "core/learn/class_tally.h"
#include "core/learn/classifier.h"
#include "core/palette/class_painter.h"
#include "core/pixel/interleave.h"
#include "core/pixel/label.h"
#include "core/pixel/row_buffers.h"
#include "core/pixel/uncounted.h"
#include "io/metadata/class_legend.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "job/map/class_shares.h"
#include "job/picture/preview.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kChoiceSize = 320;  // pixels of a preview among many

PictureSpec plane_spec(const RasterShape& shape, SampleType sample) {
  PictureSpec spec;
  spec.shape = {shape.width, shape.height, 1, sample};
  return spec;
}

struct MapBand {
  std::size_t height = 0;
  std::vector<std::unique_ptr<std::uint8_t[]>> labels;  // by each grouping; see holds_labels()
  std::vector<EncodedRows> rows;                        // for each file
  std::vector<std::uint64_t> counts;
  Excluded excluded;
  std::uint64_t clipped = 0;
};

class MapJob {
 public:
  MapJob(CountedPicture& picture, const GroupLookup& lookup, const std::vector<Grouping>& groupings,
         std::size_t chosen, const ClusterMapFiles& files, bool previews,
         const SharedOptions& options, const Context& context)
      : picture_(picture),
        lookup_(lookup),
        groupings_(groupings),
        chosen_(chosen),
        options_(options),
        context_(context),
        plan_(info(), model().features, model().divisors, options.hue_floor),
        preview_(info(), previews),
        recolored_preview_(empty_preview(info().shape, previews)),
        colors_(map_colors(model())) {
    for (const Grouping& grouping : groupings) {
      classifiers_.push_back(make_classifier(grouping.model));
      lone_.emplace_back(info().shape.width);
      if (previews && groupings.size() > 1)
        choice_previews_.emplace_back(
            ThumbnailSums(info().shape.width, info().shape.height, kChoiceSize, kChoiceSize));
    }
    open_files(files);
  }

  ClusterMaps run() {
    picture_.file.rows->rewind();
    travel(
        *picture_.file.rows, road_for(picture_, options_, context_),
        [this] { return Worker(*this); }, [this](MapBand&& band) { take(std::move(band)); });
    for (auto& file : files_) file->finish();
    ClusterMaps out;
    out.excluded = excluded_;
    out.clipped = clipped_;
    out.counts = counts_;
    for (LonePixels& lone : lone_) out.lone.push_back(lone.finish());
    if (!preview_.wanted()) return out;
    out.picture = preview_.thumbnail();
    out.recolored = merged_thumbnail(recolored_preview_);
    for (auto& preview : choice_previews_) out.choices.push_back(merged_thumbnail(preview));
    return out;
  }

 private:
  const PictureInfo& info() const { return picture_.file.info; }
  const Model& model() const { return groupings_[chosen_].model; }
  bool wants_probabilities() const { return certainty_ || first_probability_; }

  /// The recolored picture holds the same numbers as the class map, and so the same bytes.
  bool shares_rows(std::size_t file) const { return map_ && recolored_ == file; }

  /// The file whose samples are the labels of the chosen grouping. What was encoded for a PNG stays
  /// at hand until it is written, so that no band holds them a second time.
  std::optional<std::size_t> label_file() const { return map_ ? map_ : recolored_; }

  bool holds_labels(std::size_t grouping) const { return grouping != chosen_ || !label_file(); }

  const std::uint8_t* labels_of(const MapBand& band, std::size_t grouping) const {
    if (holds_labels(grouping)) return band.labels[grouping].get();
    return reinterpret_cast<const std::uint8_t*>(band.rows[*label_file()].samples.data());
  }

  bool looks_up() const { return lookup_.knows_colors() && !wants_probabilities(); }

  void open_files(const ClusterMapFiles& files) {
    const std::size_t bands = bands_under_way(road_for(picture_, options_, context_));
    const auto open = [&](const std::filesystem::path& path, PictureSpec spec) {
      const std::size_t file = files_.size();
      spec.carried = picture_.file.facts.carried;
      files_.push_back(create_picture(path, spec));
      const RowSource& rows = *picture_.file.rows;
      buffers_.emplace_back(shares_rows(file) ? 0 : bands,
                            rows_per_band(rows.shape(), 0) * spec.shape.row_bytes());
      return file;
    };
    if (!files.classes.empty())
      map_ = open(files.classes, class_map_spec(info().shape, legend_of(map_classes(model()))));
    if (!files.recolored.empty()) {
      recolored_ = files_.size();
      open(files.recolored,
           indexed_spec(info().shape, css_colors(colors_), !all_pixels_count(picture_)));
    }
    if (!files.certainty.empty())
      certainty_ = open(files.certainty, plane_spec(info().shape, SampleType::kU8));
    probability_sample_ = files.probabilities_as_float ? SampleType::kF32 : SampleType::kU16;
    for (const auto& path : files.probabilities) {
      const std::size_t file = open(path, plane_spec(info().shape, probability_sample_));
      if (!first_probability_) first_probability_ = file;
    }
  }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(MapJob& job)
        : job_(&job),
          reader_(job.info(), job.picture_.counting, !job.looks_up() || job.preview_.wanted()),
          features_(job.plan_),
          collector_(job.preview_),
          labels_(kBlockPixels + kPlanePadding),
          places_(kBlockPixels),
          probabilities_(job.wants_probabilities() ? job.colors_.size() : 1),
          tally_(job.colors_.size()) {
      for (const Grouping& grouping : job.groupings_)
        painters_.emplace_back(map_colors(grouping.model));
    }

    MapBand operator()(const Band& band) {
      pixels_ = std::size_t{band.rows()} * band.shape().width;
      MapBand out;
      out.height = band.rows();
      samples_.assign(job_->files_.size(), {});
      for (std::size_t g = 0; g < job_->groupings_.size(); ++g)
        out.labels.push_back(job_->holds_labels(g)
                                 ? std::make_unique_for_overwrite<std::uint8_t[]>(pixels_)
                                 : nullptr);
      std::size_t at = 0;
      reader_.for_each_block(band, [&](const Block& block) {
        if (job_->looks_up()) {
          job_->lookup_.find_places(block.stored, band.shape().channels, block.size,
                                    places_.data());
        } else {
          features_.evaluate(block);
        }
        for (std::size_t g = 0; g < job_->groupings_.size(); ++g) label(block, g, at, out);
        if (job_->wants_probabilities()) write_probabilities(block, at);
        if (job_->preview_.wanted()) collector_.add(block);
        at += block.size;
      });
      out.counts = tally_.take();
      out.excluded = reader_.take_excluded();
      out.clipped = features_.take_clipped();
      for (std::size_t f = 0; f < samples_.size(); ++f)
        out.rows.push_back(
            job_->shares_rows(f)
                ? EncodedRows{}
                : job_->files_[f]->encode(band.first_row(), band.rows(), std::move(samples_[f])));
      return out;
    }

   private:
    void label(const Block& block, std::size_t g, std::size_t at, MapBand& out) {
      std::uint8_t* const labels = labels_for(g, out) + at;
      if (job_->looks_up()) {
        job_->lookup_.labels(g, block.stored, job_->info().shape.channels, block.size,
                             places_.data(), labels);
      } else {
        job_->classifiers_[g]->classify(features_.values(), block.size, labels_.data());
        store_labels(labels_.data(), block.size, SampleType::kU8,
                     reinterpret_cast<std::byte*>(labels));
      }
      clear_uncounted(block, labels);
      if (g == job_->chosen_)
        tally_.add(reinterpret_cast<const std::byte*>(labels), SampleType::kU8, block);
      if (job_->preview_.wanted()) collect(block, g, labels);
    }

    void collect(const Block& block, std::size_t g, const std::uint8_t* labels) {
      const Block opaque = without_alpha(block);
      const ConstPlanes painted = painters_[g].paint(labels, block.size);
      if (g == job_->chosen_) job_->recolored_preview_.local().add(opaque, painted);
      if (!job_->choice_previews_.empty()) job_->choice_previews_[g].local().add(opaque, painted);
    }

    std::uint8_t* labels_for(std::size_t g, MapBand& out) {
      if (job_->holds_labels(g)) return out.labels[g].get();
      return reinterpret_cast<std::uint8_t*>(room_for(*job_->label_file(), pixels_).data());
    }

    /// The samples of this band for a file.
    std::vector<std::byte>& room_for(std::size_t file, std::size_t bytes) {
      std::vector<std::byte>& samples = samples_[file];
      if (samples.size() != bytes) samples = job_->buffers_[file].take(bytes);
      return samples;
    }

    void write_probabilities(const Block& block, std::size_t at) {
      std::vector<float*> planes;
      for (std::size_t c = 0; c < job_->colors_.size(); ++c)
        planes.push_back(probabilities_.plane(c));
      job_->classifiers_[job_->chosen_]->probabilities(features_.values(), block.size, planes);
      for (float* const plane : planes) fill_uncounted(block, 0, plane);
      if (job_->first_probability_)
        for (std::size_t c = 0; c < planes.size(); ++c)
          write_shares(*job_->first_probability_ + c, planes[c], block.size, at);
      if (!job_->certainty_) return;
      winner_probabilities(planes, block.size, planes[0]);
      write_shares(*job_->certainty_, planes[0], block.size, at);
    }

    /// Shares of n pixels, from pixel `at` of the band on.
    void write_shares(std::size_t file, const float* shares, std::size_t n, std::size_t at) {
      const SampleType sample =
          file == job_->certainty_ ? SampleType::kU8 : job_->probability_sample_;
      const std::size_t bytes = bytes_per_sample(sample);
      write_plane(shares, n, 1, sample, 0, share_scale(sample),
                  room_for(file, pixels_ * bytes).data() + at * bytes);
    }

    MapJob* job_;
    BlockReader reader_;
    FeatureEvaluator features_;
    Preview::Collector collector_;
    std::vector<ClassPainter> painters_;
    std::vector<Label> labels_;
    std::vector<std::uint32_t> places_;
    PlaneBuffer probabilities_;
    ClassTally tally_;
    std::size_t pixels_ = 0;
    std::vector<std::vector<std::byte>> samples_;  // of each file
  };

  void take(MapBand&& band) {
    counts_.resize(band.counts.size());
    for (std::size_t c = 0; c < counts_.size(); ++c) counts_[c] += band.counts[c];
    for (std::size_t g = 0; g < lone_.size(); ++g)
      lone_[g].add_rows(labels_of(band, g), band.height);
    for (std::size_t f = 0; f < files_.size(); ++f)
      files_[f]->append(band.rows[shares_rows(f) ? *map_ : f]);
    for (std::size_t f = 0; f < files_.size(); ++f)
      if (!shares_rows(f)) buffers_[f].give_back(band.rows[f].take_buffer());
    excluded_ += band.excluded;
    clipped_ += band.clipped;
  }

  CountedPicture& picture_;
  const GroupLookup& lookup_;
  const std::vector<Grouping>& groupings_;
  std::size_t chosen_;
  const SharedOptions& options_;
  const Context& context_;
  FeaturePlan plan_;
  Preview preview_;
  Tallies<ThumbnailSums> recolored_preview_;
  std::deque<Tallies<ThumbnailSums>> choice_previews_;
  std::vector<std::string> colors_;
  std::vector<std::unique_ptr<Classifier>> classifiers_;
  std::vector<LonePixels> lone_;
  std::vector<std::unique_ptr<PictureWriter>> files_;
  std::deque<RowBuffers> buffers_;                                              // of each file
  std::optional<std::size_t> map_, recolored_, certainty_, first_probability_;  // places in files_
  SampleType probability_sample_ = SampleType::kU16;
  std::vector<std::uint64_t> counts_;
  Excluded excluded_;
  std::uint64_t clipped_ = 0;
};

}  // namespace

ClusterMaps map_clusters(CountedPicture& picture, const GroupLookup& lookup,
                         const std::vector<Grouping>& groupings, std::size_t chosen,
                         const ClusterMapFiles& files, bool previews, const SharedOptions& options,
                         const Context& context) {
  return MapJob(picture, lookup, groupings, chosen, files, previews, options, context).run();
}

}  // namespace chalcedony
