// Numbers as text for tables and files.
#ifndef CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_
#define CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_

#include <string>

namespace chalcedony {

/// The shortest text that reads back as the same number; empty for a value that is not finite.
std::string number_text(double value);
std::string number_text(float value);

/// "12.5 %": a percentage to a tenth.
std::string percent_text(double percent);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_
