// `chalcedony-demo-data FOLDER` writes the demo files; `chalcedony-demo-data photo FILE [WIDTH
// HEIGHT [COLORS]]` draws a large photo-like picture for measuring.
#include <cstdlib>
#include <exception>
#include <iostream>
#include <string>
#include <vector>

#include "demo/demo_data.h"
#include "demo/photo.h"

int main(int argc, char** argv) {
  using namespace chalcedony::demo;
  const std::vector<std::string> arguments(argv + 1, argv + argc);
  const auto number = [&](std::size_t i, std::uint32_t otherwise) {
    return i < arguments.size() ? static_cast<std::uint32_t>(std::stoul(arguments[i])) : otherwise;
  };
  try {
    if (arguments.size() >= 2 && arguments[0] == "photo") {
      PhotoPlan plan;
      plan.width = number(2, plan.width);
      plan.height = number(3, plan.height);
      plan.colors = number(4, plan.colors);
      write_photo(arguments[1], plan);
    } else if (arguments.size() == 1 && !arguments[0].starts_with("-")) {
      std::filesystem::create_directories(arguments[0]);
      for (const auto& file : write_demo_data(arguments[0])) std::cout << file.string() << '\n';
    } else {
      std::cerr << "usage: chalcedony-demo-data FOLDER | photo FILE [WIDTH HEIGHT [COLORS]]\n";
      return 2;
    }
  } catch (const std::exception& error) {
    std::cerr << "chalcedony-demo-data: error: " << error.what() << '\n';
    return EXIT_FAILURE;
  }
}
