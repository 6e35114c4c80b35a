#include "job/palette/palette.h"

#include <fmt/format.h>

#include <algorithm>
#include <optional>

#include "core/color/ciede2000.h"
#include "core/error.h"
#include "core/stats/transport.h"
#include "figure/palette_figure.h"
#include "io/document/color_table_file.h"
#include "io/document/palette_file.h"
#include "io/document/palette_swatches.h"
#include "io/file/whole_file.h"
#include "io/text/csv.h"
#include "job/palette/main_colors.h"
#include "job/palette/repaint.h"
#include "job/picture/figures.h"
#include "job/picture/inputs.h"
#include "job/repeat/each_input.h"
#include "job/run/input_list.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

constexpr std::size_t kMostToldPairs = 10;

Json pair_json(const SeenPair& pair, ColorVision vision) {
  return {{"vision", name_of(vision)},
          {"first", pair.first + 1},
          {"second", pair.second + 1},
          {"delta_e", pair.seen_with(vision)},
          {"full_delta_e", pair.seen_with(ColorVision::kFull)}};
}

/// Of color-vision deficiencies: the closest pair with each, and the pairs that look alike.
Json vision_json(const std::vector<SeenPair>& pairs, double apart) {
  Json json{{"closest", Json::array()}, {"alike", Json::array()}};
  for (const ColorVision vision : kVisionDeficiencies)
    if (const SeenPair* const closest = closest_pair(pairs, vision))
      json["closest"].push_back(pair_json(*closest, vision));
  const std::vector<LookAlike> alike = look_alikes(pairs, apart);
  json["alike_pairs"] = alike.size();
  for (std::size_t i = 0; i < std::min(alike.size(), kMostToldPairs); ++i)
    json["alike"].push_back(pair_json(alike[i].pair, alike[i].vision));
  return json;
}

/// The colors of a palette file, or all those of a picture of few colors.
std::vector<Color> colors_to_apply(const std::filesystem::path& path, const SharedOptions& options,
                                   const Context& context) {
  if (!is_picture_name(path)) return read_palette_colors(path);
  // Region, mask and bands are those of the pictures that are repainted.
  SharedOptions all;
  all.threads = options.threads;
  all.max_pixels = options.max_pixels;
  CountedPicture picture = open_counted(path, all, context);
  return errors_at(path.string(), [&] {
    ColorPoints colors(channels_of(spaces::kOklab), all.hue_floor, all.seed);
    colors.add(picture, all, context);
    colors.finish(all.threads);
    std::vector<Color> out;
    for (const PaletteColor& one : unique_colors(
             colors, kMostPaletteColors, "make its palette first, with 'chalcedony palette'"))
      out.push_back(one.color());
    return out;
  });
}

class PaletteJob {
 public:
  PaletteJob(const PaletteOptions& options, const Context& context, Results& results)
      : options_(options),
        context_(context),
        results_(results),
        format_(figure_formats(results, options.shared, context).of_each) {
    if (options.apply) applied_ = colors_to_apply(*options.apply, options.shared, context);
  }

  void run(Json& summary) {
    if (options_.compare) {
      for (const auto& input : options_.shared.inputs)
        summary["inputs"].push_back(find_palette(input, context_));
      summary["comparison"] = compare();
      return;
    }
    const auto do_one = [&](const std::filesystem::path& input, const Context& context) {
      return options_.apply ? repaint_picture(input, context) : find_palette(input, context);
    };
    for_each_input(options_.shared, context_, summary, do_one);
  }

 private:
  Json find_palette(const std::filesystem::path& input, const Context& context) {
    ColorPoints colors(channels_of(spaces::kOklab), options_.shared.hue_floor,
                       options_.shared.seed);
    std::optional<Thumbnail> thumbnail;
    if (is_table_name(input)) {
      colors.add(read_color_table(input));
    } else {
      CountedPicture picture = open_counted(input, options_.shared, context);
      Preview preview(picture.file.info, format_ != FigureFormat::kNone);
      colors.add(picture, options_.shared, context, &preview);
      if (preview.wanted()) thumbnail = preview.thumbnail();
    }
    colors.finish(options_.shared.threads);
    const Palette palette = errors_at(input.string(), [&] {
      return options_.unique
                 ? unique_colors(colors, kMostUniqueColors,
                                 "leave --unique out to get its main ones")
                 : main_colors(colors, options_.colors, options_.apart, options_.shared);
    });
    const std::vector<SeenPair> pairs = seen_pairs(palette);
    write(input, palette, pairs);
    if (thumbnail) {
      Plot plot(format_);
      add_palette_figure(plot, results_.path(input, "palette.figure", extension_of(format_)),
                         input.filename().string(), palette, *thumbnail);
      draw_figures(plot, context);
    }
    Json json{{"file", input.string()},
              {"counted", colors.pixels()},
              {"excluded", excluded_json(colors.excluded(0))}};
    if (colors.sampled()) json["sampled"] = {{"drawn", colors.drawn()}, {"of", colors.deep()}};
    json["colors"] = palette_json(palette);
    json["vision"] = vision_json(pairs, options_.apart > 0 ? options_.apart : kUsuallyApart);
    if (options_.compare) palettes_.push_back(palette);
    return json;
  }

  void write(const std::filesystem::path& input, const Palette& palette,
             const std::vector<SeenPair>& pairs) {
    const std::string stem = input.stem().string();
    if (results_.wants("palette"))
      write_text_file(results_.path(input, "palette", "json"),
                      palette_text(palette, input.filename().string()));
    if (results_.wants("colors"))
      write_palette_table(results_.path(input, "palette", "csv"), palette);
    if (results_.wants("css"))
      write_text_file(results_.path(input, "palette", "css"), palette_css(palette, stem));
    if (results_.wants("swatches")) {
      write_text_file(results_.path(input, "palette", "svg"), swatches_svg(palette));
      write_swatches(results_.path(input, "palette", "png"), palette);
    }
    if (results_.wants("contrasts"))
      write_contrasts(results_.path(input, "contrasts", "csv"), palette);
    if (results_.wants("differences"))
      write_differences(results_.path(input, "differences", "csv"), palette, pairs);
  }

  Json compare() {
    const std::vector<Palette>& p = palettes_;
    std::vector<std::vector<double>> weights(2);
    for (std::size_t side = 0; side < 2; ++side)
      for (const PaletteColor& one : p[side]) weights[side].push_back(one.percent);
    std::vector<double> costs;
    for (const PaletteColor& a : p[0])
      for (const PaletteColor& b : p[1])
        costs.push_back(ciede2000(lab_of(a.look.oklab), lab_of(b.look.oklab)));
    const TransportPlan plan = cheapest_transport(weights[0], weights[1], costs);
    Json json{{"distance", plan.cost}, {"moves", Json::array()}};
    CsvTable table({"from", "from_color", "to", "to_color", "share_percent", "delta_e"});
    for (const Flow& flow : plan.flows) {
      const double delta_e = costs[flow.from * p[1].size() + flow.to];
      const std::string from = css_hex(p[0][flow.from].color()),
                        to = css_hex(p[1][flow.to].color());
      table.add({std::uint64_t{flow.from + 1}, from, std::uint64_t{flow.to + 1}, to,
                 100 * flow.amount, delta_e});
      json["moves"].push_back({{"from", flow.from + 1},
                               {"from_color", from},
                               {"to", flow.to + 1},
                               {"to_color", to},
                               {"percent", 100 * flow.amount},
                               {"delta_e", delta_e}});
    }
    if (results_.wants("matching")) table.write(results_.path("palettes.matching.csv"));
    if (format_ != FigureFormat::kNone) {
      Plot plot(format_);
      std::vector<std::string> names;
      for (const auto& input : options_.shared.inputs) names.push_back(input.filename().string());
      add_matching_figure(plot, results_.path("palettes.figure." + extension_of(format_)), names, p,
                          plan);
      draw_figures(plot, context_);
    }
    return json;
  }

  Json repaint_picture(const std::filesystem::path& input, const Context& context) {
    CountedPicture picture = open_counted(input, options_.shared, context);
    RepaintOptions how{
        applied_, options_.formula, options_.dither, {}, format_ != FigureFormat::kNone};
    if (results_.wants("repainted")) how.file = results_.path(input, "repainted", "png");
    const Repainted repainted = repaint(picture, how, options_.shared, context);
    const std::uint64_t counted = picture.shape().pixels() - repainted.excluded.total();
    Json json{{"file", input.string()},
              {"counted", counted},
              {"excluded", excluded_json(repainted.excluded)},
              {"mean_delta_e", repainted.error.mean},
              {"percentile_95_delta_e", repainted.error.percentile_95},
              {"used", Json::array()}};
    std::vector<LegendLine> used;
    for (std::size_t i = 0; i < applied_.size(); ++i) {
      const std::string color = css_hex(applied_[i]);
      used.push_back({color, color, percent(repainted.counts[i], counted)});
      json["used"].push_back({{"index", i + 1},
                              {"color", color},
                              {"pixels", repainted.counts[i]},
                              {"percent", *used.back().percent}});
    }
    if (!how.previews) return json;
    Plot plot(format_);
    add_repainted_figure(plot, results_.path(input, "repainted.figure", extension_of(format_)),
                         picture.name(), used,
                         fmt::format("colors are off by {:.1f} delta E on average, 95 % of the "
                                     "pixels by at most {:.1f}",
                                     repainted.error.mean, repainted.error.percentile_95),
                         *repainted.picture, *repainted.repainted);
    draw_figures(plot, context);
    return json;
  }

  const PaletteOptions& options_;
  const Context& context_;
  Results& results_;
  FigureFormat format_;
  std::vector<Color> applied_;
  std::vector<Palette> palettes_;
};

}  // namespace

const std::vector<ResultKind>& palette_results() {
  static const std::vector<ResultKind> kinds{
      {"palette", "<stem>.palette.json: the palette, for --apply and other programs", "not apply"},
      {"colors", "<stem>.palette.csv: share, color, spread and contrast of every color",
       "not apply"},
      {"css", "<stem>.palette.css: the colors as CSS custom properties", "not apply"},
      {"swatches", "<stem>.palette.svg and .png: the colors, as wide as their shares", "not apply"},
      {"contrasts", "<stem>.contrasts.csv: contrast ratios with black, white and each other",
       "not apply"},
      {"differences",
       "<stem>.differences.csv: how far apart every two colors are, also without red, green or "
       "blue cones",
       "not apply"},
      {"repainted", "<stem>.repainted.png: the picture in the colors of a palette", "apply"},
      {"matching", "palettes.matching.csv: what moves where to make one palette of the other",
       "compare"},
      {"figure",
       "<stem>.palette.figure.png: picture and palette; <stem>.repainted.figure.png for --apply; "
       "palettes.figure.png for --compare"}};
  return kinds;
}

Json run_palette(const PaletteOptions& options, const Context& context) {
  Results results(options.shared, context, palette_results());
  Json summary = summary_frame("palette");
  PaletteJob(options, context, results).run(summary);
  results.report(summary);
  return summary;
}

}  // namespace chalcedony
