// What OpenEXR asks zlib for, a block at a time in memory, is done by libdeflate: the same format (RFC 1950), in less
// than half of the time (docs/performance.md, docs/decisions/0060). A program's own functions come before those of its
// shared libraries, so that OpenEXR finds these; what streams (PNG) goes on using zlib.
#include <libdeflate.h>
#include <memory>
#include <zlib.h>

namespace {

struct Free {
    void operator()(libdeflate_compressor* it) const { libdeflate_free_compressor(it); }
    void operator()(libdeflate_decompressor* it) const { libdeflate_free_decompressor(it); }
};

/// One for a thread and level: making one takes as long as a small block.
libdeflate_compressor* compressor(int level) {
    thread_local std::unique_ptr<libdeflate_compressor, Free> kept;
    thread_local int of = -1;
    if (!kept || of != level)
        kept.reset(libdeflate_alloc_compressor(of = level));
    return kept.get();
}

libdeflate_decompressor* decompressor() {
    thread_local const std::unique_ptr<libdeflate_decompressor, Free> kept(libdeflate_alloc_decompressor());
    return kept.get();
}

} // namespace

extern "C" {

[[gnu::visibility("default")]] int compress2(Bytef* to, uLongf* size, const Bytef* from, uLong count, int level) {
    if (level < Z_DEFAULT_COMPRESSION || level > Z_BEST_COMPRESSION)
        return Z_STREAM_ERROR;
    libdeflate_compressor* const by = compressor(level == Z_DEFAULT_COMPRESSION ? 6 : level);
    if (!by)
        return Z_MEM_ERROR;
    const std::size_t made = libdeflate_zlib_compress(by, from, count, to, *size);
    if (made == 0)
        return Z_BUF_ERROR;
    *size = made;
    return Z_OK;
}

[[gnu::visibility("default")]] int compress(Bytef* to, uLongf* size, const Bytef* from, uLong count) {
    return compress2(to, size, from, count, Z_DEFAULT_COMPRESSION);
}

[[gnu::visibility("default")]] int uncompress(Bytef* to, uLongf* size, const Bytef* from, uLong count) {
    libdeflate_decompressor* const by = decompressor();
    if (!by)
        return Z_MEM_ERROR;
    std::size_t read = 0, made = 0;
    switch (libdeflate_zlib_decompress_ex(by, from, count, to, *size, &read, &made)) {
    case LIBDEFLATE_SUCCESS: *size = made; return Z_OK;
    case LIBDEFLATE_INSUFFICIENT_SPACE: return Z_BUF_ERROR;
    default: return Z_DATA_ERROR;
    }
}

} // extern "C"
