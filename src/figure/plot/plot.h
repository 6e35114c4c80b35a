// Figures as gnuplot scripts: written to a folder of their own, run without a shell.
#ifndef CHALCEDONY_FIGURE_PLOT_PLOT_H_
#define CHALCEDONY_FIGURE_PLOT_PLOT_H_

#include <filesystem>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/color/css_color.h"
#include "core/pixel/thumbnail.h"
#include "figure/plot/box.h"
#include "io/file/temporary_folder.h"

namespace chalcedony {

enum class FigureFormat { kNone, kPng, kSvg, kPdf };

/// "png", "svg" or "pdf".
std::string extension_of(FigureFormat format);

/// The format that is called so: `png`, `svg`, `pdf` or `none`; nothing for another word.
std::optional<FigureFormat> figure_format_named(std::string_view name);

/// The colors every figure shares.
struct Ink {
  static constexpr const char* kPaper = "#fcfbf8";
  static constexpr const char* kText = "#2b3440";
  static constexpr const char* kFaint = "#8a939b";
  static constexpr const char* kGrid = "#e1e4e6";
};

/// Text as gnuplot takes it literally, printable.
std::string literal(std::string_view text);

/// A stretch of a row of a shown picture.
struct RowStretch {
  double x, y;  // of its middle
  double wide;
};

/// A text at a place of a shown picture, in the picture's pixels: about it; or of what reaches from
/// y down to `bottom`: inside, where that is large enough for the text, else above, and below where
/// there is no room above.
struct PictureLabel {
  double x, y;
  std::string text;
  std::optional<double> bottom = {};
  std::optional<RowStretch> inside = {};  // a wide one
};

/// What is drawn on a shown picture. A label that would lie on one before it, above and below, is
/// left out.
struct Overlay {
  std::string plots = {};  // in the picture's pixels, y down; joined to its own `plot`
  std::vector<PictureLabel> labels = {};
  bool coordinates = false;  // along both sides, with one step
};

/// One or more figures, drawn by one run of gnuplot.
class Plot {
 public:
  explicit Plot(FigureFormat format);
  Plot(const Plot&) = delete;
  Plot& operator=(const Plot&) = delete;

  FigureFormat format() const { return format_; }

  /// The size of a page in pixels, and what is left free around its titles and its body.
  static constexpr double kWidth = 1280, kHeight = 800;
  static constexpr Edges kMargins{.left = 26, .top = 80, .right = 26, .bottom = 20};
  /// What the title of a panel takes above it, and the size of its letters.
  static constexpr double kPanelTitle = 24;
  static constexpr int kPanelTitlePoints = 12;
  /// Between what stands side by side or below each other.
  static constexpr double kGap = 24;
  /// The width of a picture that stands beside what the page is about.
  static constexpr double kPictureBeside = 396;

  /// The body of a page, and the height of a page whose body is so high.
  static constexpr double kBodyWidth = kWidth - kMargins.left - kMargins.right,
                          kBodyHeight = kHeight - kMargins.top - kMargins.bottom;
  static constexpr double page_height(double body) { return kMargins.top + body + kMargins.bottom; }

  /// The height of a page that shows one picture with its coordinates, and nothing else.
  static double height_for(const Thumbnail& picture);

  /// Begins a figure with a title line; later lines draw into it. One that needs less or more of a
  /// page says how high it is. Returns the body of the page.
  Box begin(const std::filesystem::path& path, std::string_view title,
            std::string_view subtitle = {}, double height = kHeight);

  /// Adds a line of script.
  void line(std::string_view text);

  /// A place of the page as gnuplot knows it: "screen 0.25,0.5".
  std::string place(double x, double y) const;

  /// Where the next `plot` draws: a box without its title and what its axes need at its sides.
  /// Ranges, tics and labels are reset. Returns what the axes enclose.
  Box panel(const Box& box, std::string_view title = {}, const Edges& axes = {});

  /// Where the next `plot` draws the scale of its colors.
  void color_scale(const Box& box);

  /// Text that begins, ends or has its middle (`align`) at x, and its letters' middle at y; `size`
  /// in points.
  void label(double x, double y, std::string_view text, int size = 11,
             const char* color = Ink::kText, const char* align = "left");

  /// A filled rectangle of the page with a thin frame, or bare where its color is to meet others.
  void swatch(const Box& box, const std::string& color);
  void bare_swatch(const Box& box, const std::string& color);

  /// Stores data beside the script; returns its name, quoted.
  std::string store(std::string_view text);
  std::string store(std::span<const std::uint8_t> bytes);

  /// Makes a panel that shows a thumbnail as large as it fits into a box with its title and
  /// coordinates, with the picture's pixels as units. Returns where the picture stands.
  Box show(const Box& box, std::string_view title, const Thumbnail& picture,
           const Overlay& over = {});

  /// Draws everything begun. Returns what went wrong, if anything, as a sentence for a warning;
  /// figures that could be drawn are in place.
  std::optional<std::string> draw();

  const std::vector<std::filesystem::path>& paths() const { return paths_; }

 private:
  void draw_rectangle(const Box& box, const std::string& color, std::string_view border);
  void draw_into(const Box& box);
  void begin_panel(const Box& drawn, std::string_view title);
  void draw_on_page();
  /// For the files of a drawing; made when the first one is stored.
  const TemporaryFolder& folder();
  std::filesystem::path stored_path(std::string_view suffix);
  /// `scale`: pixels of the page for one of the picture; `shown`: where that stands.
  void put_labels(const std::vector<PictureLabel>& labels, double scale, const Box& shown);

  FigureFormat format_;
  double height_ = kHeight;
  std::optional<TemporaryFolder> folder_;
  std::string script_;
  std::vector<std::filesystem::path> paths_;
  int stored_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_PLOT_H_
