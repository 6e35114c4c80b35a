#include "job/look/sheet.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>

#include "core/channel/channel_plan.h"
#include "core/palette/example_color.h"
#include "core/palette/plane_coder.h"
#include "core/pixel/uncounted.h"
#include "figure/sheet_figure.h"
#include "io/text/number_text.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/picture/preview.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

class SheetJob {
 public:
  SheetJob(const std::filesystem::path& input, const SheetOptions& options, const Context& context)
      : options_(options),
        context_(context),
        picture_(open_counted(input, options.shared, context)),
        info_(picture_.file.info),
        plan_(info_, options.channels.empty() ? own_channels(info_) : options.channels,
              options.shared.hue_floor),
        preview_(info_, true) {
    for (const Channel& channel : plan_.channels()) {
      const auto [low, high] = usual_range(channel, info_);
      ranges_.push_back({low, high});
      coders_.emplace_back(channel.is_hue(), ranges_.back());
      planes_.emplace_back(empty_preview(info_.shape, true));
    }
  }

  Json run(const std::filesystem::path& figure, FigureFormat format) {
    travel(
        *picture_.file.rows, road_for(picture_, options_.shared, context_),
        [this] { return Worker(*this); }, [this](const Excluded& band) { excluded_ += band; });
    const std::uint64_t counted = info_.shape.pixels() - excluded_.total();
    require_counted(counted, picture_);
    Json json{{"file", picture_.file.path.string()},
              {"counted", counted},
              {"excluded", excluded_json(excluded_)},
              {"planes", Json::array()}};
    std::vector<SheetCell> cells{{"picture", preview_.thumbnail()}};
    for (std::size_t i = 0; i < planes_.size(); ++i) {
      const Thumbnail coded = merged_thumbnail(planes_[i]);
      const PlaneRange shown = options_.stretch_view ? stretched(i, coded) : ranges_[i];
      cells.push_back(cell(i, coded, shown));
      json["planes"].push_back(
          {{"channel", plan_.channels()[i].name()}, {"black", shown.low}, {"white", shown.high}});
    }
    if (format != FigureFormat::kNone) draw(figure, format, cells);
    return json;
  }

 private:
  /// One for each thread.
  class Worker {
   public:
    explicit Worker(SheetJob& job)
        : job_(&job),
          reader_(job.info_, job.picture_.counting),
          channels_(job.plan_),
          collector_(job.preview_),
          alpha_(1) {}

    Excluded operator()(const Band& band) {
      reader_.for_each_block(band, [&](const Block& block) {
        channels_.evaluate(block);
        collector_.add(block);
        // What does not count is left blank.
        Block shown = block;
        std::fill_n(alpha_.plane(0), block.size, 1.0f);
        fill_uncounted(block, 0, alpha_.plane(0));
        shown.alpha = alpha_.plane(0);
        for (std::size_t i = 0; i < job_->planes_.size(); ++i)
          job_->planes_[i].local().add(
              shown, job_->coders_[i].code(channels_.channel(i), block.size, coded_.planes()));
      });
      return reader_.take_excluded();
    }

   private:
    SheetJob* job_;
    BlockReader reader_;
    ChannelEvaluator channels_;
    Preview::Collector collector_;
    PlaneBuffer alpha_, coded_;
  };

  /// From the plane's own 1 % to its own 99 %, as the thumbnail has them.
  PlaneRange stretched(std::size_t i, const Thumbnail& coded) const {
    if (plan_.channels()[i].is_hue()) return ranges_[i];
    std::vector<std::uint8_t> codes;
    for (std::size_t p = 0; p < coded.rgb.size(); p += 3)
      if (!PlaneCoder::is_blank(coded.rgb.data() + p)) codes.push_back(coded.rgb[p]);
    if (codes.empty()) return ranges_[i];
    std::sort(codes.begin(), codes.end());
    const PlaneRange& all = ranges_[i];
    const auto value = [&](std::size_t rank) {
      return all.low + (all.high - all.low) * codes[rank] / 255.0;
    };
    const std::size_t one_percent = codes.size() / 100;
    const PlaneRange some{value(one_percent), value(codes.size() - 1 - one_percent)};
    return some.high > some.low ? some : all;
  }

  SheetCell cell(std::size_t i, Thumbnail coded, const PlaneRange& shown) const {
    for (std::size_t p = 0; p < coded.rgb.size(); p += 3) {
      const std::array<double, 3> color = color_of(i, coded.rgb.data() + p, shown);
      for (std::size_t c = 0; c < 3; ++c)
        coded.rgb[p + c] = static_cast<std::uint8_t>(std::lround(std::clamp(color[c], 0.0, 255.0)));
    }
    return {title_of(i, shown), std::move(coded)};
  }

  /// What a pixel of a coded thumbnail is drawn as, in sRGB.
  std::array<double, 3> color_of(std::size_t i, const std::uint8_t* coded,
                                 const PlaneRange& shown) const {
    if (PlaneCoder::is_blank(coded)) return {255, 255, 255};
    const PlaneRange& all = ranges_[i];
    const double value = all.low + (all.high - all.low) * coders_[i].share(coded);
    if (std::isnan(value)) return {0, 0, 0};
    const double share = std::clamp((value - shown.low) / (shown.high - shown.low), 0.0, 1.0);
    if (options_.tint)
      if (const auto example =
              example_color(plan_.channels()[i], all.low + (all.high - all.low) * share))
        return example->in(spaces::kSrgb);
    return {255 * share, 255 * share, 255 * share};
  }

  std::string title_of(std::size_t i, const PlaneRange& shown) const {
    const Channel& channel = plan_.channels()[i];
    const std::string unit = channel.unit_name() == "0-255" ? "" : " " + channel.unit_name();
    const std::string low = rounded_text(shown.low, 4), high = rounded_text(shown.high, 4);
    const std::string ends =
        options_.tint ? low + " to " + high : "black " + low + ", white " + high;
    const bool has_white = channel.space && !channel.space->white.empty();
    const std::string white = has_white ? " (" + std::string(channel.space->white) + ")" : "";
    return channel.name() + white + ", " + ends + unit;
  }

  void draw(const std::filesystem::path& path, FigureFormat format,
            const std::vector<SheetCell>& cells) const {
    std::string subtitle = options_.tint ? "each plane in colors like the values it holds"
                                         : "each plane in gray, from black to white";
    if (options_.stretch_view)
      subtitle += "; stretched for viewing, from the 1 % to the 99 % point of each";
    if (excluded_.total() > 0) subtitle += "; what does not count is left white";
    Plot plot(format);
    add_sheet(plot, path, picture_.name() + " and its planes", subtitle, cells);
    draw_figures(plot, context_);
  }

  const SheetOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  PictureInfo info_;
  ChannelPlan plan_;
  Preview preview_;
  std::vector<PlaneRange> ranges_;
  std::vector<PlaneCoder> coders_;
  std::deque<Tallies<ThumbnailSums>> planes_;
  Excluded excluded_;
};

}  // namespace

const std::vector<ResultKind>& sheet_results() {
  static const std::vector<ResultKind> kinds{
      {"figure", "<stem>.sheet.figure.png: the picture and its planes"}};
  return kinds;
}

Json run_sheet(const SheetOptions& options, const Context& context) {
  Results results(options.shared, context, sheet_results());
  // Figures are all that it makes, so they are drawn of any number of pictures.
  const FigureFormat format = results.wants("figure")
                                  ? options.shared.figures.value_or(FigureFormat::kPng)
                                  : FigureFormat::kNone;
  Json summary = summary_frame("sheet");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    SheetJob job(input, options, its_context);
    return job.run(format == FigureFormat::kNone
                       ? std::filesystem::path()
                       : results.path(input, "sheet.figure", extension_of(format)),
                   format);
  };
  for_each_input(options.shared, context, summary, do_one);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
