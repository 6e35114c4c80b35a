// The panels of an invented chapel: colored glass in lead, drawn with everything that makes real
// photographs hard, and the exact class of every pixel.
#ifndef CHALCEDONY_DEMO_PANEL_H_
#define CHALCEDONY_DEMO_PANEL_H_

#include <cstdint>
#include <string>
#include <vector>

#include "io/metadata/class_legend.h"

namespace chalcedony::demo {

/// The classes of the scenario: number, name and color of the glass.
const std::vector<LegendEntry>& glass_legend();

struct PanelPlan {
  std::string name;  // "panel-a"
  std::uint64_t seed = 1;
  bool samples = true;    // comes with sample regions
  bool cast = false;      // a warm color cast
  bool bad_edge = false;  // the scanner's edge is in the picture
};

/// Panels A to D of the scenario.
std::vector<PanelPlan> panel_plans();

/// A place where a sample region may be drawn.
struct SampleSpot {
  unsigned class_index = 0;
  double x = 0, y = 0;
  double radius = 0;
};

struct Panel {
  std::uint32_t width = 0;
  std::uint32_t height = 0;
  std::vector<std::uint8_t> rgb;        // sRGB, interleaved
  std::vector<std::uint8_t> reference;  // class number of each pixel; 0 is not part of the panel
  std::vector<SampleSpot> spots;
};

/// Draws a panel. The same plan gives the same bytes.
Panel draw_panel(const PanelPlan& plan);

/// Earlier surveys of a panel. In 1911 all glass was the first; by 1954 some panes had lost theirs,
/// and some others had been mended. Since then the lost ones have got new glass.
enum class Survey { k1911, k1954 };

/// The class of each pixel as a survey found it, as Panel::reference has it today.
std::vector<std::uint8_t> surveyed_glass(const PanelPlan& plan, Survey survey);

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_PANEL_H_
