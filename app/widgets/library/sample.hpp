#pragma once
#include "model/sheet.hpp"

namespace kasuri::app {

class LibraryModel;

/// What the thumbnails of the library are made of: the picture or target of a cell, at the size of a thumbnail.
class LibrarySample {
public:
    /// Gives the cell's picture to the library, unless it has it already or the picture is being read.
    void show(const Cell& cell, const SheetModel& sheet, LibraryModel& library);

private:
    struct Of {
        PicturePtr picture;
        const targets::Target* target = nullptr;
        std::vector<double> settings;
        Screen screen;
        friend bool operator==(const Of&, const Of&) = default;
    };
    Of shown_;
};

} // namespace kasuri::app
