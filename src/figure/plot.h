// Figures as gnuplot scripts: written to a folder of their own, run without a shell.
#ifndef CHALCEDONY_FIGURE_PLOT_H_
#define CHALCEDONY_FIGURE_PLOT_H_

#include <filesystem>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "core/color/css_color.h"
#include "core/pixel/thumbnail.h"
#include "io/temporary_folder.h"

namespace chalcedony {

enum class FigureFormat { kNone, kPng, kSvg, kPdf };

/// "png", "svg" or "pdf".
std::string extension_of(FigureFormat format);

/// A rectangle of the page, 0 to 1 from the lower left.
struct Frame {
  double left, right, bottom, top;
};

/// The colors every figure shares.
struct Ink {
  static constexpr const char* kPaper = "#fcfbf8";
  static constexpr const char* kText = "#2b3440";
  static constexpr const char* kFaint = "#8a939b";
  static constexpr const char* kGrid = "#e1e4e6";
};

/// Text as gnuplot takes it literally: single quotes doubled, line ends made spaces.
std::string literal(std::string_view text);

/// A text at a place of a shown picture, in the picture's pixels: about it, or above it.
struct PictureLabel {
  double x, y;
  std::string text;
  bool above = false;
};

/// What is drawn on a shown picture. A label that would lie on one before it is left out.
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

  /// The size of a page.
  static constexpr double kWidth = 1280, kHeight = 800;
  /// What the titles of the page and of a panel below them take.
  static constexpr double kHeader = 104;

  /// Begins a figure with a title line; later lines draw into it. One that needs less or more of a
  /// page says how high it is.
  void begin(const std::filesystem::path& path, std::string_view title,
             std::string_view subtitle = {}, double height = kHeight);

  /// Of the page begun last, in pixels.
  double height() const { return height_; }

  /// Adds a line of script.
  void line(std::string_view text);

  /// Where the next `plot` draws, with its own title. Ranges, tics and labels are reset.
  void panel(const Frame& frame, std::string_view title = {});

  /// Text at a place of the page; `size` in points.
  void label(double x, double y, std::string_view text, int size = 11,
             const char* color = Ink::kText, const char* align = "left");

  /// A filled rectangle of the page.
  void swatch(const Frame& frame, const std::string& color);

  /// Stores data beside the script; returns its name, quoted.
  std::string store(std::string_view text);
  std::string store(std::span<const std::uint8_t> bytes);

  /// Makes a panel that shows a thumbnail as large as it fits into the frame, with the picture's
  /// pixels as coordinates. Returns where the picture stands.
  Frame show(const Frame& frame, std::string_view title, const Thumbnail& picture,
             const Overlay& over = {});

  /// Draws everything begun. Returns what went wrong, if anything, as a sentence for a warning;
  /// figures that could be drawn are in place.
  std::optional<std::string> draw();

  const std::vector<std::filesystem::path>& paths() const { return paths_; }

 private:
  std::filesystem::path stored_path(std::string_view suffix);
  /// `scale`: pixels of the page for one of the picture.
  void put_labels(const std::vector<PictureLabel>& labels, double scale);

  FigureFormat format_;
  double height_ = kHeight;
  std::optional<TemporaryFolder> folder_;
  std::string script_;
  std::vector<std::filesystem::path> paths_;
  int stored_ = 0;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_FIGURE_PLOT_H_
