// What a person does to the logbook, each as one undoable edit.
#pragma once

#include "app/shell/session.h"
#include "core/visit/keeping.h"

namespace vernal {

QString now_moment(); // "2026-05-12T09:30", local
std::string today_date();

// Its id.
std::string begin_visit(Document& d, Purpose purpose);
void change_visit(Document& d, const std::string& id, const QString& label, const std::function<void(Visit&)>& change, const QString& merge_key = {});
void delete_draft(Document& d, const std::string& id);
// Why not; empty: done.
QString close_visit(Document& d, const std::string& id);
QString amend_visit(Document& d, const std::string& id, const Units& units, const QString& what, const QString& reason, const QString& by);

// The visit with its dictated lines replaced. Error: one of them is not understood.
Result<Visit> with_lines(const Visit& visit, const std::vector<std::string>& lines, const Variant& v, const Units& units);

} // namespace vernal
