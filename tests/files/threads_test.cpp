// What runs in threads of its own, without a window: day runner and recovery copy.
// Built with the thread sanitizer by the preset `threads`.
#include "core/study/day_runner.h"
#include "files/attachment.h"
#include "files/recovery_copy.h"

#include <gtest/gtest.h>

#include <algorithm>

#include <atomic>
#include <fstream>

#include <unistd.h>

using namespace vernal;
namespace fs = std::filesystem;

namespace {

// What a runner tells, taken down as it comes.
class Heard {
public:
    DayRunner::Told told()
    {
        return {[this](std::shared_ptr<const Outcome> o) {
                    const std::lock_guard lock(mutex_);
                    begun_ += o->settled ? 0 : 1;
                },
            [this](std::shared_ptr<const Outcome> o) {
                const std::lock_guard lock(mutex_);
                outcomes_.push_back(o->id);
                last_ = std::move(o);
                changed_.notify_all();
            },
            [this](std::shared_ptr<const Verdict> v) {
                const std::lock_guard lock(mutex_);
                verdicts_.push_back(v->id);
                changed_.notify_all();
            }};
    }
    bool judged(std::uint64_t id)
    {
        std::unique_lock lock(mutex_);
        return changed_.wait_for(lock, std::chrono::minutes(2), [&] { return !verdicts_.empty() && verdicts_.back() == id; });
    }
    std::vector<std::uint64_t> outcomes() { return copy(outcomes_); }
    std::vector<std::uint64_t> verdicts() { return copy(verdicts_); }
    int begun()
    {
        const std::lock_guard lock(mutex_);
        return begun_;
    }
    std::shared_ptr<const Outcome> last()
    {
        const std::lock_guard lock(mutex_);
        return last_;
    }

private:
    std::vector<std::uint64_t> copy(const std::vector<std::uint64_t>& v)
    {
        const std::lock_guard lock(mutex_);
        return v;
    }
    std::mutex mutex_;
    std::condition_variable changed_;
    std::vector<std::uint64_t> outcomes_, verdicts_;
    int begun_ = 0;
    std::shared_ptr<const Outcome> last_;
};

RunRequest of(Job job, double on_k)
{
    std::get<Differential>(job.variants[0].unit.rules.back().body).on = TempDiff::kelvin(on_k);
    RunRequest r;
    r.job = std::move(job);
    return r;
}

struct Folder {
    fs::path path = fs::temp_directory_path() / ("vernal-threads-" + std::to_string(::getpid()));
    Folder() { fs::create_directories(path); }
    ~Folder() { fs::remove_all(path); }
};

Job with_log()
{
    Job job = new_job("glycol-coil");
    Trace log;
    for (int i = 0; i < 2000; ++i)
        log.time_s.push_back(10.0 * i);
    log.columns.push_back({"collector", Quantity::temperature, std::vector<double>(2000, 21.25)});
    job.traces["7-may.csv"] = std::make_shared<const Trace>(std::move(log));
    job.attachments.push_back(make_attachment("roof.jpg", std::string(5000, 'r')));
    return job;
}

} // namespace

TEST(DayRunner, the_newest_request_is_answered_whole)
{
    Heard l;
    DayRunner runner(l.told());
    const Job job = new_job("glycol-coil");
    std::uint64_t id = 0;
    for (int i = 0; i < 30; ++i) {
        id = runner.request(of(job, 6 + 0.1 * i));
        if (i % 3 == 0)
            runner.hurry(id);
    }
    ASSERT_TRUE(l.judged(id));
    const auto outcomes = l.outcomes(), verdicts = l.verdicts();
    EXPECT_TRUE(std::is_sorted(outcomes.begin(), outcomes.end()));
    EXPECT_EQ(outcomes.back(), id);
    EXPECT_LE(verdicts.size(), outcomes.size());
    ASSERT_TRUE(l.last());
    EXPECT_DOUBLE_EQ(std::get<Differential>(l.last()->variant.unit.rules.back().body).on.in_kelvin(), 6 + 0.1 * 29);
    RunCache fresh;
    EXPECT_EQ(make_outcome(of(job, 6 + 0.1 * 29), {}, fresh).figures()->heat.to_store, l.last()->figures()->heat.to_store) << "cached weather changes nothing";
}

// A second run of the same loop and day is answered twice: at once from where the first began,
// then settled, and that as if nothing had been before.
TEST(DayRunner, a_first_answer_comes_while_the_stores_settle)
{
    Heard l;
    DayRunner runner(l.told());
    Job job = new_job("glycol-coil");
    ASSERT_TRUE(l.judged(runner.request(of(job, 8))));
    EXPECT_EQ(l.begun(), 0);
    ASSERT_TRUE(l.judged(runner.request(of(job, 8.5))));
    EXPECT_EQ(l.begun(), 1);
    EXPECT_TRUE(l.last()->settled);
    RunCache fresh;
    EXPECT_EQ(make_outcome(of(job, 8.5), {}, fresh).figures()->heat.to_store, l.last()->figures()->heat.to_store);
    job.days[0].sky.air_max_c += 5; // another day has no such beginning
    ASSERT_TRUE(l.judged(runner.request(of(job, 8.5))));
    EXPECT_EQ(l.begun(), 1);
}

TEST(DayRunner, ends_at_once_in_the_middle_of_a_run)
{
    Heard l;
    for (int i = 0; i < 5; ++i) {
        DayRunner runner(l.told());
        runner.request(of(new_job("two-arrays"), 8));
        if (i % 2 == 0)
            std::this_thread::yield();
    }
    SUCCEED();
}

TEST(DayRunner, requests_come_from_several_threads)
{
    Heard l;
    DayRunner runner(l.told());
    const Job job = new_job("direct");
    std::atomic<std::uint64_t> newest = 0;
    {
        std::vector<std::jthread> askers;
        for (int t = 0; t < 3; ++t)
            askers.emplace_back([&, t] {
                for (int i = 0; i < 5; ++i) {
                    const std::uint64_t id = runner.request(of(job, 5 + t + 0.2 * i));
                    for (std::uint64_t seen = newest; seen < id && !newest.compare_exchange_weak(seen, id);) {
                    }
                }
            });
    }
    EXPECT_EQ(newest, 15U);
    EXPECT_TRUE(l.judged(newest));
}

TEST(RecoveryCopy, the_last_one_asked_for_stands_and_reads_back)
{
    Folder f;
    const fs::path base = f.path / "1234";
    const Job job = with_log();
    {
        RecoveryCopy copy(base);
        for (int i = 0; i < 20; ++i) {
            Job next = job;
            next.title = "edit " + std::to_string(i);
            copy.write(std::move(next), "/somewhere/job.vrelay");
        }
        copy.wait();
        EXPECT_FALSE(copy.failure());
        const auto back = RecoveryCopy::open(base);
        ASSERT_TRUE(back);
        EXPECT_EQ(back->job.title, "edit 19");
        EXPECT_TRUE(back->notices.empty());
        EXPECT_EQ(back->job.attachments, job.attachments);
        EXPECT_EQ(back->job.traces.at("7-may.csv")->time_s, job.traces.at("7-may.csv")->time_s);
        EXPECT_EQ(std::distance(fs::directory_iterator(base.string() + ".logs"), fs::directory_iterator()), 1) << "a log is written once";
        copy.remove();
        EXPECT_FALSE(fs::exists(base.string() + ".vrelay"));
        copy.write(job, "");
        copy.wait();
        EXPECT_TRUE(RecoveryCopy::open(base)) << "and again after a save";
    }
    EXPECT_TRUE(fs::is_empty(f.path)) << "a proper end leaves nothing";
}

TEST(RecoveryCopy, taken_back_while_it_is_written)
{
    Folder f;
    RecoveryCopy copy(f.path / "1");
    const Job job = with_log();
    for (int i = 0; i < 40; ++i) {
        copy.write(job, "");
        if (i % 4 == 0)
            std::this_thread::sleep_for(std::chrono::milliseconds(i % 7));
        copy.remove();
        EXPECT_FALSE(fs::exists(f.path / "1.vrelay"));
    }
}

TEST(RecoveryCopy, a_lost_log_costs_nothing_else)
{
    Folder f;
    RecoveryCopy copy(f.path / "1");
    copy.write(with_log(), "");
    copy.wait();
    fs::remove_all(f.path / "1.logs");
    const auto back = RecoveryCopy::open(f.path / "1");
    ASSERT_TRUE(back);
    ASSERT_EQ(back->notices.size(), 1U);
    EXPECT_NE(back->notices[0].find("7-may.csv"), std::string::npos);
}

TEST(RecoveryCopy, says_why_it_could_not_be_written)
{
    Folder f;
    std::ofstream(f.path / "file") << "not a folder";
    RecoveryCopy copy(f.path / "file" / "1");
    copy.write(with_log(), "");
    copy.wait();
    ASSERT_TRUE(copy.failure());
    EXPECT_FALSE(copy.failure()->text().empty());
}
