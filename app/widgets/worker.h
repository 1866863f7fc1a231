// Work beside the window: in a thread of its own, its result taken in the window's.
#pragma once

#include <QObject>

#include <atomic>
#include <list>
#include <memory>
#include <thread>
#include <utility>

namespace vernal {

// A member of its owner, the last one: what still goes on ends before what it tells. Nobody
// waits for work that is no longer wanted but the end of the owner.
class Worker {
public:
    explicit Worker(QObject& owner) : owner_(owner) {}

    // work(stop_token) gives what take() gets. One under way is told to stop, and its result dropped.
    template <class Work, class Take>
    void run(Work work, Take take)
    {
        drop();
        runs_ = true;
        Task task{{}, std::make_shared<std::atomic<bool>>(false)};
        task.thread = std::jthread([this, id = latest_, work = std::move(work), take = std::move(take), done = task.done](const std::stop_token& stop) {
            auto result = std::make_shared<decltype(work(stop))>(work(stop));
            tell([this, id, take, result] {
                if (id != latest_)
                    return;
                runs_ = false;
                take(std::move(*result));
            });
            done->store(true);
        });
        tasks_.push_back(std::move(task));
    }
    void stop() // the one under way; what it has by then is taken
    {
        if (!tasks_.empty())
            tasks_.back().thread.request_stop();
    }
    void drop() // likewise, and its result is not wanted
    {
        tasks_.remove_if([](const Task& t) { return t.done->load(); });
        for (Task& t : tasks_)
            t.thread.request_stop();
        ++latest_;
        runs_ = false;
    }
    bool runs() const { return runs_; }

    // From within the work: done in the window's thread.
    template <class What>
    void tell(What what)
    {
        QMetaObject::invokeMethod(&owner_, std::move(what), Qt::QueuedConnection);
    }

private:
    struct Task {
        std::jthread thread;
        std::shared_ptr<std::atomic<bool>> done;
    };
    QObject& owner_;
    quint64 latest_ = 0; // of the window's thread, as is runs_
    bool runs_ = false;
    std::list<Task> tasks_;
};

} // namespace vernal
