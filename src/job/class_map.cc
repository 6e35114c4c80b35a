#include "job/class_map.h"

#include "core/color/channel_plan.h"
#include "core/learn/classifier.h"
#include "core/palette/class_painter.h"
#include "figure/map_figure.h"
#include "io/csv.h"
#include "io/model_file.h"
#include "io/picture_writer.h"
#include "job/class_shares.h"
#include "job/inputs.h"
#include "job/preview.h"

namespace chalcedony {
namespace {

struct ClassBand {
  EncodedRows rows;
  std::vector<std::uint64_t> counts;  // unclassified first; counted pixels only
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t contested = 0;  // counted pixels that several classes would take
};

class ClassMapJob {
 public:
  ClassMapJob(const std::filesystem::path& input, const Model& model, const Classifier& classifier,
              const std::string& thing, const SharedOptions& options, const Context& context,
              Results& results, FigureFormat figures)
      : model_(model),
        classes_(map_classes(model)),
        classifier_(classifier),
        thing_(thing),
        options_(options),
        context_(context),
        results_(results),
        picture_(open_counted(input, options, context)),
        plan_(info(), model.features, model.divisors, options.hue_floor),
        preview_(info(), figures != FigureFormat::kNone),
        map_preview_(empty_preview(info().shape, preview_.wanted())),
        format_(figures),
        colors_(map_colors(model)),
        counts_(classes_.size() + 1) {
    if (results.wants(thing))
      map_ = create_picture(results.path(input, thing, "png"),
                            label_spec(info().shape, legend_of(model)));
  }

  Json run() {
    travel(
        *picture_.file.rows, road_for(picture_, options_, context_),
        [this] { return Worker(*this); }, [this](ClassBand&& band) { take(std::move(band)); });
    const std::uint64_t counted = info().shape.pixels() - excluded_.total();
    require_counted(counted, picture_);
    if (map_) map_->finish();
    if (results_.wants("areas")) write_areas(counted);
    if (preview_.wanted()) draw(counted);
    return report(counted);
  }

 private:
  const PictureInfo& info() const { return picture_.file.info; }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(ClassMapJob& job)
        : job_(&job),
          reader_(job.info(), job.picture_.counting),
          features_(job.plan_),
          collector_(job.preview_),
          painter_(job.colors_),
          labels_(kBlockPixels + kPlanePadding),
          contested_(kBlockPixels + kPlanePadding) {}

    ClassBand operator()(const Band& band) {
      ClassBand out;
      out.counts.resize(job_->counts_.size());
      std::vector<std::byte> rows(std::size_t{band.rows()} * band.shape().width);
      std::byte* at = rows.data();
      reader_.for_each_block(band, [&](const Block& block) {
        classify(block, out);
        std::copy_n(reinterpret_cast<const std::byte*>(labels_.data()), block.size, at);
        at += block.size;
        if (job_->preview_.wanted()) collect(block);
      });
      out.excluded = reader_.take_excluded();
      out.clipped = features_.take_clipped();
      if (job_->map_) out.rows = job_->map_->encode(band.first_row(), band.rows(), std::move(rows));
      return out;
    }

   private:
    void classify(const Block& block, ClassBand& out) {
      features_.evaluate(block);
      job_->classifier_.classify(features_.values(), block.size, labels_.data());
      if (job_->classifier_.contested(features_.values(), block.size, contested_.data()))
        for (std::size_t i = 0; i < block.size; ++i)
          out.contested += contested_[i] && block.counts(i);
      for (std::size_t i = 0; i < block.size; ++i) {
        if (block.counts(i)) {
          ++out.counts[labels_[i]];
        } else {
          labels_[i] = 0;
        }
      }
    }
    void collect(const Block& block) {
      collector_.add(block);
      Block opaque = block;
      opaque.alpha = nullptr;
      job_->map_preview_.local().add(opaque, painter_.paint(labels_.data(), block.size));
    }

    ClassMapJob* job_;
    BlockReader reader_;
    FeatureEvaluator features_;
    Preview::Collector collector_;
    ClassPainter painter_;
    std::vector<std::uint8_t> labels_, contested_;
  };

  void take(ClassBand&& band) {
    for (std::size_t c = 0; c < counts_.size(); ++c) counts_[c] += band.counts[c];
    excluded_ += band.excluded;
    clipped_ += band.clipped;
    contested_ += band.contested;
    if (map_) map_->append(band.rows);
  }

  void write_areas(std::uint64_t counted) const {
    CsvTable table({"index", "class", "color", "pixels", "share_percent"});
    table.add({std::uint64_t{0}, "unclassified", "", counts_[0], percent(counts_[0], counted)});
    for (std::size_t c = 0; c < classes_.size(); ++c)
      table.add({std::uint64_t{c + 1}, classes_[c].name, classes_[c].color, counts_[c + 1],
                 percent(counts_[c + 1], counted)});
    table.write(results_.path(picture_.file.path, "areas", "csv"));
  }

  void draw(std::uint64_t counted) {
    std::vector<LegendLine> legend = classes_legend(classes_, counts_, counted);
    if (counts_[0] > 0) legend.push_back({"unclassified", "#000000", percent(counts_[0], counted)});
    Plot plot(format_);
    add_class_map_figure(
        plot, results_.path(picture_.file.path, thing_ + ".figure", extension_of(format_)),
        picture_.name(), legend, preview_.thumbnail(), merged_thumbnail(map_preview_));
    draw_figures(plot, context_);
  }

  Json report(std::uint64_t counted) const {
    return {{"file", picture_.file.path.string()},
            {"counted", counted},
            {"excluded", excluded_json(excluded_)},
            {"clipped", clipped_},
            {"contested", contested_},
            {"unclassified", counts_[0]},
            {"unclassified_percent", percent(counts_[0], counted)},
            {"classes", classes_json(classes_, counts_, counted)}};
  }

  const Model& model_;
  std::vector<MapClass> classes_;
  const Classifier& classifier_;
  std::string thing_;
  const SharedOptions& options_;
  const Context& context_;
  Results& results_;
  CountedPicture picture_;
  FeaturePlan plan_;
  Preview preview_;
  Tallies<ThumbnailSums> map_preview_;
  FigureFormat format_;
  std::vector<std::string> colors_;
  std::unique_ptr<PictureWriter> map_;
  std::vector<std::uint64_t> counts_;
  Excluded excluded_;
  std::uint64_t clipped_ = 0;
  std::uint64_t contested_ = 0;
};

}  // namespace

Json write_class_map(const std::filesystem::path& input, const Model& model,
                     const Classifier& classifier, const std::string& thing,
                     const SharedOptions& options, const Context& context, Results& results,
                     FigureFormat figures) {
  return ClassMapJob(input, model, classifier, thing, options, context, results, figures).run();
}

}  // namespace chalcedony
