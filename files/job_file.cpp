#include "job_file.h"

#include "attachment.h"
#include "csv_trace.h"
#include "disk.h"
#include "job_json.h"

#include "core/job/job_check.h"

#include <nlohmann/json.hpp>
#include <zip.h>

#include <algorithm>
#include <new>

namespace vernal {
namespace {

constexpr const char* json_entry = "job.json";
constexpr const char* logs_entry = "logs.json"; // of a recovery copy
constexpr const char* trace_folder = "traces/";
constexpr const char* attachment_folder = "attachments/"; // each content once, by its hash
constexpr zip_uint64_t largest_text = 64ULL << 20;        // of an entry but logs and attachments
constexpr zip_uint64_t largest_log = 1ULL << 30;
constexpr zip_uint64_t largest_job = 2ULL << 30; // all of it, unpacked
constexpr zip_uint64_t small_entry = 4ULL << 20; // up to here any ratio does
constexpr zip_uint64_t densest = 250;            // no log packs better: its times differ

Error zip_failure(const std::string& file, zip_error_t& e)
{
    const Error out{std::string("the container cannot be read or written: ") + zip_error_strerror(&e), file, "The file may be cut short; try a copy of it"};
    zip_error_fini(&e);
    return out;
}

Result<std::string> entry_text(zip_t* archive, zip_uint64_t index, const std::string& where)
{
    zip_stat_t st;
    if (zip_stat_index(archive, index, 0, &st) != 0 || (st.valid & ZIP_STAT_SIZE) == 0)
        return Error{"this part of the container cannot be read", where, ""};
    std::string text(st.size, '\0');
    zip_file_t* f = zip_fopen_index(archive, index, 0);
    const zip_int64_t got = f ? zip_fread(f, text.data(), st.size) : -1;
    const bool whole = f && zip_fclose(f) == 0 && got == static_cast<zip_int64_t>(st.size);
    if (!whole)
        return Error{"this part of the container is damaged", where, "Try a copy of the file"};
    return text;
}

std::optional<std::string> content_in(zip_t* archive, const std::string& name)
{
    const zip_int64_t at = zip_name_locate(archive, name.c_str(), 0);
    const auto text = at < 0 ? Result<std::string>(Error{}) : entry_text(archive, static_cast<zip_uint64_t>(at), name);
    return text ? std::optional(*text) : std::nullopt;
}

void note_lost(OpenedJob& opened, const FindContent& find)
{
    for (std::string& notice : fill_attachments(opened.job, find))
        opened.notices.push_back(std::move(notice));
}

bool begins_with(const std::string& name, const char* folder) { return name.rfind(folder, 0) == 0; }

// Before anything is unpacked: what the container says of its entries. Entries may
// share their packed bytes, which would let a small file hold much.
std::optional<Error> trouble_with(zip_t* archive, const std::string& file, std::size_t packed_bytes)
{
    const auto refuse = [&](const std::string& name, const char* what) { return Error{what, file + (name.empty() ? "" : ", " + name), "It may not be a job of this program"}; };
    zip_uint64_t whole = 0, packed = 0;
    const zip_int64_t n = zip_get_num_entries(archive, 0);
    for (zip_int64_t i = 0; i < n; ++i) {
        zip_stat_t st;
        if (zip_stat_index(archive, static_cast<zip_uint64_t>(i), 0, &st) != 0 || (st.valid & (ZIP_STAT_NAME | ZIP_STAT_SIZE | ZIP_STAT_COMP_SIZE)) != (ZIP_STAT_NAME | ZIP_STAT_SIZE | ZIP_STAT_COMP_SIZE))
            return refuse("", "an entry of the container cannot be read");
        const std::string name = st.name;
        const bool log = begins_with(name, trace_folder), attached = begins_with(name, attachment_folder);
        if (st.size > (log ? largest_log : attached ? largest_job
                                                    : largest_text))
            return refuse(name, "this part of the container is too large");
        if (st.size > small_entry && st.size / densest > st.comp_size)
            return refuse(name, "this part of the container unpacks to far more than it could hold");
        if (log && name != trace_folder && !is_plain_name(name.substr(std::string(trace_folder).size())))
            return refuse(name, "a log in the container has a name that is none of a file");
        whole += st.size;
        packed += st.comp_size;
        if (whole > largest_job || packed > packed_bytes)
            return refuse("", "the container unpacks to more than 2 GB");
    }
    return {};
}

Result<OpenedJob> read_archive(zip_t* archive, const std::string& file, std::size_t packed_bytes)
{
    if (auto trouble = trouble_with(archive, file, packed_bytes))
        return *trouble;
    const zip_int64_t at = zip_name_locate(archive, json_entry, 0);
    if (at < 0)
        return Error{"the container has no job.json", file, "It may not be a job of this program"};
    const auto text = entry_text(archive, static_cast<zip_uint64_t>(at), file + ", job.json");
    if (!text)
        return text.error();
    auto opened = read_job_text(*text, file + ", job.json");
    if (!opened)
        return opened;
    if (const auto logs = content_in(archive, logs_entry))
        if (const auto names = nlohmann::json::parse(*logs, nullptr, false); names.is_object())
            for (const auto& [name, beside] : names.items())
                if (beside.is_string() && is_plain_name(beside.get<std::string>()))
                    opened->logs_beside[name] = beside.get<std::string>();
    const zip_int64_t n = zip_get_num_entries(archive, 0);
    for (zip_int64_t i = 0; i < n; ++i) {
        const std::string name = zip_get_name(archive, static_cast<zip_uint64_t>(i), 0);
        if (!begins_with(name, trace_folder) || name == trace_folder)
            continue;
        const auto csv = entry_text(archive, static_cast<zip_uint64_t>(i), file + ", " + name);
        if (!csv)
            return csv.error();
        auto trace = read_trace_csv(*csv, file + ", " + name);
        if (!trace)
            return trace.error();
        opened->job.traces[name.substr(std::string(trace_folder).size())] = std::make_shared<const Trace>(std::move(*trace));
    }
    note_lost(*opened, [&](const std::string& sha256) { return content_in(archive, attachment_folder + sha256); });
    return opened;
}

// What there is to write of the attachments, each content once.
std::map<std::string, std::shared_ptr<const std::string>> contents(const Job& job)
{
    std::map<std::string, std::shared_ptr<const std::string>> out;
    for (const Attachment& a : job.attachments)
        if (a.bytes)
            out[a.sha256] = a.bytes;
    return out;
}

enum class Packing { deflate,
    store };

bool add_entry(zip_t* archive, const std::string& name, const std::string& text, Packing packing)
{
    zip_source_t* s = zip_source_buffer(archive, text.data(), text.size(), 0);
    if (!s)
        return false;
    if (const zip_int64_t at = zip_file_add(archive, name.c_str(), s, ZIP_FL_ENC_UTF_8); at >= 0) {
        const bool stored = packing == Packing::store || begins_with(name, attachment_folder); // photos are packed already
        return !stored || zip_set_file_compression(archive, static_cast<zip_uint64_t>(at), ZIP_CM_STORE, 0) == 0;
    }
    zip_source_free(s);
    return false;
}

Result<OpenedJob> open_plain(const std::filesystem::path& path, const std::string& text)
{
    auto opened = read_job_text(text, path.string());
    if (!opened)
        return opened;
    Job& job = opened->job;
    for (const Day& day : job.days) {
        if (day.trace.empty() || job.traces.count(day.trace) != 0)
            continue;
        const auto file = path.parent_path() / trace_folder / day.trace;
        const auto csv = read_file(file);
        if (!csv)
            return csv.error();
        auto trace = read_trace_csv(*csv, file.string());
        if (!trace)
            return trace.error();
        job.traces[day.trace] = std::make_shared<const Trace>(std::move(*trace));
    }
    note_lost(*opened, [&](const std::string& sha256) -> std::optional<std::string> {
        const auto content = read_file(path.parent_path() / attachment_folder / sha256);
        return content ? std::optional(*content) : std::nullopt;
    });
    return opened;
}

Result<std::monostate> save_plain(const Job& job, const std::filesystem::path& path)
{
    const auto folder = path.parent_path() / trace_folder;
    std::error_code ec;
    if (!job.traces.empty())
        std::filesystem::create_directories(folder, ec);
    for (const auto& [name, trace] : job.traces)
        if (!is_plain_name(name))
            return Error{"“" + name + "” is no name of a log", path.string(), "Give it a name without folders"};
        else if (auto done = write_file_atomically(folder / name, write_trace_csv(*trace)); !done)
            return done;
    if (auto done = save_attachments(job, path.parent_path() / attachment_folder); !done)
        return done;
    return write_file_atomically(path, write_job_json(job));
}

using Entries = std::vector<std::pair<std::string, std::string>>; // name, content

Result<std::string> pack(const Entries& entries, Packing packing = Packing::deflate)
{
    zip_error_t e;
    zip_error_init(&e);
    zip_source_t* target = zip_source_buffer_create(nullptr, 0, 0, &e);
    if (!target)
        return zip_failure("", e);
    zip_source_keep(target);
    zip_t* archive = zip_open_from_source(target, ZIP_TRUNCATE, &e);
    if (!archive) {
        zip_source_free(target);
        return zip_failure("", e);
    }
    const bool good = std::all_of(entries.begin(), entries.end(), [&](const auto& entry) { return add_entry(archive, entry.first, entry.second, packing); });
    if (!good || zip_close(archive) != 0) {
        zip_discard(archive);
        zip_source_free(target);
        return Error{"the container cannot be written", "", "There may not be enough memory"};
    }
    zip_source_open(target);
    zip_source_seek(target, 0, SEEK_END);
    std::string out(static_cast<std::size_t>(zip_source_tell(target)), '\0');
    zip_source_seek(target, 0, SEEK_SET);
    zip_source_read(target, out.data(), out.size());
    zip_source_close(target);
    zip_source_free(target);
    zip_error_fini(&e);
    return out;
}

} // namespace

Result<std::monostate> save_attachments(const Job& job, const std::filesystem::path& folder)
{
    std::error_code ec;
    for (const auto& [sha256, content] : contents(job)) {
        std::filesystem::create_directories(folder, ec);
        if (!std::filesystem::exists(folder / sha256, ec))
            if (auto done = write_file_atomically(folder / sha256, *content); !done)
                return done;
    }
    return std::monostate{};
}

namespace {

// Calls read(archive); where the bytes are none, its answer is the error.
template <class Read>
auto with_archive(const std::string& bytes, const std::string& file_name, Read read) -> decltype(read(static_cast<zip_t*>(nullptr)))
{
    zip_error_t e;
    zip_error_init(&e);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &e);
    if (!source)
        return zip_failure(file_name, e);
    zip_t* archive = zip_open_from_source(source, ZIP_RDONLY, &e);
    if (!archive) {
        zip_source_free(source);
        return zip_failure(file_name, e);
    }
    auto answer = read(archive);
    zip_discard(archive);
    zip_error_fini(&e);
    return answer;
}

std::optional<Error> trouble_in(const std::string& bytes, const std::string& file_name)
{
    return with_archive(bytes, file_name, [&](zip_t* archive) { return trouble_with(archive, file_name, bytes.size()); });
}

} // namespace

Result<OpenedJob> unpack_job(const std::string& bytes, const std::string& file_name)
{
    return with_archive(bytes, file_name, [&](zip_t* archive) { return read_archive(archive, file_name, bytes.size()); });
}

Result<std::string> pack_job(const Job& job)
{
    const auto kept = contents(job);
    Entries entries{{json_entry, write_job_json(job)}};
    for (const auto& [name, trace] : job.traces)
        entries.emplace_back(trace_folder + name, write_trace_csv(*trace));
    for (const auto& [sha256, content] : kept)
        entries.emplace_back(attachment_folder + sha256, *content);
    auto bytes = pack(entries);
    // What the reader would refuse is not written: a log that packs too well goes in as it is.
    if (bytes && trouble_in(*bytes, ""))
        bytes = pack(entries, Packing::store);
    if (bytes)
        if (const auto trouble = trouble_in(*bytes, ""))
            return Error{trouble->what, trouble->where, "Keep large files beside the job, not in it"};
    return bytes;
}

Result<std::string> pack_recovery(const Job& job, const std::map<std::string, std::string>& logs_beside)
{
    return pack({{json_entry, write_job_json(job)}, {logs_entry, nlohmann::json(logs_beside).dump()}});
}

Result<OpenedJob> open_job_file(const std::filesystem::path& path)
try {
    const auto bytes = read_file(path);
    if (!bytes)
        return bytes.error();
    if (bytes->rfind("PK", 0) == 0)
        return unpack_job(*bytes, path.string());
    return open_plain(path, *bytes);
} catch (const std::bad_alloc&) {
    return Error{"there is not enough memory to open this", path.string(), "Close other programs, or split its logs"};
}

Result<Job> open_job(const std::filesystem::path& path)
{
    auto opened = open_job_file(path);
    if (!opened)
        return opened.error();
    return std::move(opened->job);
}

Result<std::monostate> save_job(const Job& job, const std::filesystem::path& path)
{
    // What its own reader refuses is not written: the file before it stays.
    if (const auto again = read_job_json(write_job_json(job), path.string()); !again)
        return Error{"the job could not be opened again, so it was not saved: " + again.error().what, again.error().where, again.error().remedy};
    if (path.extension() == ".json")
        return save_plain(job, path);
    const auto bytes = pack_job(job);
    if (!bytes)
        return bytes.error();
    return write_file_atomically(path, *bytes);
}

} // namespace vernal
