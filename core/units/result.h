// A value or a reason why there is none. Errors are values, never silent clamps.
#pragma once

#include <string>
#include <utility>
#include <variant>

namespace vernal {

// What went wrong, where, and what to do about it; each a plain sentence or a
// place such as "day.csv, line 7, column 3". Where and remedy may be empty.
struct Error {
    std::string what;
    std::string where;
    std::string remedy;
    std::string text() const
    {
        std::string out = where.empty() ? what : where + ": " + what;
        if (!remedy.empty())
            out += ". " + remedy;
        return out;
    }
};

template <class T>
class Result {
public:
    Result(T value) : v_(std::in_place_index<0>, std::move(value)) {}
    Result(Error error) : v_(std::in_place_index<1>, std::move(error)) {}
    explicit operator bool() const { return v_.index() == 0; }
    const T& operator*() const& { return std::get<0>(v_); }
    T& operator*() & { return std::get<0>(v_); }
    T&& operator*() && { return std::get<0>(std::move(v_)); }
    const T* operator->() const { return &std::get<0>(v_); }
    T* operator->() { return &std::get<0>(v_); }
    const Error& error() const { return std::get<1>(v_); }

private:
    std::variant<T, Error> v_;
};

} // namespace vernal
