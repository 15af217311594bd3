#include "widgets/tuning/value_editor.hpp"

#include "widgets/parts/number_field.hpp"
#include "widgets/parts/range_bar.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QSignalBlocker>

#include <cmath>

namespace kasuri::app {
namespace {

QHBoxLayout* line_of(QWidget* widget) {
    auto* line = new QHBoxLayout(widget);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(8);
    return line;
}

class NumberEditor : public ValueEditor {
public:
    NumberEditor(const lang::Parameter& p, QWidget* parent)
        : ValueEditor(parent), field_(new NumberField(this)), bar_(new RangeBar(this)) {
        const QString name = QString::fromStdString(p.name);
        field_->set_range(p.low, p.high, p.step, p.kind == lang::ParameterKind::whole);
        field_->setAccessibleName(name);
        bar_->set_range(p.low, p.high, p.value);
        bar_->setAccessibleName(ValueEditor::tr("Range of %1").arg(name));
        QHBoxLayout* line = line_of(this);
        line->addWidget(field_);
        line->addWidget(bar_, 1);
        connect(field_, &NumberField::value_edited, this, &ValueEditor::value_edited);
        connect(bar_, &RangeBar::value_edited, this, &ValueEditor::value_edited);
        connect(field_, &NumberField::reset_wanted, this, &ValueEditor::reset_wanted);
        setFocusProxy(field_);
    }
    void set_value(double value) override {
        field_->set_value(value);
        bar_->set_value(value);
    }
    NumberField* field() const override { return field_; }

private:
    NumberField* field_;
    RangeBar* bar_;
};

/// What is not typed is reset with Backspace, as a number is.
class ResetKey : public QObject {
public:
    explicit ResetKey(ValueEditor* editor) : QObject(editor), editor_(editor) {}
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (event->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(event)->key() == Qt::Key_Backspace) {
            emit editor_->reset_wanted();
            return true;
        }
        return QObject::eventFilter(watched, event);
    }

private:
    ValueEditor* editor_;
};

class ToggleEditor : public ValueEditor {
public:
    ToggleEditor(const lang::Parameter& p, QWidget* parent) : ValueEditor(parent), box_(new QCheckBox(this)) {
        box_->setAccessibleName(QString::fromStdString(p.name));
        QHBoxLayout* line = line_of(this);
        line->addWidget(box_);
        line->addStretch(1);
        box_->installEventFilter(new ResetKey(this));
        connect(box_, &QCheckBox::toggled, this, [this](bool on) {
            box_->setText(on ? ValueEditor::tr("on") : ValueEditor::tr("off"));
            emit value_edited(on ? 1 : 0);
        });
        setFocusProxy(box_);
    }
    void set_value(double value) override {
        const QSignalBlocker quiet(box_);
        box_->setChecked(value != 0);
        box_->setText(value != 0 ? ValueEditor::tr("on") : ValueEditor::tr("off"));
    }

private:
    QCheckBox* box_;
};

/// The flat list of the window's style has no arrow of its own: the small triangle that its other menus have.
class FlatList : public QComboBox {
public:
    using QComboBox::QComboBox;

protected:
    void paintEvent(QPaintEvent* event) override {
        QComboBox::paintEvent(event);
        QPainter painter(this);
        painter.setPen(palette().color(QPalette::Text));
        painter.drawText(rect().adjusted(0, 0, -6, 0), Qt::AlignRight | Qt::AlignVCenter, QStringLiteral("\u25be"));
    }
    QSize sizeHint() const override { return QComboBox::sizeHint() + QSize(14, 0); }
};

class ChoiceEditor : public ValueEditor {
public:
    ChoiceEditor(const lang::Parameter& p, QWidget* parent) : ValueEditor(parent), list_(new FlatList(this)) {
        list_->setAccessibleName(QString::fromStdString(p.name));
        for (const std::string& option : p.options)
            list_->addItem(QString::fromStdString(option));
        QHBoxLayout* line = line_of(this);
        line->addWidget(list_);
        line->addStretch(1);
        list_->installEventFilter(new ResetKey(this));
        connect(list_, &QComboBox::currentIndexChanged, this, [this](int index) { emit value_edited(index); });
        setFocusProxy(list_);
    }
    void set_value(double value) override {
        const QSignalBlocker quiet(list_);
        list_->setCurrentIndex(static_cast<int>(std::lround(value)));
    }

private:
    FlatList* list_;
};

} // namespace

ValueEditor* make_value_editor(const lang::Parameter& parameter, QWidget* parent) {
    switch (parameter.kind) {
    case lang::ParameterKind::toggle: return new ToggleEditor(parameter, parent);
    case lang::ParameterKind::choice: return new ChoiceEditor(parameter, parent);
    case lang::ParameterKind::number:
    case lang::ParameterKind::whole:
    case lang::ParameterKind::colour: break;
    }
    return new NumberEditor(parameter, parent);
}

} // namespace kasuri::app
