// Writes the manual pages and the completion script into a folder, when the program is built.
#include <filesystem>
#include <iostream>

#include "cli/help/completion.h"
#include "cli/help/man_page.h"
#include "cli/options/command.h"
#include "io/file/whole_file.h"

int main(int argc, char** argv) {
  using namespace chalcedony;
  if (argc != 2) {
    std::cerr << "usage: chalcedony_pages FOLDER\n";
    return 2;
  }
  const std::filesystem::path folder = argv[1];
  try {
    std::filesystem::create_directories(folder / "man1");
    write_text_file(folder / "man1/chalcedony.1", cli::program_man_page());
    for (const cli::Command* command : cli::all_commands())
      write_text_file(folder / ("man1/chalcedony-" + std::string(command->name) + ".1"),
                      cli::man_page(*command));
    write_text_file(folder / "chalcedony.bash", cli::bash_completion());
  } catch (const std::exception& error) {
    std::cerr << error.what() << '\n';
    return 1;
  }
  return 0;
}
