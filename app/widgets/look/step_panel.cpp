#include "widgets/look/step_panel.hpp"

#include "widgets/look/look_actions.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QCheckBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QPlainTextEdit>
#include <QToolButton>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr int most_lines = 4;
constexpr double usual_step_pixels = 0.1;

/// Row: a mask that is offered. Numbers are common practice, no source; they are there to be changed.
struct MaskRow {
    const char* title;
    const char* text;
};
constexpr MaskRow zones[] = {
    {QT_TRANSLATE_NOOP("Masks", "Shadows"), "zones(lab(rgb).l, 33.0, 66.0, 25.0).x"},
    {QT_TRANSLATE_NOOP("Masks", "Middle tones"), "zones(lab(rgb).l, 33.0, 66.0, 25.0).y"},
    {QT_TRANSLATE_NOOP("Masks", "Highlights"), "zones(lab(rgb).l, 33.0, 66.0, 25.0).z"},
};
constexpr MaskRow hues[] = {
    {QT_TRANSLATE_NOOP("Masks", "Reds"), "band(hsv(rgb).h, 0.0, 60.0, 30.0)"},
    {QT_TRANSLATE_NOOP("Masks", "Yellows"), "band(hsv(rgb).h, 60.0, 60.0, 30.0)"},
    {QT_TRANSLATE_NOOP("Masks", "Greens"), "band(hsv(rgb).h, 120.0, 60.0, 30.0)"},
    {QT_TRANSLATE_NOOP("Masks", "Cyans"), "band(hsv(rgb).h, 180.0, 60.0, 30.0)"},
    {QT_TRANSLATE_NOOP("Masks", "Blues"), "band(hsv(rgb).h, 240.0, 60.0, 30.0)"},
    {QT_TRANSLATE_NOOP("Masks", "Magentas"), "band(hsv(rgb).h, 300.0, 60.0, 30.0)"},
};
constexpr MaskRow others[] = {
    {QT_TRANSLATE_NOOP("Masks", "What is saturated"), "smoothstep(0.15, 0.5, hsv(rgb).s)"},
    {QT_TRANSLATE_NOOP("Masks", "What is near a colour"),
     "1.0 - smoothstep(8.0, 24.0, delta_e_2000(rgb, vec3(0.72, 0.49, 0.4)))"},
    {QT_TRANSLATE_NOOP("Masks", "A disc"), "disc(vec2(pos.x * aspect, pos.y), vec2(0.5 * aspect, 0.5), 0.35, 0.3)"},
    {QT_TRANSLATE_NOOP("Masks", "From top to bottom"), "gradient(pos, vec2(0.5, 0.0), vec2(0.5, 1.0))"},
    {QT_TRANSLATE_NOOP("Masks", "The picture's alpha"), "a"},
    {QT_TRANSLATE_NOOP("Masks", "Another picture (give it below)"), "source mask : float\nmask"},
};

/// Makes a menu entry fit to be a name of the language.
bool is_name(const QString& text) {
    if (text.isEmpty() || text[0].isDigit())
        return false;
    return std::all_of(text.begin(), text.end(), [](QChar c) { return c.isLetterOrNumber() || c == '_'; });
}

} // namespace

StepPanel::StepPanel(LookModel& look, SheetModel& sheet, QWidget* parent)
    : QWidget(parent), look_(look), sheet_(sheet) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    heading_ = new Heading(tr("Step"), this);
    column->addWidget(heading_);
    auto* body = new QVBoxLayout;
    body->setContentsMargins(theme::margin, 6, theme::margin, 8);
    body->setSpacing(4);
    column->addLayout(body);
    const auto field = [this](double low, double high, double step, const QString& name) {
        auto* made = new NumberField(this);
        made->set_range(low, high, step);
        made->setAccessibleName(name);
        return made;
    };
    const auto button = [this](const QString& text, const QString& tip) {
        auto* made = new QToolButton(this);
        made->setText(text);
        made->setFont(theme::face(11.5));
        made->setToolTip(tip);
        return made;
    };
    auto* first = new QHBoxLayout;
    first->setSpacing(8);
    opacity_ = field(0, 1, 0.01, tr("Opacity of the step"));
    opacity_->setObjectName("opacity");
    blend_ = button({}, tr("How the step is laid over what comes into it"));
    blend_->setObjectName("blend");
    blend_->setPopupMode(QToolButton::InstantPopup);
    auto* blends = new QMenu(blend_);
    blend_->setMenu(blends);
    connect(blends, &QMenu::aboutToShow, this, [this, blends] {
        blends->clear();
        LookActions::fill_blends(*blends, look_.step().blend,
                                 [this](const std::string& mode) { look_.set_blend(look_.current(), mode); });
    });
    first->addWidget(new QLabel(tr("opacity"), this));
    first->addWidget(opacity_);
    first->addSpacing(8);
    first->addWidget(new QLabel(tr("blend"), this));
    first->addWidget(blend_);
    first->addStretch(1);
    auto* see = button(tr("see the mask"), tr("Show the mask in the cell in hand, or the picture again"));
    see->setObjectName("see_mask");
    connect(see, &QToolButton::clicked, this, &StepPanel::mask_shown);
    first->addWidget(see);
    body->addLayout(first);
    space_ = button({}, tr("What the numbers of the LUT mean"));
    space_->setObjectName("lut_space");
    space_->setPopupMode(QToolButton::InstantPopup);
    auto* spaces = new QMenu(space_);
    space_->setMenu(spaces);
    connect(spaces, &QMenu::aboutToShow, this, [this, spaces] {
        spaces->clear();
        add_spaces(*spaces, look_.step().space,
                   [this](const std::string& space) { look_.set_space(look_.current(), space); });
    });
    body->addWidget(space_, 0, Qt::AlignLeft);
    auto* second = new QHBoxLayout;
    second->setSpacing(8);
    mask_ = new QPlainTextEdit(this);
    mask_->setObjectName("mask");
    mask_->setFont(theme::mono(11.5));
    mask_->setPlaceholderText(tr("mask: everywhere"));
    mask_->setAccessibleName(tr("Mask: an expression of what comes into the step"));
    mask_->setTabChangesFocus(true);
    mask_->setUndoRedoEnabled(false); // undo is the bench's
    mask_->installEventFilter(this);
    mask_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* from = button(tr("mask") + " \u25be", tr("Masks to begin with"));
    from->setObjectName("masks");
    from->setPopupMode(QToolButton::InstantPopup);
    auto* masks = new QMenu(from);
    from->setMenu(masks);
    connect(masks, &QMenu::aboutToShow, this, [this, masks] { fill_masks(*masks); });
    second->addWidget(mask_, 1);
    second->addWidget(from, 0, Qt::AlignTop);
    body->addLayout(second);
    auto* third = new QHBoxLayout;
    third->setSpacing(8);
    grow_ = field(-document::most_mask_pixels, document::most_mask_pixels, usual_step_pixels,
                  tr("Pixels by which the mask grows; below 0 it shrinks"));
    grow_->setObjectName("grow");
    soften_ = field(0, document::most_mask_pixels, usual_step_pixels, tr("Pixels by which the mask is softened"));
    soften_->setObjectName("soften");
    inverted_ = new QCheckBox(tr("inverted"), this);
    third->addWidget(new QLabel(tr("grow"), this));
    third->addWidget(grow_);
    third->addWidget(new QLabel(tr("soften"), this));
    third->addWidget(soften_);
    third->addWidget(inverted_);
    third->addStretch(1);
    body->addLayout(third);
    fault_ = new QLabel(this);
    fault_->setWordWrap(true);
    fault_->setFont(theme::face(11.5));
    theme::tint(fault_, theme::bad);
    fault_->hide();
    body->addWidget(fault_);
    connect(opacity_, &NumberField::value_edited, this,
            [this](double value) { look_.set_opacity(look_.current(), value); });
    connect(opacity_, &NumberField::reset_wanted, this, [this] { look_.set_opacity(look_.current(), 1); });
    connect(grow_, &NumberField::value_edited, this,
            [this](double value) { look_.set_mask_grow(look_.current(), value); });
    connect(grow_, &NumberField::reset_wanted, this, [this] { look_.set_mask_grow(look_.current(), 0); });
    connect(soften_, &NumberField::value_edited, this,
            [this](double value) { look_.set_mask_soften(look_.current(), value); });
    connect(soften_, &NumberField::reset_wanted, this, [this] { look_.set_mask_soften(look_.current(), 0); });
    connect(inverted_, &QCheckBox::toggled, this, [this](bool on) {
        if (!refreshing_)
            look_.set_mask_inverted(look_.current(), on);
    });
    connect(mask_, &QPlainTextEdit::textChanged, this, [this] {
        if (!refreshing_)
            look_.set_mask(look_.current(), mask_->toPlainText().trimmed().toStdString());
        const int lines = std::clamp(mask_->document()->lineCount(), 1, most_lines);
        mask_->setFixedHeight(lines * mask_->fontMetrics().lineSpacing() + 12);
    });
    connect(&look_, &LookModel::changed, this, &StepPanel::refresh);
    refresh();
    mask_->setFixedHeight(mask_->fontMetrics().lineSpacing() + 12);
}

bool StepPanel::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->matches(QKeySequence::Undo) || key->matches(QKeySequence::Redo) ||
            (key->key() == Qt::Key_Z && key->modifiers() & Qt::ControlModifier)) {
            event->ignore(); // it is the window's
            return true;
        }
    }
    return QWidget::eventFilter(object, event);
}

void StepPanel::set_fault(const QString& fault) {
    fault_->setText(fault);
    fault_->setVisible(!fault.isEmpty());
}

void StepPanel::fill_masks(QMenu& menu) {
    menu.clear();
    const auto choose = [this](const QString& text) { mask_->setPlainText(text); };
    const auto add = [&](QMenu& to, const MaskRow& row) {
        to.addAction(QCoreApplication::translate("Masks", row.title), this,
                     [choose, &row] { choose(QString::fromUtf8(row.text)); });
    };
    for (const MaskRow& row : zones)
        add(menu, row);
    QMenu* of_hue = menu.addMenu(tr("A band of hue"));
    for (const MaskRow& row : hues)
        add(*of_hue, row);
    for (const MaskRow& row : others)
        add(menu, row);
    QStringList layers;
    for (const Cell& cell : sheet_.cells())
        for (const QString& layer : sheet_.layers_of(cell))
            if (is_name(layer) && !layers.contains(layer))
                layers << layer;
    if (!layers.isEmpty()) {
        QMenu* of_layer = menu.addMenu(tr("Alpha of a layer"));
        for (const QString& layer : layers)
            of_layer->addAction(layer, this,
                                [choose, layer] { choose(QStringLiteral("source %1 : vec4\n%1.a").arg(layer)); });
    }
    menu.addSeparator();
    menu.addAction(tr("Everywhere"), this, [choose] { choose({}); });
}

void StepPanel::refresh() {
    refreshing_ = true;
    const document::LookStep& step = look_.step();
    heading_->set_detail(tr("%1 of %2").arg(look_.current() + 1).arg(look_.count()));
    opacity_->set_value(step.opacity);
    blend_->setText(QString::fromStdString(step.blend).replace('_', ' ') + QString::fromUtf8(" \u25be"));
    if (mask_->toPlainText().trimmed().toStdString() != step.mask)
        mask_->setPlainText(QString::fromStdString(step.mask));
    space_->setVisible(!step.lut.empty());
    space_->setText(tr("the LUT's numbers are %1").arg(QString::fromStdString(step.space)) +
                    QString::fromUtf8(" \u25be"));
    grow_->set_value(step.mask_grow);
    soften_->set_value(step.mask_soften);
    inverted_->setChecked(step.mask_inverted);
    for (QWidget* widget :
         {static_cast<QWidget*>(grow_), static_cast<QWidget*>(soften_), static_cast<QWidget*>(inverted_)})
        widget->setEnabled(!step.mask.empty());
    refreshing_ = false;
}

} // namespace kasuri::app
