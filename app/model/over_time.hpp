#pragma once
#include "model/frame_store.hpp"
#include "model/sheet.hpp"

#include <QObject>
#include <QTimer>

#include <array>
#include <map>
#include <string>
#include <utility>
#include <vector>

namespace kasuri::app {

/// The colours that pins have in each frame of the numbered sequence that their picture is one of, for the strips that
/// show them. Frames are read in the background, those in memory first; strips fill as they come.
class OverTime : public QObject {
    Q_OBJECT
public:
    OverTime(SheetModel& sheet, FrameStore& store, QObject* parent = nullptr);

    struct Row {
        PicturePtr colours;       ///< one row, a pixel for each frame; no number: it has not been read
        std::vector<int> numbers; ///< of the frames
        std::size_t read = 0;     ///< how many have been
        std::size_t at = 0;       ///< which of them the pin's picture is
    };
    /// Of a pin that some strip shows; no colours: its picture is none of a sequence.
    Row row(int pin) const;

signals:
    void changed();

private:
    /// A pin where it is, in a sequence as it is.
    struct Place {
        std::vector<std::string> files;
        std::string layer, space;
        QPoint pixel;
        friend bool operator==(const Place&, const Place&) = default;
    };
    struct Samples {
        Place place;
        std::vector<int> numbers;
        std::vector<std::array<float, 3>> colours;
        std::vector<char> known; ///< read, or cannot be read
        std::string colour_space;
        std::size_t at = 0;
    };
    void refresh();
    void take(const FrameFile& frame, const ImagePtr& image);
    void read_missing();

    SheetModel& sheet_;
    FrameStore& store_;
    std::map<int, Samples> samples_; ///< by pin
    QTimer pause_;                   ///< so that not every frame draws the sheet anew
};

} // namespace kasuri::app
