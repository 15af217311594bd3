#include "widgets/frame/trace_window.hpp"

#include "widgets/parts/theme.hpp"

#include <QHeaderView>
#include <QTreeWidget>
#include <QVBoxLayout>

#include <cmath>

namespace kasuri::app {
namespace {
constexpr int begin_role = Qt::UserRole, end_role = Qt::UserRole + 1;
} // namespace

QString value_text(const engine::TraceNode& node) {
    QStringList numbers;
    for (const double x : node.value)
        numbers << (node.type == lang::bool_type ? (x != 0 ? QStringLiteral("true") : QStringLiteral("false"))
                        : std::isnan(x)          ? QStringLiteral("NaN")
                        : std::isinf(x)          ? QString(x > 0 ? "+" : "\u2212") + QString::fromUtf8("\u221e")
                        : x != 0 && (std::fabs(x) < 5e-4 || std::fabs(x) >= 1e5) ? QString::number(x, 'e', 2)
                                                                                 : theme::number(x));
    return numbers.join("  ");
}

TraceWindow::TraceWindow(QWidget* parent) : QWidget(parent, Qt::Window) {
    setAttribute(Qt::WA_DeleteOnClose);
    resize(560, 460);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    tree_ = new QTreeWidget(this);
    tree_->setAccessibleName(tr("Values of every part of the rule"));
    tree_->setFrameShape(QFrame::NoFrame);
    tree_->setHeaderLabels({tr("part of the rule"), tr("value")});
    tree_->header()->setStretchLastSection(true);
    tree_->setColumnWidth(0, 330);
    tree_->setFont(theme::mono(12));
    column->addWidget(tree_);
    connect(tree_, &QTreeWidget::currentItemChanged, this, [this](QTreeWidgetItem* item) {
        if (item)
            emit chosen(Span{item->data(0, begin_role).toUInt(), item->data(0, end_role).toUInt()});
    });
}

void TraceWindow::show_trace(const SheetResult& sheet, const QString& place) {
    setWindowTitle(tr("Trace at %1").arg(place));
    // What was open stays open while values move.
    std::vector<QTreeWidgetItem*> stack;
    const bool same = sheet.text == text_ && tree_->topLevelItemCount() > 0;
    std::vector<QTreeWidgetItem*> old;
    if (same)
        for (QTreeWidgetItemIterator at(tree_); *at; ++at)
            old.push_back(*at);
    if (same && old.size() == sheet.trace.size()) {
        for (std::size_t i = 0; i < old.size(); ++i)
            old[i]->setText(1,
                            value_text(sheet.trace[i]) + (sheet.trace[i].born ? tr("   \u2190 born here") : QString()));
    } else {
        const QSignalBlocker quiet(tree_);
        tree_->clear();
        text_ = sheet.text;
        for (const engine::TraceNode& node : sheet.trace) {
            stack.resize(static_cast<std::size_t>(node.depth));
            auto* item = stack.empty() ? new QTreeWidgetItem(tree_) : new QTreeWidgetItem(stack.back());
            const std::string_view part = text_of(sheet.text, node.span);
            item->setText(0, QString::fromUtf8(part.data(), static_cast<qsizetype>(part.size())).simplified());
            item->setText(1, value_text(node) + (node.born ? tr("   \u2190 born here") : QString()));
            item->setData(0, begin_role, node.span.begin);
            item->setData(0, end_role, node.span.end);
            stack.push_back(item);
        }
    }
    std::size_t i = 0;
    for (QTreeWidgetItemIterator at(tree_); *at && i < sheet.trace.size(); ++at, ++i) {
        const bool born = sheet.trace[i].born;
        (*at)->setForeground(1, born ? theme::bad : theme::text);
        if (born)
            for (QTreeWidgetItem* up = (*at)->parent(); up; up = up->parent())
                up->setExpanded(true);
    }
}

} // namespace kasuri::app
