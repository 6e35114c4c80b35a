// The list of all commands.
#include <array>

#include "cli/options/command.h"

namespace chalcedony::cli {

#define CHALCEDONY_COMMAND(name) extern const Command name;
#include "cli/command_list.inc"
#undef CHALCEDONY_COMMAND

namespace {

constexpr std::array kCommands{
#define CHALCEDONY_COMMAND(name) &name,
#include "cli/command_list.inc"
#undef CHALCEDONY_COMMAND
};

}  // namespace

std::span<const Command* const> all_commands() { return kCommands; }

const Command* find_command(std::string_view name) {
  for (const Command* command : kCommands)
    if (command->name == name) return command;
  return nullptr;
}

}  // namespace chalcedony::cli
