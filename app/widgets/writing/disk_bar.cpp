#include "widgets/writing/disk_bar.hpp"

#include "widgets/parts/theme.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace kasuri::app {

DiskBar::DiskBar(FileWatch& watch, QWidget* parent) : QWidget(parent) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(theme::margin, 6, theme::margin, 6);
    column->setSpacing(4);
    auto* words = new QLabel(tr("Somebody else has changed the file, in lines that you have changed too."), this);
    words->setWordWrap(true);
    words->setFont(theme::face(12.5, true));
    column->addWidget(words);
    auto* row = new QHBoxLayout;
    row->setSpacing(4);
    const auto way = [&](const char* name, const QString& text, const QString& tip, FileWatch::Way to) {
        auto* button = new QToolButton(this);
        button->setObjectName(name);
        button->setText(text);
        button->setToolTip(tip);
        button->setFont(theme::face(11.5));
        connect(button, &QToolButton::clicked, &watch, [&watch, to] { watch.choose(to); });
        row->addWidget(button);
    };
    way("merged", tr("both, mine where they meet"), tr("Their other changes come in"), FileWatch::Way::merged);
    way("mine", tr("mine"), tr("The text stays as it is"), FileWatch::Way::mine);
    way("theirs", tr("theirs"), tr("The text becomes the file's; undo brings yours back"), FileWatch::Way::theirs);
    row->addStretch(1);
    column->addLayout(row);
    connect(&watch, &FileWatch::clash_changed, this, [this, &watch] { setVisible(watch.clashes()); });
    setVisible(watch.clashes());
}

} // namespace kasuri::app
