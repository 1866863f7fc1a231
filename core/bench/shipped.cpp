#include "procedure.h"
#include "shipped_text.h"

#include <cstdlib>

namespace vernal {

const std::vector<Procedure>& shipped_procedures()
{
    static const std::vector<Procedure> all = [] {
        std::vector<Procedure> out;
        for (const ShippedText& t : shipped_procedure_texts()) {
            auto p = read_procedure(t.text, t.file);
            if (!p)
                std::abort(); // a text of our own; a test reads each
            out.push_back(std::move(*p));
        }
        return out;
    }();
    return all;
}

} // namespace vernal
