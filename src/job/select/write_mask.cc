#include "job/select/write_mask.h"

#include <algorithm>
#include <memory>
#include <optional>
#include <span>
#include <utility>

#include "core/channel/channel_plan.h"
#include "core/pixel/flags.h"
#include "core/pixel/label.h"
#include "core/pixel/side_by_side.h"
#include "core/pixel/uncounted.h"
#include "core/select/mask_combination.h"
#include "core/select/remembered_selection.h"
#include "core/select/selection.h"
#include "figure/map_figure.h"
#include "io/picture/create_picture.h"
#include "io/picture/mask_file.h"
#include "io/picture/picture_writer.h"
#include "io/text/csv.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/picture/same_size.h"
#include "job/region/clean_labels.h"
#include "job/run/results.h"
#include "job/select/cutout.h"

namespace chalcedony {
namespace {

struct MaskBand {
  EncodedRows mask, cutout;
  std::uint64_t selected = 0;
  Excluded excluded;
  std::uint64_t clipped = 0;
  std::uint64_t near_gray = 0;
};

class MaskJob {
 public:
  MaskJob(CountedPicture picture, const Expression& where, const MaskOptions& options,
          const Context& context, const Results& results, FigureFormat figures)
      : options_(options),
        where_(where),
        context_(context),
        results_(results),
        picture_(std::move(picture)),
        plan_(shown_if_told(), planned_channels(), options.shared.hue_floor),
        preview_(info(), figures != FigureFormat::kNone),
        mask_preview_(empty_preview(info().shape, preview_.wanted())),
        cutout_preview_(empty_preview(info().shape, preview_.wanted())),
        format_(figures) {
    const std::filesystem::path& input = picture_.file.path;
    read_masks();
    if (remembers_colors(info(), where)) known_.emplace();
    if (options.cutout.rest == CutoutRest::kPicture &&
        (results.wants("cutout") || preview_.wanted()))
      open_ground();
    if (results.wants("mask")) {
      PictureSpec spec = label_spec(info().shape);
      spec.carried = picture_.file.facts.carried;
      mask_ = create_picture(results.path(input, "mask", "png"), spec);
    }
    if (results.wants("cutout")) {
      PictureSpec spec = cutout_spec(info().shape);
      spec.carried = picture_.file.facts.carried;
      cutout_ = create_picture(results.path(input, "cutout", "png"), spec);
    }
    if (preview_.wanted()) figure_path_ = results.path(input, "mask.figure", extension_of(figures));
  }

  Json run() {
    Json told = options_.tidy.empty() ? Json() : tidy();
    pass<Worker>();
    const std::uint64_t counted = info().shape.pixels() - excluded_.total();
    require_counted(counted, picture_);
    if (mask_) mask_->finish();
    if (cutout_) cutout_->finish();
    const double share = percent(selected_, counted);
    if (preview_.wanted()) draw(share);
    if (results_.wants("coverage")) write_coverage(counted);
    Json json{{"file", picture_.file.path.string()},
              {"where", where_.text},
              {"counted", counted},
              {"selected", selected_},
              {"selected_percent", share},
              {"excluded", excluded_json(excluded_)},
              {"clipped", clipped_}};
    note_near_gray(json, near_gray_, counted);
    if (!told.empty()) json["tidy"] = std::move(told);
    return json;
  }

 private:
  const PictureInfo& info() const { return picture_.file.info; }

  template <class Pass>
  void pass() {
    travel(
        rows(), road_for(picture_, options_.shared, context_), [this] { return Pass(*this); },
        [this](MaskBand&& band) { take(std::move(band)); });
  }

  /// A pass of its own that keeps what is selected, and the steps on that.
  Json tidy() {
    LabelGrid grid(info().shape.width, info().shape.height);
    kept_ = &grid;
    pass<KeepingWorker>();
    const LabelGrid before = grid;
    Json told{{"selected_before", std::exchange(selected_, 0)}};
    told["steps"] = clean_labels(grid, before, {}, options_.tidy, options_.shared);
    tidied_.emplace(std::move(grid));
    rows().rewind();
    return told;
  }

  RowSource& rows() { return ground_ ? *ground_->rows : *picture_.file.rows; }

  void read_masks() {
    std::vector<std::string> warnings;
    const auto read = [&](const std::vector<std::shared_ptr<const PartnerFiles>>& files,
                          std::vector<Mask>& masks) {
      for (const auto& one : files)
        masks.push_back(read_mask(one->of(picture_.file.path, *context_.ledger), info().shape.width,
                                  info().shape.height, warnings));
    };
    read(options_.only_in, masks_.only_in);
    read(options_.also_in, masks_.also_in);
    read(options_.not_in, masks_.not_in);
    for (const std::string& warning : warnings) context_.warn(warning);
  }

  /// The other picture, which travels beside the one that is cut out.
  struct Ground {
    PictureInfo info;
    ChannelPlan srgb;
    std::unique_ptr<SideBySide> rows;
  };

  void open_ground() {
    CountedPicture other =
        open_counted(options_.cutout.picture, of_whole_picture(options_.shared), context_);
    require_same_size(options_.cutout.picture, other.shape(), "and " + picture_.name() + " is",
                      info().shape, "bring it to that size with reframe");
    RowSources sources;
    sources.push_back(std::move(picture_.file.rows));
    sources.push_back(std::move(other.file.rows));
    ground_.emplace(Ground{other.file.info,
                           ChannelPlan(other.file.info, channels_of(spaces::kSrgb)),
                           std::make_unique<SideBySide>(std::move(sources))});
  }

  /// For the cut-out any color will do, for the selection only one that is known.
  PictureInfo shown_if_told() const {
    const ChannelPlan asked(info(), where_.channels);
    return info().shown();
  }

  std::vector<Channel> planned_channels() const {
    auto channels = where_.channels;
    const auto srgb = channels_of(spaces::kSrgb);
    channels.insert(channels.end(), srgb.begin(), srgb.end());
    return channels;
  }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(MaskJob& job)
        : job_(&job),
          reader_(job.info(), job.picture_.counting),
          channels_(job.plan_),
          selection_(job.where_),
          cutout_(cutout_spec(job.info().shape).shape.sample, job.options_.cutout.rest,
                  job.options_.cutout.color),
          collector_(job.preview_),
          chosen_(kBlockPixels),
          mask_plane_(1) {
      if (job.known_) remembered_.emplace(job.where_, job.plan_, *job.known_);
      if (!job.ground_) return;
      ground_reader_.emplace(job.ground_->info, Counting{});
      ground_.emplace(job.ground_->srgb);
    }

    /// Only keeps what is selected, for cleaning.
    MaskBand keep(const Band& band) {
      MaskBand out;
      for_each_block(band, [&](const Block& block) {
        select(block, out);
        read_labels(std::as_bytes(std::span(chosen_)).data(), block.size, SampleType::kU8,
                    job_->kept_->labels.data() + block.first_pixel);
      });
      return out;
    }

    MaskBand operator()(const Band& band) {
      MaskBand out;
      const RasterShape shape = cutout_spec(job_->info().shape).shape;
      const std::size_t pixels = std::size_t{band.rows()} * shape.width;
      std::vector<std::byte> mask(job_->mask_ ? pixels : 0);
      std::vector<std::byte> cut(job_->cutout_ ? pixels * shape.pixel_bytes() : 0);
      std::size_t at = 0;
      for_each_block(band, [&](const Block& block) {
        select(block, out);
        if (job_->mask_) store_flags(chosen_.data(), block.size, mask.data() + at);
        if (job_->cutout_ || job_->preview_.wanted()) {
          scratch_.resize(kBlockPixels * shape.pixel_bytes());
          std::byte* to = job_->cutout_ ? cut.data() + at * shape.pixel_bytes() : scratch_.data();
          cutout_.write(block, srgb_of(block), ground_ ? ground_->channels(0) : ConstPlanes{},
                        chosen_.data(), to);
        }
        if (job_->preview_.wanted()) collect(block);
        at += block.size;
      });
      out.excluded = reader_.take_excluded();
      out.clipped = channels_.take_clipped();
      out.near_gray = channels_.take_near_gray();
      if (job_->mask_)
        out.mask = job_->mask_->encode(band.first_row(), band.rows(), std::move(mask));
      if (job_->cutout_)
        out.cutout = job_->cutout_->encode(band.first_row(), band.rows(), std::move(cut));
      return out;
    }

   private:
    /// The Blocks of a band; with another picture row by row, its sRGB evaluated beside each.
    template <class Use>
    void for_each_block(const Band& band, const Use& use) {
      if (!ground_) return reader_.for_each_block(band, use);
      const std::size_t width = job_->info().shape.width,
                        its_bytes = job_->ground_->info.shape.pixel_bytes();
      for (std::uint32_t y = band.first_row(); y < band.first_row() + band.rows(); ++y) {
        const std::byte* const other = band.row(y) + job_->ground_->rows->part(1);
        reader_.for_each_block_of_row(band.row(y), y, [&](const Block& block, std::uint32_t x) {
          const std::uint64_t pixel = std::uint64_t{y} * width + x;
          ground_->evaluate(ground_reader_->read(other + x * its_bytes, pixel, block.size));
          use(block);
        });
      }
    }

    const std::uint8_t* selected_in(const Block& block) {
      if (remembered_) return remembered_->select(block);
      channels_.evaluate(block);
      return selection_.select(block, channels_);
    }

    /// Of the Block that was selected in; only sRGB pictures are remembered.
    ConstPlanes srgb_of(const Block& block) const {
      return remembered_ ? block.color : channels_.channels(job_->where_.channels.size());
    }

    /// What the selection and the masks take, before any cleaning.
    void decide(const Block& block) {
      std::copy_n(selected_in(block), block.size, chosen_.data());
      if (job_->options_.invert) turn_flags(chosen_.data(), block.size);
      job_->masks_.apply(block, chosen_.data());
    }

    void take_tidied(const Block& block) {
      if (!remembered_) channels_.evaluate(block);
      flag_labels(job_->tidied_->labels.data() + block.first_pixel, block.size, chosen_.data());
    }

    void select(const Block& block, MaskBand& out) {
      if (job_->tidied_) {
        take_tidied(block);
      } else {
        decide(block);
      }
      clear_uncounted(block, chosen_.data());
      out.selected += count_flags(chosen_.data(), block.size);
    }

    void collect(const Block& block) {
      collector_.add(block);
      float* const gray = mask_plane_.plane(0);
      flags_as_gray(chosen_.data(), block.size, gray);
      job_->mask_preview_.local().add(without_alpha(block), {gray, gray, gray});
      job_->cutout_preview_.local().add(cutout_.on_white(block), cutout_.color());
    }

    MaskJob* job_;
    BlockReader reader_;
    ChannelEvaluator channels_;
    Selection selection_;
    std::optional<RememberedSelection> remembered_;
    CutoutMaker cutout_;
    Preview::Collector collector_;
    std::vector<std::uint8_t> chosen_;
    PlaneBuffer mask_plane_;
    std::vector<std::byte> scratch_;
    std::optional<BlockReader> ground_reader_;
    std::optional<ChannelEvaluator> ground_;
  };

  class KeepingWorker : public Worker {
   public:
    using Worker::Worker;
    MaskBand operator()(const Band& band) { return Worker::keep(band); }
  };

  void take(MaskBand&& band) {
    selected_ += band.selected;
    excluded_ += band.excluded;
    clipped_ += band.clipped;
    near_gray_ += band.near_gray;
    if (mask_) mask_->append(band.mask);
    if (cutout_) cutout_->append(band.cutout);
  }

  std::string selection_text() const {
    return (options_.invert ? "not: " : "") + where_.text +
           (tidied_ ? "; then " + text_of(options_.tidy) : "");
  }

  void write_coverage(std::uint64_t counted) const {
    CsvTable table({"counted", "selected", "selected_percent", "selection"});
    table.add({counted, selected_, percent(selected_, counted), selection_text()});
    table.write(results_.path(picture_.file.path, "coverage", "csv"));
  }

  void draw(double share) {
    Plot plot(format_);
    add_mask_figure(plot, figure_path_, picture_.name(), selection_text(), share,
                    preview_.thumbnail(), merged_thumbnail(mask_preview_),
                    merged_thumbnail(cutout_preview_));
    draw_figures(plot, context_);
  }

  const MaskOptions& options_;
  const Expression& where_;
  const Context& context_;
  const Results& results_;
  CountedPicture picture_;
  std::optional<Ground> ground_;
  MaskCombination masks_;
  ChannelPlan plan_;
  std::optional<SelectedColors> known_;
  LabelGrid* kept_ = nullptr;        // what a pass of KeepingWorker fills
  std::optional<LabelGrid> tidied_;  // what is written then, instead of what is selected
  Preview preview_;
  Tallies<ThumbnailSums> mask_preview_, cutout_preview_;
  FigureFormat format_;
  std::unique_ptr<PictureWriter> mask_, cutout_;
  std::filesystem::path figure_path_;
  std::uint64_t selected_ = 0, clipped_ = 0, near_gray_ = 0;
  Excluded excluded_;
};

}  // namespace

Json write_mask(CountedPicture picture, const Expression& where, const MaskOptions& options,
                const Context& context, const Results& results, FigureFormat figures) {
  return MaskJob(std::move(picture), where, options, context, results, figures).run();
}

}  // namespace chalcedony
