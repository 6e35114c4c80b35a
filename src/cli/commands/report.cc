// `chalcedony report`: a results folder as one page.
#include "job/report/report.h"

#include <fmt/format.h>

#include <ostream>

#include "cli/options/command.h"
#include "cli/options/option_values.h"
#include "cli/text/json_format.h"
#include "cli/text/outputs_text.h"
#include "cli/text/text_table.h"
#include "core/error.h"

namespace chalcedony::cli {
namespace {

void declare_report(po::options_description& options) {
  add_option<std::string>(options, "output,o", "FILE",
                          "the page to write (default report.html in the folder)");
  add_option<std::string>(options, "title", "TEXT",
                          "the heading of the page (default the folder's name)");
  add_option<std::string>(options, "pictures", "N", "show the first N pictures (default 40)");
  add_option<std::string>(options, "rows", "N", "show the first N rows of a table (default 500)");
}

Json do_report(const po::variables_map& given, const SharedOptions&, const Context& context) {
  const auto named = texts_of(given, "input");
  if (named.size() != 1)
    throw UsageError("report takes one folder", "name a folder that commands wrote into");
  ReportOptions options;
  options.folder = named.front();
  options.page = text_of(given, "output", (options.folder / "report.html").string());
  if (options.page.extension() != ".html")
    throw UsageError("--output: '" + options.page.string() + "' is no page", "end it in .html");
  options.title = text_of(given, "title", "");
  if (given.count("pictures"))
    options.most_pictures = whole_number("--pictures", text_of(given, "pictures", ""), 1, 10000);
  if (given.count("rows"))
    options.most_rows = whole_number("--rows", text_of(given, "rows", ""), 1, 1000000);
  return run_report(options, context);
}

void print_report(const Json& summary, std::ostream& out) {
  out << fmt::format("{}, {}, {}, {}\n", plural(summary["runs"], "run"),
                     plural(summary["pictures"], "picture"), plural(summary["images"], "image"),
                     plural(summary["tables"], "table"));
  print_outputs(summary, out);
}

}  // namespace

extern const Command kReport;
const Command kReport{
    .name = "report",
    .summary = "one page of a results folder that opens anywhere",
    .operands = "FOLDER",
    .purpose =
        "Makes one HTML page of what commands wrote into a folder and into those below it: what "
        "was run, the pictures and figures, the areas of classes over all pictures, and tables "
        "that sort and filter. The page needs no network and no other file, and prints well.",
    .examples = {{"classify panel-b.png panel-c.png --model glass.model.json -o maps/",
                  "some results first"},
                 {"report maps/", "their page, maps/report.html"},
                 {"report maps/ -o chapel.html --title \"Glass of the chapel\"",
                  "elsewhere, with a heading"}},
    .takes_pictures = false,
    .declare = declare_report,
    .run = do_report,
    .print = print_report,
};

}  // namespace chalcedony::cli
