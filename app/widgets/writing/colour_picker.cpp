#include "widgets/writing/colour_picker.hpp"

#include "colour/space.hpp"
#include "engine/lower.hpp"
#include "model/display.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QToolButton>
#include <QVBoxLayout>

#include <utility>

namespace kasuri::app {
namespace {
constexpr int swatch = 44;
constexpr double most = 1000;
} // namespace

ColourPicker::ColourPicker(RuleEditor& editor, Session& session)
    : QFrame(editor.window()), editor_(editor), viewport_(editor.viewport()), session_(session) {
    setFrameShape(QFrame::Box);
    setAutoFillBackground(true);
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Colour in the rule"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(10 + swatch + 10, 8, 10, 8);
    rows->setSpacing(5);
    auto* numbers = new QHBoxLayout;
    numbers->setSpacing(6);
    for (std::size_t i = 0; i < 3; ++i) {
        numbers->addWidget(quiet_label(QString::fromUtf8(theme::letters[i]), this));
        fields_[i] = new NumberField(this);
        fields_[i]->set_range(-most, most, 0.01);
        fields_[i]->setAccessibleName(QString::fromUtf8(theme::letters[i]));
        fields_[i]->setFixedWidth(64);
        connect(fields_[i], &NumberField::value_edited, this, [this] {
            write({fields_[0]->value(), fields_[1]->value(), fields_[2]->value()});
        });
        numbers->addWidget(fields_[i]);
    }
    rows->addLayout(numbers);
    auto* from = new QHBoxLayout;
    from->setSpacing(6);
    from_sheet_ = new QToolButton(this);
    from_sheet_->setText(tr("take from the sheet"));
    from_sheet_->setToolTip(tr("The next click on a cell or a strip: what the picture has there before the rule"));
    connect(from_sheet_, &QToolButton::clicked, this, [this] {
        picking_ = true;
        emit said(tr("Click on a cell or a strip: its colour before the rule is taken. Escape leaves it."), false);
        emit pick_wanted();
    });
    from_pin_ = new QToolButton(this);
    from_pin_->setText(tr("pin ") + QString::fromUtf8("\u25be"));
    from_pin_->setPopupMode(QToolButton::InstantPopup);
    from_pin_->setMenu(new QMenu(from_pin_));
    connect(from_pin_->menu(), &QMenu::aboutToShow, this, &ColourPicker::fill_pins);
    space_ = quiet_label({}, this, 11.5);
    for (QWidget* each : std::initializer_list<QWidget*>{from_sheet_, from_pin_, space_}) {
        each->setFont(theme::face(11.5));
        each->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
        from->addWidget(each);
    }
    from->addStretch(1);
    rows->addLayout(from);
    connect(&session_, &Session::text_changed, this, &ColourPicker::refresh);
    editor_.viewport()->installEventFilter(this);
    hide();
}

std::string ColourPicker::working() const {
    return std::string(session_.rule() ? engine::working_space(*session_.rule()) : colour::default_space);
}

std::optional<document::ColourPlace> ColourPicker::place() const { return document::colour_at(session_.text(), at_); }

void ColourPicker::open(std::size_t at) {
    at_ = at;
    const auto found = place();
    if (!found)
        return emit said(tr("Put the caret into a colour of three numbers, such as vec3(0.72, 0.49, 0.4)."), true);
    at_ = found->span.begin;
    ++opened_;
    picking_ = false;
    const auto end = static_cast<long>(found->span.end);
    const QPoint below(static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTXFROMPOSITION, 0, end)),
                       static_cast<int>(editor_.SendScintilla(QsciScintillaBase::SCI_POINTYFROMPOSITION, 0, end) +
                                        editor_.SendScintilla(QsciScintillaBase::SCI_TEXTHEIGHT, 0)) +
                           4);
    space_->setText(QString::fromStdString(working()));
    ensurePolished();
    layout()->activate();
    resize(sizeHint());
    QPoint corner = editor_.viewport()->mapTo(editor_.window(), below) - QPoint(width() / 2, 0);
    corner.setX(std::clamp(corner.x(), 4, std::max(4, editor_.window()->width() - width() - 4)));
    corner.setY(std::min(corner.y(), editor_.window()->height() - height() - 4));
    move(corner);
    show();
    raise();
    refresh();
    fields_[0]->setFocus();
}

void ColourPicker::refresh() {
    if (!isVisible())
        return;
    const auto found = place();
    if (!found)
        return hide(); // the text has become another
    for (std::size_t i = 0; i < 3; ++i)
        if (fields_[i]->value() != found->values[i])
            fields_[i]->set_value(found->values[i]);
    space_->setText(QString::fromStdString(working()));
    update();
}

void ColourPicker::write(const std::array<double, 3>& values) {
    if (const auto found = place())
        session_.apply_edit(document::with_colour(session_.text(), *found, values), tr("colour"),
                            QString("colour %1").arg(opened_));
}

void ColourPicker::take(const Readout& readout) {
    picking_ = false;
    if (!readout.valid || !isVisible())
        return;
    const colour::Space* from = colour::find_space(readout.space);
    const colour::Triple stored = {static_cast<double>(readout.before[0]), static_cast<double>(readout.before[1]),
                                   static_cast<double>(readout.before[2])};
    write(from ? colour::converted(stored, *from, *colour::find_space(working())) : stored);
}

void ColourPicker::fill_pins() {
    QMenu& menu = *from_pin_->menu();
    menu.clear();
    for (const PinReadout& pin : pins_) {
        if (!pin.readout.valid)
            continue;
        menu.addAction(tr("pin %1, before").arg(pin.number), this, [this, pin] { take(pin.readout); });
        Readout after = pin.readout;
        after.before = after.after;
        menu.addAction(tr("pin %1, after").arg(pin.number), this, [this, after] { take(after); });
    }
    if (menu.isEmpty())
        menu.addAction(tr("There is no pin: click on the sheet with Ctrl"))->setEnabled(false);
}

bool ColourPicker::eventFilter(QObject* object, QEvent* event) {
    // A click into the text closes it; a click on the sheet while picking is the sheet's.
    if (event->type() == QEvent::MouseButtonPress && isVisible() && object == viewport_)
        hide();
    return QFrame::eventFilter(object, event);
}

void ColourPicker::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) {
        hide();
        editor_.setFocus();
    } else {
        QFrame::keyPressEvent(event);
    }
}

void ColourPicker::paintEvent(QPaintEvent* event) {
    QFrame::paintEvent(event);
    QPainter painter(this);
    painter.fillRect(QRect(10, 10, swatch, height() - 20),
                     colour_on_screen({fields_[0]->value(), fields_[1]->value(), fields_[2]->value()}, working()));
}

} // namespace kasuri::app
