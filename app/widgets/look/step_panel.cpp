#include "widgets/look/step_panel.hpp"

#include "widgets/look/look_actions.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/theme.hpp"

#include <QAbstractTextDocumentLayout>
#include <QCheckBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QMenu>
#include <QPlainTextEdit>
#include <QTextBlock>
#include <QTextLayout>
#include <QtMath>
#include <QToolButton>

#include <algorithm>

namespace kasuri::app {
namespace {

constexpr int max_lines = 4;
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
    auto* see = button(tr("see the mask"), tr("Show the mask in the current cell, or the picture again"));
    see->setObjectName("see_mask");
    connect(see, &QToolButton::clicked, this, &StepPanel::mask_shown);
    heading_->add_control(see);
    column->addWidget(heading_);
    auto* below = new QWidget(this);
    auto* body = new QVBoxLayout(below);
    body->setContentsMargins(theme::margin, 6, theme::margin, 8);
    body->setSpacing(4);
    column->addWidget(below);
    heading_->fold(below, "step");
    body->addLayout(blend_row());
    make_space();
    body->addWidget(space_, 0, Qt::AlignLeft);
    body->addLayout(mask_row());
    body->addLayout(shape_row());
    fault_ = new QLabel(this);
    fault_->setWordWrap(true);
    fault_->setFont(theme::face(11.5));
    theme::tint(fault_, theme::bad);
    fault_->hide();
    body->addWidget(fault_);
    connect(&look_, &LookModel::changed, this, &StepPanel::refresh);
    refresh();
    fit_mask();
}

NumberField* StepPanel::field(double low, double high, double step, const QString& name,
                              void (LookModel::*set)(int, double), double usual) {
    auto* made = new NumberField(this);
    made->set_range(low, high, step);
    made->setAccessibleName(name);
    connect(made, &NumberField::value_edited, this,
            [this, set](double value) { (look_.*set)(look_.current(), value); });
    connect(made, &NumberField::reset_wanted, this, [this, set, usual] { (look_.*set)(look_.current(), usual); });
    return made;
}

QToolButton* StepPanel::button(const QString& text, const QString& tip) {
    auto* made = new QToolButton(this);
    made->setText(text);
    made->setFont(theme::face(11.5));
    made->setToolTip(tip);
    return made;
}

QToolButton* StepPanel::menu_button(const QString& text, const QString& tip, void (StepPanel::*fill)(QMenu& menu)) {
    QToolButton* made = button(text, tip);
    made->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(made);
    made->setMenu(menu);
    connect(menu, &QMenu::aboutToShow, this, [this, menu, fill] {
        menu->clear();
        (this->*fill)(*menu);
    });
    return made;
}

QHBoxLayout* StepPanel::blend_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    opacity_ = field(0, 1, 0.01, tr("Opacity of the step"), &LookModel::set_opacity, 1);
    opacity_->setObjectName("opacity");
    blend_ = menu_button({}, tr("How the step is laid over what comes into it"), &StepPanel::fill_blends);
    blend_->setObjectName("blend");
    row->addWidget(new QLabel(tr("opacity"), this));
    row->addWidget(opacity_);
    row->addSpacing(8);
    row->addWidget(new QLabel(tr("blend"), this));
    row->addWidget(blend_);
    row->addStretch(1);
    return row;
}

void StepPanel::make_space() {
    space_ = menu_button({}, tr("What the numbers of the LUT mean"), &StepPanel::fill_spaces);
    space_->setObjectName("lut_space");
}

QHBoxLayout* StepPanel::mask_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    mask_ = new QPlainTextEdit(this);
    mask_->setObjectName("mask");
    mask_->setFont(theme::mono(11.5));
    mask_->setPlaceholderText(tr("mask: everywhere"));
    mask_->setAccessibleName(tr("Mask: an expression of what comes into the step"));
    mask_->setTabChangesFocus(true);
    mask_->setUndoRedoEnabled(false); // undo is the bench's
    mask_->installEventFilter(this);
    mask_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(mask_, &QPlainTextEdit::textChanged, this, [this] {
        if (!refreshing_)
            look_.set_mask(look_.current(), mask_->toPlainText().trimmed().toStdString());
    });
    connect(mask_->document()->documentLayout(), &QAbstractTextDocumentLayout::documentSizeChanged, this,
            &StepPanel::fit_mask,
            Qt::QueuedConnection); // also when a narrower column wraps it: in the middle of laying out
    auto* from = menu_button(tr("mask") + " \u25be", tr("Masks to begin with"), &StepPanel::fill_masks);
    from->setObjectName("masks");
    row->addWidget(mask_, 1);
    row->addWidget(from, 0, Qt::AlignTop);
    return row;
}

QHBoxLayout* StepPanel::shape_row() {
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    grow_ = field(-document::max_mask_pixels, document::max_mask_pixels, usual_step_pixels,
                  tr("Pixels by which the mask grows; below 0 it shrinks"), &LookModel::set_mask_grow, 0);
    grow_->setObjectName("grow");
    soften_ = field(0, document::max_mask_pixels, usual_step_pixels, tr("Pixels by which the mask is softened"),
                    &LookModel::set_mask_soften, 0);
    soften_->setObjectName("soften");
    inverted_ = new QCheckBox(tr("inverted"), this);
    connect(inverted_, &QCheckBox::toggled, this, [this](bool on) {
        if (!refreshing_)
            look_.set_mask_inverted(look_.current(), on);
    });
    row->addWidget(new QLabel(tr("grow"), this));
    row->addWidget(grow_);
    row->addWidget(new QLabel(tr("soften"), this));
    row->addWidget(soften_);
    row->addWidget(inverted_);
    row->addStretch(1);
    return row;
}

/// As high as the lines that are seen, wrapped ones included.
void StepPanel::fit_mask() {
    const int lines = std::clamp(qRound(mask_->document()->size().height()), 1, max_lines);
    const QTextBlock block = mask_->document()->firstBlock();
    const double line =
        block.layout()->lineCount() > 0 ? block.layout()->lineAt(0).height() : QFontMetricsF(mask_->font()).height();
    const int around = qCeil(2 * mask_->document()->documentMargin()) + 2 * mask_->frameWidth();
    mask_->setFixedHeight(qCeil(lines * line) + around);
}

void StepPanel::fill_blends(QMenu& menu) {
    LookActions::fill_blends(menu, look_.step().blend,
                             [this](const std::string& mode) { look_.set_blend(look_.current(), mode); });
}

void StepPanel::fill_spaces(QMenu& menu) {
    add_spaces(menu, look_.step().space, [this](const std::string& space) { look_.set_space(look_.current(), space); });
    menu.addSeparator();
    for (const bool trilinear : {false, true}) {
        QAction* action = menu.addAction(trilinear ? tr("Read trilinearly between its points")
                                                   : tr("Read tetrahedrally between its points"),
                                         this, [this, trilinear] { look_.set_trilinear(look_.current(), trilinear); });
        action->setCheckable(true);
        action->setChecked(look_.step().trilinear == trilinear);
    }
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
    space_->setText((step.trilinear ? tr("the LUT's numbers are %1, read trilinearly")
                                    : tr("the LUT's numbers are %1, read tetrahedrally"))
                        .arg(QString::fromStdString(step.space)) +
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
