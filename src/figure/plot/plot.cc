#include "figure/plot/plot.h"

#include <fmt/format.h>

#include <algorithm>
#include <boost/process.hpp>
#include <cmath>
#include <fstream>

#include "figure/plot/axis.h"
#include "figure/plot/fitted_text.h"
#include "io/file/atomic_file.h"
#include "io/file/whole_file.h"
#include "io/text/printable_text.h"

namespace chalcedony {
namespace {

constexpr int kPageTitlePoints = 15;
constexpr double kTitleLine = 28, kSubtitleLine = 56;  // from the top of a page
constexpr Edges kCoordinates{.left = 50, .top = 0, .right = 0, .bottom = 28};
constexpr double kTicAcross = 48, kTicDown = 18;  // what a coordinate takes, in pixels of the page

/// Of a page so high, in pixels.
std::string terminal(FigureFormat format, double height) {
  // Points are 4/3 pixels, but in SVG, where they are taken for pixels; nothing is drawn below 9.
  const std::string font = "font 'DejaVu Sans,12' noenhanced";
  constexpr double kCentimeters = 2.65e-2;  // of a PDF, for a pixel of the others
  switch (format) {
    case FigureFormat::kSvg:
      return fmt::format("svg size {:.0f},{:.0f} background '{}' {} fontscale 1.3333", Plot::kWidth,
                         height, Ink::kPaper, font);
    case FigureFormat::kPdf:
      return fmt::format("pdfcairo size {:.1f}cm,{:.1f}cm background '{}' {}",
                         Plot::kWidth * kCentimeters, height * kCentimeters, Ink::kPaper, font);
    default:
      return fmt::format("pngcairo size {:.0f},{:.0f} background '{}' {}", Plot::kWidth, height,
                         Ink::kPaper, font);
  }
}

/// As gnuplot takes text literally.
std::string in_quotes(std::string_view text) {
  std::string out = "'";
  for (const char c : text) {
    if (c == '\'') out += '\'';
    out += c;
  }
  return out + "'";
}

void move_into_place(const std::filesystem::path& drawn, const std::filesystem::path& path) {
  AtomicFile file(path);
  file.write(read_file(drawn));
  file.commit();
}

}  // namespace

std::string extension_of(FigureFormat format) {
  switch (format) {
    case FigureFormat::kSvg:
      return "svg";
    case FigureFormat::kPdf:
      return "pdf";
    default:
      return "png";
  }
}

std::optional<FigureFormat> figure_format_named(std::string_view name) {
  if (name == "none") return FigureFormat::kNone;
  for (const FigureFormat format : {FigureFormat::kPng, FigureFormat::kSvg, FigureFormat::kPdf})
    if (name == extension_of(format)) return format;
  return std::nullopt;
}

std::string literal(std::string_view text) { return in_quotes(printable(text)); }

Plot::Plot(FigureFormat format) : format_(format) {}

Box Plot::begin(const std::filesystem::path& path, std::string_view title,
                std::string_view subtitle, double height) {
  height_ = height;
  if (!paths_.empty()) line("unset multiplot\nreset");
  const std::string drawn = fmt::format("figure{}.{}", paths_.size(), extension_of(format_));
  paths_.push_back(path);
  line("set terminal " + terminal(format_, height));
  line("set output " + in_quotes((folder() / drawn).string()));
  line("set encoding utf8");
  line("set multiplot");
  label(kMargins.left, kTitleLine, fitted_text(title, kBodyWidth, kPageTitlePoints),
        kPageTitlePoints);
  if (!subtitle.empty()) label(kMargins.left, kSubtitleLine, subtitle, 11, Ink::kFaint);
  return Box{0, 0, kWidth, height}.inside(kMargins);
}

void Plot::line(std::string_view text) {
  script_ += text;
  script_ += '\n';
}

std::string Plot::place(double x, double y) const {
  return fmt::format("screen {:.5f},{:.5f}", x / kWidth, 1 - y / height_);
}

void Plot::draw_into(const Box& box) {
  line(fmt::format("set lmargin at screen {:.5f}; set rmargin at screen {:.5f}", box.left / kWidth,
                   box.right / kWidth));
  line(fmt::format("set bmargin at screen {:.5f}; set tmargin at screen {:.5f}",
                   1 - box.bottom / height_, 1 - box.top / height_));
}

Box Plot::panel(const Box& box, std::string_view title, const Edges& axes) {
  const Box drawn = box.inside(axes).inside({.top = title.empty() ? 0 : kPanelTitle});
  begin_panel(drawn, fitted_text(title, drawn.width(), kPanelTitlePoints));
  return drawn;
}

void Plot::begin_panel(const Box& drawn, std::string_view title) {
  line("unset label; unset object; unset arrow; unset key; unset colorbox; unset logscale");
  line("set autoscale; set size noratio; set xtics auto; set ytics auto");
  for (const char* axis : {"x", "y", "cb"})
    line(fmt::format("set {0}label '' textcolor rgb '{1}' font ',12'", axis, Ink::kText));
  draw_into(drawn);
  line(fmt::format("set border 3 lc rgb '{}'", Ink::kFaint));
  line(fmt::format("set tics nomirror out textcolor rgb '{}' font ',11'", Ink::kText));
  line(fmt::format("set grid back lc rgb '{}' lt 1", Ink::kGrid));
  line(fmt::format("set title {} textcolor rgb '{}' font ',{}' offset 0,-0.4", literal(title),
                   Ink::kText, kPanelTitlePoints));
}

void Plot::color_scale(const Box& box) {
  line(fmt::format("set colorbox user origin {} size screen {:.5f},{:.5f}",
                   place(box.left, box.bottom), box.width() / kWidth, box.height() / height_));
}

/// A plot of nothing over the whole page keeps a label or an object of its own there: else they
/// would belong to the plot that follows.
void Plot::draw_on_page() {
  line("unset border; unset tics; unset grid; unset key; unset colorbox");
  draw_into({0, 0, kWidth, height_});
  line("set xrange [0:1]; set yrange [0:1]; set size noratio");
  line("plot 2 notitle");
}

void Plot::label(double x, double y, std::string_view text, int size, const char* color,
                 const char* align) {
  line("unset label; unset object; unset arrow; unset title; unset xlabel; unset ylabel");
  line(fmt::format("set label 1 {} at {} {} front font ',{}' textcolor rgb '{}'", literal(text),
                   place(x, y), align, size, color));
  draw_on_page();
  line("unset label 1");
}

void Plot::swatch(const Box& box, const std::string& color) {
  draw_rectangle(box, color, fmt::format("border lc rgb '{}'", Ink::kFaint));
}

void Plot::bare_swatch(const Box& box, const std::string& color) {
  draw_rectangle(box, color, "noborder");
}

void Plot::draw_rectangle(const Box& box, const std::string& color, std::string_view border) {
  line("unset label; unset arrow; unset title; unset xlabel; unset ylabel");
  line(fmt::format(
      "set object 1 rectangle from {} to {} fillcolor rgb '{}' fillstyle solid 1 {} front",
      place(box.left, box.bottom), place(box.right, box.top), color, border));
  draw_on_page();
  line("unset object 1");
}

const TemporaryFolder& Plot::folder() {
  if (!folder_) folder_.emplace();
  return *folder_;
}

std::filesystem::path Plot::stored_path(std::string_view suffix) {
  return folder() / fmt::format("data{}.{}", stored_++, suffix);
}

std::string Plot::store(std::string_view text) {
  const auto path = stored_path("txt");
  std::ofstream(path, std::ios::binary) << text;
  return in_quotes(path.string());
}

std::string Plot::store(std::span<const std::uint8_t> bytes) {
  const auto path = stored_path("raw");
  std::ofstream(path, std::ios::binary)
      .write(reinterpret_cast<const char*>(bytes.data()),
             static_cast<std::streamsize>(bytes.size()));
  return in_quotes(path.string());
}

namespace {

constexpr int kLabelPoints = 11;
// Of the page, in pixels: beside the letters, half the height, from label to label, and from what a
// label names to its middle.
constexpr double kLabelRoom = 11, kLabelHalf = 8, kLabelHigh = 24, kLabelRise = 18;

/// Where a label can stand on a picture that is shown so large, in pixels of the page; best first.
std::vector<RowStretch> places_of(const PictureLabel& label, double scale, const Box& shown) {
  const double high = shown.height(), wide = text_width(label.text, kLabelPoints) + kLabelRoom;
  // Not beyond the sides of the picture.
  const double x = std::min(std::max(label.x * scale, wide / 2),
                            std::max(shown.width() - wide / 2, shown.width() / 2));
  const double top = label.y * scale;
  if (!label.bottom) return {{x, top, wide}};
  const double bottom = *label.bottom * scale;
  if (label.inside && label.inside->wide * scale > wide && bottom - top > 2 * kLabelHigh)
    return {{label.inside->x * scale, label.inside->y * scale, wide}};
  std::vector<RowStretch> places;
  const double highest = kLabelHalf, lowest = high - kLabelHalf;  // for its middle
  if (top - kLabelHalf >= highest) places.push_back({x, std::max(top - kLabelRise, highest), wide});
  if (bottom + kLabelHalf <= lowest)
    places.push_back({x, std::min(bottom + kLabelRise, lowest), wide});
  if (places.empty()) places.push_back({x, top + kLabelRise, wide});
  return places;
}

struct PlacedLabel {
  const PictureLabel* label;
  std::vector<RowStretch> places;  // where it can stand, best first
};

bool meet(const RowStretch& a, const RowStretch& b) {
  return std::abs(a.x - b.x) < (a.wide + b.wide) / 2 && std::abs(a.y - b.y) < kLabelHigh;
}

}  // namespace

void Plot::put_labels(const std::vector<PictureLabel>& labels, double scale, const Box& shown) {
  std::vector<PlacedLabel> placed;
  for (const PictureLabel& one : labels) placed.push_back({&one, places_of(one, scale, shown)});
  // Those that can stand in one place only come first: others can give way.
  std::stable_partition(placed.begin(), placed.end(),
                        [](const PlacedLabel& one) { return one.places.size() == 1; });
  std::vector<RowStretch> taken;
  line(fmt::format("set style textbox opaque noborder margins 0.4,0.3 fillcolor rgb '{}'",
                   Ink::kPaper));
  for (const auto& [label, places] : placed) {
    const auto free = std::find_if(places.begin(), places.end(), [&](const RowStretch& place) {
      return std::none_of(taken.begin(), taken.end(),
                          [&](const RowStretch& other) { return meet(place, other); });
    });
    if (free == places.end()) continue;
    taken.push_back(*free);
    line(
        fmt::format("set label {} {} at {:.6g},{:.6g} center front boxed font ',{}' "
                    "textcolor rgb '{}'",
                    taken.size(), literal(label->text), free->x / scale, free->y / scale,
                    kLabelPoints, Ink::kText));
  }
}

double Plot::height_for(const Thumbnail& picture) {
  const double wide = kBodyWidth - kCoordinates.left - kCoordinates.right;
  const double high =
      wide / picture.width * picture.height + kCoordinates.top + kCoordinates.bottom;
  return std::min(kHeight, page_height(high));
}

Box Plot::show(const Box& box, std::string_view title, const Thumbnail& picture,
               const Overlay& over) {
  const double title_high = title.empty() ? 0 : kPanelTitle;
  const Edges axes = over.coordinates ? kCoordinates : Edges{};
  const Box room = box.inside(axes).inside({.top = title_high});
  const double scale = std::min(room.width() / picture.width, room.height() / picture.height);
  const double left = room.left + (room.width() - picture.width * scale) / 2;
  const Box shown{left, room.top, left + picture.width * scale, room.top + picture.height * scale};
  // A title may be wider than its picture.
  begin_panel(shown, fitted_text(title, box.width(), kPanelTitlePoints));
  const double cell = picture.pixels_per_cell;
  line(fmt::format("set border 15 lc rgb '{}'; unset grid", Ink::kFaint));
  if (over.coordinates) {
    // The same step both ways, so that squares are squares; as many as can be read.
    const double step = coordinate_step(picture.width * cell, picture.height * cell);
    const auto tics = [&](double pixels, double length, double each) {
      return tic_list(coordinates_to(pixels * cell, step, static_cast<std::size_t>(length / each)));
    };
    line("set xtics " + tics(picture.width, shown.width(), kTicAcross) + "; set ytics " +
         tics(picture.height, shown.height(), kTicDown));
  } else {
    line("unset tics");
  }
  line(fmt::format("set xrange [0:{:.6g}]; set yrange [{:.6g}:0]", picture.width * cell,
                   picture.height * cell));
  if (!over.labels.empty()) put_labels(over.labels, scale / cell, shown);
  line(
      fmt::format("plot {} binary array=({},{}) dx={:.8g} dy={:.8g} origin=({:.8g},{:.8g}) "
                  "format='%uchar' with rgbimage notitle{}",
                  store(picture.rgb), picture.width, picture.height, cell, cell, cell / 2, cell / 2,
                  over.plots.empty() ? "" : ", " + over.plots));
  return shown;
}

std::optional<std::string> Plot::draw() {
  namespace process = boost::process;
  if (format_ == FigureFormat::kNone || paths_.empty()) return std::nullopt;
  const auto program = process::search_path("gnuplot");
  if (program.empty())
    return "figures were not drawn: gnuplot is not installed (Debian package gnuplot-nox)";
  line("unset multiplot\nset output");
  const auto script_path = folder() / "figure.gp";
  std::ofstream(script_path, std::ios::binary) << script_;
  process::ipstream messages;
  // In a group of its own, as Ctrl-C reaches all of ours: a figure that was begun is finished.
  process::group own_group;
  process::child child(program, script_path.string(), own_group,
                       process::std_in<process::null, process::std_out> process::null,
                       process::std_err > messages);
  std::string first, next;
  while (std::getline(messages, next))
    if (first.empty() && next.find_first_not_of(" ^") != std::string::npos) first = next;
  child.wait();
  own_group.detach();
  for (std::size_t i = 0; i < paths_.size(); ++i) {
    const auto drawn = folder() / fmt::format("figure{}.{}", i, extension_of(format_));
    std::error_code error;
    if (std::filesystem::file_size(drawn, error) > 0 && !error && child.exit_code() == 0) {
      move_into_place(drawn, paths_[i]);
    } else {
      return paths_[i].string() + " was not drawn: gnuplot says '" + first + "'";
    }
  }
  return std::nullopt;
}

}  // namespace chalcedony
