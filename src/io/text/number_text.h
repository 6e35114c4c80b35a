// Numbers as text for tables and files.
#ifndef CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_
#define CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_

#include <string>

namespace chalcedony {

/// The shortest text that reads back as the same number; empty for a value that is not finite.
std::string number_text(double value);
std::string number_text(float value);

/// A number for people, to so many digits, 1 to 9: with 4, 0.01235, 12.35 and 12346, since digits
/// before the point are never left out.
std::string rounded_text(double value, int digits);

/// A number to so many decimals, 0 to 20; without the minus of what is rounded to 0.
std::string fixed_text(double value, int decimals);

/// "12.5 %": a percentage to a tenth.
std::string percent_text(double percent);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_TEXT_NUMBER_TEXT_H_
