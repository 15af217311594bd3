#pragma once
#include "io/helper.hpp"

#include <functional>

namespace kasuri::io {

/// A picture file, or a frame of a movie (base/movie_name.hpp), that another process reads for us (io/helper.hpp).
class PictureSource {
public:
    static Result<PictureSource> open(const std::filesystem::path& path);
    ~PictureSource();
    PictureSource(PictureSource&&) noexcept = default;
    PictureSource& operator=(PictureSource&&) = delete;

    /// Of the part that is next to be read.
    const wire::Header& header() const { return header_; }
    /// Goes to a further part, or to another frame of a movie (from 0); false if there is none of that number.
    Result<bool> go_to(int part);
    /// What it takes beside the picture's own numbers to read the part, as bytes.
    double memory() const;
    /// The numbers of all channels of rows [first, last), pixel by pixel, band after band from the top.
    using Take = std::function<void(int first, int last, const float* interleaved)>;
    Status read(const Take& take);

private:
    PictureSource(HelperLease helper, wire::Header header, std::string where);
    HelperLease helper_;
    wire::Header header_;
    std::string where_;
    bool broken_ = false; ///< something went wrong, or is under way
};

/// Writes a picture file by another process, and reads it again there: what an exact kind of file does not give back as
/// it was given was not written; of others it must be a picture of that size. `headers`: one for each part of the file.
/// `fill`: puts the numbers of all channels of a part's rows [first, last) where it is told to. `where`: what errors
/// name.
Status write_picture(const std::filesystem::path& path, std::vector<wire::Header> headers, const std::string& where,
                     bool exact,
                     const std::function<void(std::size_t part, int first, int last, float* interleaved)>& fill);

} // namespace kasuri::io
