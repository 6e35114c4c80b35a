#include "job/report/report_page.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <utility>

#include "core/read_number.h"
#include "io/text/number_text.h"
#include "job/page/html_page.h"
#include "job/page/page_assets.h"

namespace chalcedony {
namespace {

/// Reals in a table for people have four digits after the point at most.
std::string tidy_number(const std::string& text) {
  if (text.find_first_of(".e") == std::string::npos || text.size() < 8) return text;
  return rounded_text(read_number<double>(text).value_or(0), 4);
}

void write_runs(const std::vector<ReportRun>& runs, std::string& out) {
  out += "<section id=\"runs\"><h2>What was run</h2>\n<ol class=\"runs\">\n";
  for (const ReportRun& run : runs) {
    out +=
        "<li><code class=\"command\">" + escaped_html(run.command) + "</code>\n" +
        (run.outdated.empty() ? ""
                              : "<p class=\"outdated\">" + escaped_html(run.outdated) + "</p>\n") +
        "<details><summary>" + escaped_html(run.facts) + "</summary>\n<ul class=\"files\">";
    for (const auto& [name, link] : run.files)
      out += "<li><a href=\"" + escaped_html(link) + "\">" + escaped_html(name) + "</a></li>";
    out += "</ul></details></li>\n";
  }
  out += "</ol></section>\n";
}

void write_image(const ReportImage& image, std::string& out) {
  out += fmt::format("<figure{}><img src=\"{}\" alt=\"{}\"><figcaption>{}</figcaption></figure>\n",
                     image.wide ? " class=\"wide\"" : "", image.source, escaped_html(image.alt),
                     escaped_html(image.caption));
}

void write_groups(const ReportContent& content, std::string& out) {
  if (content.groups.empty()) return;
  out += "<section id=\"pictures\"><h2>Pictures and figures</h2>\n";
  if (!content.left_out.empty()) out += "<p>" + escaped_html(content.left_out) + "</p>\n";
  for (const ReportGroup& group : content.groups) {
    out += "<h3>" + escaped_html(group.title) + "</h3>\n<div class=\"plates\">\n";
    for (const ReportImage& image : group.images) write_image(image, out);
    out += "</div>\n";
  }
  out += "</section>\n";
}

/// The classes that any picture has pixels of, in the order in which they are first met.
std::vector<ReportShare> classes_of(const ReportAreas& areas) {
  std::vector<ReportShare> classes;
  for (const auto& [picture, shares] : areas.pictures)
    for (const ReportShare& share : shares) {
      const auto at = std::find_if(classes.begin(), classes.end(),
                                   [&](const ReportShare& one) { return one.name == share.name; });
      if (at == classes.end()) {
        classes.push_back(share);
      } else {
        at->percent = std::max(at->percent, share.percent);
      }
    }
  classes.erase(std::remove_if(classes.begin(), classes.end(),
                               [](const ReportShare& one) { return one.percent <= 0; }),
                classes.end());
  return classes;
}

void write_bars(const ReportAreas& areas, std::string& out) {
  out += "<div class=\"bars\">\n";
  for (const auto& [picture, shares] : areas.pictures) {
    std::string spans, said;
    for (const ReportShare& share : shares) {
      if (share.percent <= 0) continue;
      spans += fmt::format(
          "<span style=\"width:{:.3f}%;background:{}\" title=\"{} {:.2f} %\"></span>",
          share.percent, escaped_html(share.color), escaped_html(share.name), share.percent);
      said +=
          fmt::format("{}{} {:.1f} percent", said.empty() ? "" : ", ", share.name, share.percent);
    }
    out += "<div class=\"name\">" + escaped_html(picture) +
           "</div><div class=\"bar\" role=\"img\" aria-label=\"" +
           escaped_html(picture + ": " + said) + "\">" + spans + "</div>\n";
  }
  out += "</div>\n<ul class=\"legend\">";
  for (const ReportShare& one : classes_of(areas))
    out += "<li><i style=\"background:" + escaped_html(one.color) + "\"></i>" +
           escaped_html(one.name) + "</li>";
  out += "</ul>\n";
}

class TableWriter {
 public:
  explicit TableWriter(std::string& out) : out_(out) {}

  void write(const ReportTable& table) {
    const std::string id = fmt::format("table-{}", ++count_);
    const std::string title = escaped_html(table.title);
    if (table.rows.size() > kSeenAtOnce) write_filter(id, table.rows.size());
    if (table.all_rows > table.rows.size())
      out_ += fmt::format("<p>The first {} of {} rows; all are in the file.</p>\n",
                          table.rows.size(), table.all_rows);
    out_ += "<div class=\"scroll\" tabindex=\"0\" role=\"region\" aria-label=\"" + title +
            "\"><table id=\"" + id + "\"><thead><tr>";
    const std::vector<bool> numeric = numeric_columns(table);
    for (std::size_t c = 0; c < table.header.size(); ++c)
      out_ += fmt::format("<th scope=\"col\"{}><button type=\"button\">{}</button></th>",
                          numeric[c] ? " class=\"number\"" : "", escaped_html(table.header[c]));
    out_ += "</tr></thead><tbody>\n";
    for (const auto& row : table.rows) write_row(row, numeric);
    out_ += "</tbody></table></div>\n";
  }

 private:
  static constexpr std::size_t kSeenAtOnce = 6;  // rows among which nothing has to be sought

  void write_filter(const std::string& id, std::size_t rows) {
    out_ += fmt::format(
        "<div class=\"tools\"><label for=\"{0}-filter\">Rows with</label>"
        "<input id=\"{0}-filter\" type=\"search\" data-table=\"{0}\">"
        "<span id=\"{0}-shown\" class=\"note\" role=\"status\">{1} of {1} rows</span></div>\n",
        id, rows);
  }

  static std::vector<bool> numeric_columns(const ReportTable& table) {
    std::vector<bool> numeric(table.header.size(), !table.rows.empty());
    for (const auto& row : table.rows)
      for (std::size_t c = 0; c < numeric.size(); ++c)
        if (!row[c].empty() && !read_number<double>(row[c])) numeric[c] = false;
    return numeric;
  }

  void write_row(const std::vector<std::string>& row, const std::vector<bool>& numeric) {
    out_ += "<tr>";
    for (std::size_t c = 0; c < row.size(); ++c) {
      const std::string& text = row[c];
      if (numeric[c]) {
        out_ += "<td class=\"number\">" + tidy_number(text) + "</td>";
      } else if (text.size() == 7 && text[0] == '#') {
        out_ += "<td><i style=\"background:" + escaped_html(text) + "\"></i>" + escaped_html(text) +
                "</td>";
      } else {
        out_ += "<td>" + escaped_html(text) + "</td>";
      }
    }
    out_ += "</tr>\n";
  }

  std::string& out_;
  int count_ = 0;
};

/// A row a picture, a column a class.
ReportTable areas_table(const ReportAreas& areas) {
  ReportTable table;
  table.title = areas.title + ", percent of the counted pixels";
  table.header = {"picture"};
  const std::vector<ReportShare> classes = classes_of(areas);
  for (const ReportShare& one : classes) table.header.push_back(one.name);
  for (const auto& [picture, shares] : areas.pictures) {
    std::vector<std::string> row{picture};
    for (const ReportShare& one : classes) {
      const auto at = std::find_if(shares.begin(), shares.end(), [&](const ReportShare& share) {
        return share.name == one.name;
      });
      row.push_back(at == shares.end() ? "" : fmt::format("{:.2f}", at->percent));
    }
    table.rows.push_back(std::move(row));
  }
  table.all_rows = table.rows.size();
  return table;
}

void write_links(const ReportContent& content, std::string& out) {
  out += "<nav aria-label=\"Parts of this page\"><ul>";
  if (!content.areas.empty()) out += "<li><a href=\"#areas\">Areas</a></li>";
  if (!content.groups.empty()) out += "<li><a href=\"#pictures\">Pictures and figures</a></li>";
  if (!content.tables.empty()) out += "<li><a href=\"#tables\">Tables</a></li>";
  out += "<li><a href=\"#runs\">What was run</a></li></ul></nav>\n";
}

}  // namespace

std::string report_page(const ReportContent& content) {
  std::string out = "<a class=\"skip\" href=\"#content\">To the content</a>\n<header><h1>" +
                    escaped_html(content.title) + "</h1>\n<p>" + escaped_html(content.facts) +
                    "</p>\n";
  if (!content.outdated.empty())
    out += "<p class=\"outdated\">" + escaped_html(content.outdated) + "</p>\n";
  write_links(content, out);
  out += "</header>\n<main id=\"content\">\n";
  TableWriter tables(out);
  if (!content.areas.empty()) out += "<section id=\"areas\"><h2>Areas</h2>\n";
  for (const ReportAreas& areas : content.areas) {
    out += "<h3>" + escaped_html(areas.title) + "</h3>\n";
    write_bars(areas, out);
    tables.write(areas_table(areas));
  }
  if (!content.areas.empty()) out += "</section>\n";
  write_groups(content, out);
  if (!content.tables.empty()) out += "<section id=\"tables\"><h2>Tables</h2>\n";
  for (const ReportTable& table : content.tables) {
    out += "<h3>" + escaped_html(table.title) + "</h3>\n";
    tables.write(table);
  }
  if (!content.tables.empty()) out += "</section>\n";
  write_runs(content.runs, out);
  out += "</main>\n";
  return html_page({content.title, kReportStyle, std::move(out), kReportScript});
}

}  // namespace chalcedony
