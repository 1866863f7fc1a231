#include "attachment.h"

#include <nettle/sha2.h>

#include <array>

namespace vernal {

std::string sha256_hex(const std::string& bytes)
{
    sha256_ctx context;
    sha256_init(&context);
    sha256_update(&context, bytes.size(), reinterpret_cast<const std::uint8_t*>(bytes.data()));
    std::array<std::uint8_t, SHA256_DIGEST_SIZE> digest{};
    sha256_digest(&context, digest.size(), digest.data());
    std::string out;
    for (std::uint8_t byte : digest) {
        out += "0123456789abcdef"[byte >> 4];
        out += "0123456789abcdef"[byte & 15];
    }
    return out;
}

Attachment make_attachment(const std::string& name, std::string bytes)
{
    std::string hash = sha256_hex(bytes);
    return {name.substr(name.find_last_of('/') + 1), std::move(hash), std::make_shared<const std::string>(std::move(bytes))};
}

void keep_attachment(Job& job, Attachment a)
{
    std::erase_if(job.attachments, [&](const Attachment& other) { return other.name == a.name; });
    job.attachments.push_back(std::move(a));
}

std::vector<std::string> fill_attachments(Job& job, const FindContent& find)
{
    std::vector<std::string> notices;
    std::map<std::string, std::shared_ptr<const std::string>> known;
    for (Attachment& a : job.attachments) {
        if (known.count(a.sha256) == 0) {
            auto content = find(a.sha256);
            known[a.sha256] = content && sha256_hex(*content) == a.sha256 ? std::make_shared<const std::string>(std::move(*content)) : nullptr;
        }
        a.bytes = known[a.sha256];
        if (!a.bytes)
            notices.push_back("The attachment “" + a.name + "” is missing or damaged; all else was read.");
    }
    return notices;
}

} // namespace vernal
