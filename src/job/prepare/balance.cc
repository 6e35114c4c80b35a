#include "job/prepare/balance.h"

#include <fmt/format.h>

#include <algorithm>
#include <memory>
#include <string>
#include <vector>

#include "core/balance/balancer.h"
#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "io/document/curve_file.h"
#include "io/file/whole_file.h"
#include "job/picture/changed_picture.h"
#include "job/picture/figures.h"
#include "job/prepare/before_and_after.h"
#include "job/prepare/colors_in_common.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// Errors    InputError when it cannot be balanced
CountedPicture open_to_balance(const std::filesystem::path& file, const SharedOptions& options,
                               const Context& context) {
  CountedPicture picture = open_color(file, options, context);
  refuse_labels(picture);
  const Space& space = *picture.file.info.space;
  if (!can_balance(space))
    throw InputError("holds " + std::string(space.id) + ", and balance works on srgb",
                     "convert it first", file.string());
  return picture;
}

/// What the curves are of.
std::vector<Channel> curves_of(const PictureInfo& info, bool on_lightness) {
  return on_lightness ? std::vector<Channel>{{&spaces::kLab, 0}} : own_channels(info);
}

/// The values of the picture that others are to be like.
std::optional<ChannelValues> wanted_values(const BalanceOptions& options, const Context& context) {
  if (!options.like) return std::nullopt;
  CountedPicture picture = open_to_balance(*options.like, options.shared, context);
  keep_rows(picture);
  Balance balance;
  balance.on_lightness = options.on_lightness;
  return channel_values(picture, balance, curves_of(picture.file.info, options.on_lightness),
                        options.shared, context);
}

class BalanceJob {
 public:
  /// `wish`: what is asked of the curves.
  BalanceJob(const std::filesystem::path& input, const CurveWish& wish,
             const BalanceOptions& options, const Context& context)
      : wish_(wish),
        options_(options),
        context_(context),
        picture_(open_to_balance(input, options.shared, context)),
        info_(picture_.file.info),
        curves_of_(curves_of(info_, options.on_lightness)) {
    balance_.on_lightness = options.on_lightness;
  }

  Json run(const PictureOutput& place, FigureFormat format) {
    const SharedOptions& shared = options_.shared;
    const bool fits_light = options_.flat && options_.flat->fit;
    if (!options_.apply || fits_light) keep_rows(picture_);
    if (options_.flat) balance_.light = learn_light(*options_.flat, picture_, shared, context_);
    if (options_.apply) {
      learned_.set = read_curves(*options_.apply);
      check_applied();
    } else {
      learned_ = learn_curves(picture_, wish_, balance_, curves_of_, shared, context_);
    }
    for (std::size_t c = 0; c < curves().size(); ++c)
      balance_.curves.emplace_back([&](double share) { return curves()[c].at(share); },
                                   range(c).low, range(c).high);
    if (options_.save) {
      write_text_file(place.beside(picture_.file.path, *options_.save), curves_text(learned_.set));
    }
    return write(place, format);
  }

 private:
  const ChannelInfo& range(std::size_t c) const { return curves_of_[c].info(); }
  const std::vector<ToneCurve>& curves() const { return learned_.set.curves; }

  void check_applied() const {
    if (learned_.set.on_lightness != options_.on_lightness)
      throw InputError(
          learned_.set.on_lightness ? "has a curve of lightness" : "has curves of channels",
          learned_.set.on_lightness ? "give --on lightness" : "leave --on lightness out",
          options_.apply->string());
    if (curves().size() != curves_of_.size())
      throw InputError(fmt::format("has {} curves, and {} has {} channels", curves().size(),
                                   picture_.name(), curves_of_.size()),
                       "give curves saved from a picture of the same kind",
                       options_.apply->string());
  }

  Json write(const PictureOutput& place, FigureFormat format) {
    BeforeAndAfter shown(info_, format != FigureFormat::kNone);
    WrittenColors written(info_, wish_.like != nullptr);
    const ChangedPicture found =
        write_changed(picture_, place, "balanced", options_.shared, context_, [&] {
          return [balancer = std::make_unique<Balancer>(info_, balance_),
                  collector = BeforeAndAfter::Collector(shown),
                  colors = WrittenColors::Collector(written)](const Block& block) mutable {
            const ConstPlanes color = balancer->balanced(block);
            collector.add(block, color);
            colors.add(block, color);
            return color;
          };
        });
    if (shown.wanted()) draw(place, found.output, format, shown);
    Json told = report(found);
    if (wish_.like)
      tell_common(percent_in_common(*learned_.colors, wish_.like->colors),
                  percent_in_common(written.colors(), wish_.like->colors), told);
    return told;
  }

  /// Where channels have the same values but colors do not come together, or go apart, the pictures
  /// do not hold the same.
  void tell_common(double before, double after, Json& told) const {
    constexpr double kEnough = 80;
    told["in_common_before"] = before;
    told["in_common_after"] = after;
    const bool by_ranks = wish_.kind == CurveKind::kTable && !options_.on_lightness;
    if (after >= (by_ranks ? std::max(kEnough, before) : before)) return;
    context_.warn(fmt::format(
        "{}: {:.0f} % of its colors are those of {} now, and were {:.0f} % before, so the two do "
        "not hold the same things in the same shares; count what both hold, with --within",
        picture_.file.path.string(), after, options_.like->string(), before));
  }

  void draw(const PictureOutput& place, const std::filesystem::path& output, FigureFormat format,
            BeforeAndAfter& shown) {
    const auto figure = place.beside(picture_.file.path, figure_beside(output, format));
    Plot plot(format);
    shown.draw(plot, figure, picture_.name(), subtitle());
    draw_figures(plot, context_);
  }

  std::string subtitle() const {
    std::string text = options_.flat ? "the light evened out" : "";
    if (wish_.like && wish_.kind == CurveKind::kTable)
      return text + (text.empty() ? "" : ", ") + "the values of " +
             (options_.on_lightness ? "its lightness" : "its channels") + " as in " +
             wish_.like->file.filename().string();
    for (std::size_t c = 0; c < curves().size(); ++c) {
      const ToneCurve& curve = curves()[c];
      if (curve.kind == CurveKind::kNone && curve.black == 0 && curve.white == 1) continue;
      text +=
          fmt::format("{}{} {}", text.empty() ? "" : ", ", curves_of_[c].name(), curve_text(curve));
    }
    return text;
  }

  std::string curve_text(const ToneCurve& curve) const {
    if (curve.kind == CurveKind::kNone) return "levels";
    if (curve.kind != CurveKind::kTable)
      return fmt::format("{} {:.4g}", curve_name(curve.kind), curve.strength);
    return options_.apply ? "by a table" : "equalized";
  }

  Json report(const ChangedPicture& found) const {
    const std::vector<double>& medians = learned_.medians;
    Json list = Json::array();
    for (std::size_t c = 0; c < curves().size(); ++c) {
      const ToneCurve& curve = curves()[c];
      const double low = range(c).low, width = range(c).high - range(c).low;
      Json one{{"channel", curves_of_[c].name()},
               {"curve", std::string(curve_name(curve.kind))},
               {"black", low + width * curve.black},
               {"white", low + width * curve.white},
               {"strength", curve.strength}};
      if (!medians.empty()) {
        one["median_before"] = medians[c];
        one["median_after"] = low + width * curve.at((medians[c] - low) / width);
      }
      if (wish_.like) one["median_wanted"] = wish_.like->medians[c];
      list.push_back(std::move(one));
    }
    return {{"file", picture_.file.path.string()},
            {"output", found.output.string()},
            {"counted", found.counted},
            {"excluded", excluded_json(found.excluded)},
            {"light_evened", options_.flat.has_value()},
            {"curves", list},
            {"clipped_percent", percent(found.gamut.outside, found.counted)}};
  }

  const CurveWish& wish_;
  const BalanceOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  PictureInfo info_;
  std::vector<Channel> curves_of_;
  Balance balance_;
  LearnedCurves learned_;  // of curves that are applied the set alone
};

}  // namespace

Json run_balance(const BalanceOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "balance", "balanced.png");
  if (options.save) OutputGuard(options.shared).check(*options.save);
  const FigureFormat format = figure_formats(options.shared, context).of_each;
  Json summary = summary_frame("balance");
  const std::optional<ChannelValues> wanted = wanted_values(options, context);
  CurveWish wish = options.curves;
  if (wanted) {
    wish.like = &*wanted;
    summary["like"] = options.like->string();
  }
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return BalanceJob(input, wish, options, its_context).run(place, format);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
