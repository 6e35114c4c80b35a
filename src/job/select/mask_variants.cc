#include "job/select/mask_variants.h"

#include <fmt/format.h>

#include <algorithm>
#include <deque>

#include "core/channel/channel_plan.h"
#include "core/pixel/flags.h"
#include "core/pixel/uncounted.h"
#include "core/select/selection.h"
#include "figure/sheet_figure.h"
#include "io/text/csv.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/repeat/picture_run.h"
#include "job/select/limit_warnings.h"
#include "job/select/mask.h"

namespace chalcedony {
namespace {

constexpr std::uint32_t kMaskSize = 240;  // pixels of a mask among many
constexpr std::size_t kMostVariantsShown = 80;

/// What a band adds.
struct VariantBand {
  std::vector<std::uint64_t> selected;  // of each variant
  Excluded excluded;
};

class VariantJob {
 public:
  VariantJob(const std::filesystem::path& input, const MaskVariantOptions& options,
             const Context& context, Results& results, FigureFormat format)
      : options_(options),
        context_(context),
        results_(results),
        format_(format),
        picture_(open_counted(input, options.shared, context)),
        preview_(picture_.file.info, format != FigureFormat::kNone) {
    for (const Variant& variant : options.variants)
      expressions_.push_back(parse_expression(variant.text, options.shared.names));
    // Only numbers differ, so the channels of all are the same.
    plan_.emplace(picture_.file.info, expressions_.front().channels, options.shared.hue_floor);
    selected_.resize(expressions_.size());
    if (preview_.wanted())
      for (std::size_t v = 0; v < std::min(kMostVariantsShown, expressions_.size()); ++v)
        masks_.emplace_back(
            ThumbnailSums(picture_.shape().width, picture_.shape().height, kMaskSize, kMaskSize));
  }

  Json run() {
    travel(
        *picture_.file.rows, road_for(picture_, options_.shared, context_),
        [this] { return Worker(*this); },
        [this](VariantBand&& band) {
          for (std::size_t v = 0; v < selected_.size(); ++v) selected_[v] += band.selected[v];
          excluded_ += band.excluded;
        });
    const std::uint64_t counted = picture_.shape().pixels() - excluded_.total();
    require_counted(counted, picture_);
    if (results_.wants("mask")) write_table(counted);
    if (preview_.wanted()) draw(counted);
    Json json{{"file", picture_.file.path.string()},
              {"counted", counted},
              {"excluded", excluded_json(excluded_)},
              {"variants", Json::array()}};
    for (std::size_t v = 0; v < selected_.size(); ++v)
      json["variants"].push_back({{"values", options_.variants[v].values},
                                  {"where", options_.variants[v].text},
                                  {"selected", selected_[v]},
                                  {"selected_percent", percent(selected_[v], counted)}});
    return json;
  }

 private:
  /// One for each thread.
  class Worker {
   public:
    explicit Worker(VariantJob& job)
        : job_(&job),
          reader_(job.picture_.file.info, job.picture_.counting),
          channels_(*job.plan_),
          collector_(job.preview_),
          chosen_(kBlockPixels),
          plane_(1) {
      for (const Expression& expression : job.expressions_) selections_.emplace_back(expression);
    }

    VariantBand operator()(const Band& band) {
      VariantBand out{std::vector<std::uint64_t>(selections_.size()), {}};
      reader_.for_each_block(band, [&](const Block& block) {
        channels_.evaluate(block);
        collector_.add(block);
        for (std::size_t v = 0; v < selections_.size(); ++v) out.selected[v] += select(block, v);
      });
      out.excluded = reader_.take_excluded();
      return out;
    }

   private:
    std::uint64_t select(const Block& block, std::size_t v) {
      std::copy_n(selections_[v].select(block, channels_), block.size, chosen_.data());
      clear_uncounted(block, chosen_.data());
      if (v < job_->masks_.size()) {
        float* const gray = plane_.plane(0);
        flags_as_gray(chosen_.data(), block.size, gray);
        job_->masks_[v].local().add(without_alpha(block), {gray, gray, gray});
      }
      return count_flags(chosen_.data(), block.size);
    }

    VariantJob* job_;
    BlockReader reader_;
    ChannelEvaluator channels_;
    Preview::Collector collector_;
    std::vector<std::uint8_t> chosen_;
    PlaneBuffer plane_;
    std::deque<Selection> selections_;
  };

  void write_table(std::uint64_t counted) {
    std::vector<std::string> header;
    for (const Variable& variable : options_.variables) header.push_back(variable.name);
    header.insert(header.end(), {"selected", "selected_percent", "where"});
    CsvTable table(header);
    for (std::size_t v = 0; v < selected_.size(); ++v) {
      std::vector<CsvField> row;
      for (const double value : options_.variants[v].values) row.emplace_back(value);
      row.insert(row.end(),
                 {selected_[v], percent(selected_[v], counted), options_.variants[v].text});
      table.add(row);
    }
    table.write(results_.path(picture_.file.path, "variants", "csv"));
  }

  void draw(std::uint64_t counted) {
    std::vector<SheetCell> cells;
    const bool grid = options_.variables.size() == 2;
    if (!grid) cells.push_back({"picture", preview_.thumbnail()});
    for (std::size_t v = 0; v < masks_.size(); ++v) {
      std::string title;
      for (std::size_t i = 0; i < options_.variables.size(); ++i)
        title +=
            fmt::format("{} {:.6g}, ", options_.variables[i].name, options_.variants[v].values[i]);
      cells.push_back({title + fmt::format("{:.1f} %", percent(selected_[v], counted)),
                       merged_thumbnail(masks_[v])});
    }
    Plot plot(format_);
    add_sheet(plot, results_.path(picture_.file.path, "variants.figure", extension_of(format_)),
              picture_.name() + ", a selection with different numbers",
              masks_.size() < selected_.size()
                  ? fmt::format("the first {} of {}; percent of the counted pixels", masks_.size(),
                                selected_.size())
                  : "percent of the counted pixels",
              cells, grid ? options_.variables[1].values.size() : 0);
    draw_figures(plot, context_);
  }

  const MaskVariantOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  CountedPicture picture_;
  Preview preview_;
  std::vector<Expression> expressions_;
  std::optional<ChannelPlan> plan_;
  std::deque<Tallies<ThumbnailSums>> masks_;
  std::vector<std::uint64_t> selected_;
  Excluded excluded_;
};

}  // namespace

Json run_mask_variants(const MaskVariantOptions& options, const Context& context) {
  PictureRun run("mask", options.shared, context, mask_results());
  // Of the others only numbers differ.
  warn_of_limits(parse_expression(options.variants.front().text, options.shared.names), context);
  for (const Variable& variable : options.variables)
    run.summary()["variables"].push_back({{"name", variable.name}, {"values", variable.values}});
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return VariantJob(input, options, its_context, run.results(), run.figures().of_each).run();
  };
  return run.do_each(do_one);
}

}  // namespace chalcedony
