#include "job/sheet.h"

#include <algorithm>
#include <cmath>
#include <deque>
#include <numbers>

#include "core/color/channel_plan.h"
#include "figure/axis_strip.h"
#include "figure/sheet_figure.h"
#include "io/number_text.h"
#include "job/inputs.h"
#include "job/preview.h"

namespace chalcedony {
namespace {

/// The values of a plane that are shown black and white.
struct Shown {
  double low = 0, high = 255;
};

/// A plane on its way into a thumbnail, as three planes of 0-255. A hue goes as the middle of its
/// circle needs: cosine, sine, and whether there is one.
class PlaneCoder {
 public:
  PlaneCoder(const Channel& channel, const Shown& range) : hue_(channel.is_hue()), range_(range) {}

  ConstPlanes code(const float* values, std::size_t n, const Planes& out) const {
    if (hue_) {
      for (std::size_t i = 0; i < n; ++i) {
        const bool has_hue = !std::isnan(values[i]);
        const float angle = has_hue ? values[i] * std::numbers::pi_v<float> / 180 : 0;
        out[0][i] = has_hue ? 127.5f + 127.5f * std::cos(angle) : 127.5f;
        out[1][i] = has_hue ? 127.5f + 127.5f * std::sin(angle) : 127.5f;
        out[2][i] = has_hue ? 255.0f : 0.0f;
      }
      return read_only(out);
    }
    const auto low = static_cast<float>(range_.low);
    const auto factor = static_cast<float>(255 / (range_.high - range_.low));
    for (std::size_t i = 0; i < n; ++i) out[0][i] = (values[i] - low) * factor;
    return {out[0], out[0], out[0]};
  }

  /// The share of the way from low to high that a thumbnail's pixel stands for; NaN for no hue.
  double share(const std::uint8_t* rgb) const {
    if (!hue_) return rgb[0] / 255.0;
    if (rgb[2] < 128) return std::nan("");
    const double turn = std::atan2(rgb[1] - 127.5, rgb[0] - 127.5) / (2 * std::numbers::pi);
    return turn < 0 ? turn + 1 : turn;
  }

 private:
  bool hue_;
  Shown range_;
};

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
      coders_.emplace_back(channel, ranges_.back());
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
      const Shown shown = options_.stretch_view ? stretched(i, coded) : ranges_[i];
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
        for (std::size_t i = 0; i < block.size; ++i)
          alpha_.plane(0)[i] = block.counts(i) ? 1.0f : 0.0f;
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
  Shown stretched(std::size_t i, const Thumbnail& coded) const {
    if (plan_.channels()[i].is_hue()) return ranges_[i];
    std::vector<std::uint8_t> codes;
    for (std::size_t p = 0; p < coded.rgb.size(); p += 3) codes.push_back(coded.rgb[p]);
    std::sort(codes.begin(), codes.end());
    const Shown& all = ranges_[i];
    const auto value = [&](std::size_t rank) {
      return all.low + (all.high - all.low) * codes[rank] / 255.0;
    };
    const std::size_t one_percent = codes.size() / 100;
    const Shown some{value(one_percent), value(codes.size() - 1 - one_percent)};
    return some.high > some.low ? some : all;
  }

  SheetCell cell(std::size_t i, Thumbnail coded, const Shown& shown) const {
    const Channel& channel = plan_.channels()[i];
    const Shown& all = ranges_[i];
    for (std::size_t p = 0; p < coded.rgb.size(); p += 3) {
      std::uint8_t* const rgb = coded.rgb.data() + p;
      const double value = all.low + (all.high - all.low) * coders_[i].share(rgb);
      const double gray =
          std::clamp(255 * (value - shown.low) / (shown.high - shown.low), 0.0, 255.0);
      std::array<double, 3> color{gray, gray, gray};
      if (std::isnan(value)) {
        color = {0, 0, 0};
      } else if (options_.tint) {
        if (const auto example =
                example_color(channel, all.low + (all.high - all.low) * gray / 255))
          color = example->in(spaces::kSrgb);
      }
      for (std::size_t c = 0; c < 3; ++c)
        rgb[c] = static_cast<std::uint8_t>(std::lround(std::clamp(color[c], 0.0, 255.0)));
    }
    const std::string unit = channel.unit_name() == "0-255" ? "" : " " + channel.unit_name();
    const std::string ends =
        options_.tint
            ? number_text(shown.low) + " to " + number_text(shown.high) + unit
            : "black " + number_text(shown.low) + ", white " + number_text(shown.high) + unit;
    return {channel.name() + ", " + ends, std::move(coded)};
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
  std::vector<Shown> ranges_;
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
  Results results(options.shared, sheet_results());
  const FigureFormat format = results.wants("figure")
                                  ? options.shared.figures.value_or(FigureFormat::kPng)
                                  : FigureFormat::kNone;
  Json summary = summary_frame("sheet");
  for_each_input(options.shared, context, summary, [&](const std::filesystem::path& input) {
    SheetJob job(input, options, context);
    return job.run(format == FigureFormat::kNone
                       ? std::filesystem::path()
                       : results.path(input, "sheet.figure", extension_of(format)),
                   format);
  });
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
