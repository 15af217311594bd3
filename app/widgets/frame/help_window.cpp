#include "widgets/frame/help_window.hpp"

#include "widgets/frame/actions.hpp"
#include "widgets/parts/theme.hpp"

#include <QCoreApplication>
#include <QFile>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QTextBrowser>
#include <QTextFrame>
#include <QTextTable>
#include <QVBoxLayout>

namespace kasuri::app {
namespace {

constexpr int list_width = 260, max_found = 60;
/// In the order in which one would read them.
constexpr const char* order[] = {"first-minute", "sheet",    "writing", "looks",        "fitting", "inverse",
                                 "language",     "builtins", "colour",  "errors",       "editors", "python",
                                 "embedding",    "shaders",  "json",    "build-server", "farm"};

/// The keys of the window from its table, and those of parts that have their own.
QString keys() {
    QString text = QStringLiteral("# ") + HelpWindow::tr("All keys") + "\n\n| | |\n|---|---|\n";
    for (const ActionRow& row : action_table())
        if (row.text && *row.shortcut)
            text += "| **" + QKeySequence(row.shortcut).toString(QKeySequence::NativeText) + "** | " +
                QCoreApplication::translate("Actions", row.text).remove(QChar(0x2026)) + " |\n";
    struct Own {
        const char* keys;
        const char* what;
    };
    constexpr Own own[] = {
        {"F9, held", QT_TRANSLATE_NOOP("Keys", "Before, everywhere")},
        {"Ctrl+Space", QT_TRANSLATE_NOOP("Keys", "In the text: what can be written here")},
        {"Alt+Up, Alt+Down", QT_TRANSLATE_NOOP("Keys", "In the text: the number at the caret, a step up or down")},
        {"Ctrl+drag", QT_TRANSLATE_NOOP("Keys", "In the text: a number; Shift finer")},
        {"Up, Down", QT_TRANSLATE_NOOP("Keys", "In a field: a step; Shift finer, Ctrl coarser; Backspace resets")},
        {"Arrows",
         QT_TRANSLATE_NOOP(
             "Keys",
             "In a cell or strip: the pointer; Ctrl farther. In a cell: Shift moves what is seen, Alt moves the cell")},
        {"+, -, 0, 1", QT_TRANSLATE_NOOP("Keys", "In a cell: nearer, farther, all of it, pixel by pixel")},
        {"F, Escape", QT_TRANSLATE_NOOP("Keys", "In a cell: fill the sheet, and back")},
        {"P, C, D", QT_TRANSLATE_NOOP("Keys", "In a cell: pin the place, a cut as a strip, the difference and back")},
        {"S, T, [, ]",
         QT_TRANSLATE_NOOP("Keys", "In a cell: before and after split, twice; the split to the left, to the right")},
        {"Comma, full stop", QT_TRANSLATE_NOOP("Keys", "In a cell: the frame before, the next")},
        {"Return, Delete", QT_TRANSLATE_NOOP("Keys", "In a cell or strip: its menu; away with it")},
        {"Left, Right, Space, Up, Down",
         QT_TRANSLATE_NOOP(
             "Keys", "In the line of steps: which is active, on or off, opacity; Shift+Left and Shift+Right move it")},
        {"Return, Shift+Return", QT_TRANSLATE_NOOP("Keys", "In the library: open, add as a step")},
    };
    for (const Own& row : own)
        text += QStringLiteral("| **") + row.keys + "** | " + QCoreApplication::translate("Keys", row.what) + " |\n";
    return text;
}

/// Hairlines instead of Qt's boxes in boxes.
/// A page, not yet laid out: each change of a table would lay out all of it again.
QTextDocument* document_of(const QString& text, QWidget* owner) {
    auto* document = new QTextDocument(owner);
    document->setDocumentMargin(18);
    document->setDefaultFont(theme::face(13));
    document->setMarkdown(text);
    for (QTextFrame* frame : document->rootFrame()->childFrames())
        if (auto* table = qobject_cast<QTextTable*>(frame)) {
            QTextTableFormat format = table->format();
            format.setBorderCollapse(true);
            format.setBorder(0.5);
            format.setBorderBrush(theme::hairline);
            format.setCellSpacing(0);
            format.setCellPadding(4);
            table->setFormat(format);
        }
    return document;
}

} // namespace

std::vector<HelpWindow::Page> HelpWindow::pages() {
    std::vector<Page> all;
    for (const char* name : order) {
        QFile file(QStringLiteral(":/docs/%1.md").arg(name));
        if (!file.open(QIODevice::ReadOnly))
            continue;
        const QString text = QString::fromUtf8(file.readAll());
        all.push_back({name, text.section('\n', 0, 0).remove(0, 2), text});
        if (all.size() == 1)
            all.push_back({QStringLiteral("keys"), tr("All keys"), keys()});
    }
    return all;
}

HelpWindow::HelpWindow(QWidget* parent) : QWidget(parent, Qt::Window), pages_(pages()) {
    setWindowTitle(tr("Help \u2013 Kasuri"));
    resize(960, 680);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    auto* left = new QVBoxLayout;
    left->setContentsMargins(theme::margin, theme::margin, theme::margin, theme::margin);
    search_ = new QLineEdit(this);
    search_->setPlaceholderText(tr("Search all pages"));
    search_->setAccessibleName(tr("Search all pages"));
    search_->setClearButtonEnabled(true);
    search_->setFixedWidth(list_width);
    list_ = new QListWidget(this);
    list_->setFixedWidth(list_width);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setWordWrap(true);
    list_->setSpacing(2);
    list_->setAccessibleName(tr("Pages"));
    left->addWidget(search_);
    left->addWidget(list_, 1);
    page_ = new QTextBrowser(this);
    page_->setFrameShape(QFrame::NoFrame);
    page_->setOpenExternalLinks(false);
    page_->setOpenLinks(false);
    page_->setAccessibleName(tr("Page"));
    row->addLayout(left);
    row->addWidget(page_, 1);
    connect(search_, &QLineEdit::textChanged, this, &HelpWindow::fill);
    connect(search_, &QLineEdit::returnPressed, this, [this] { list_->setFocus(); });
    connect(list_, &QListWidget::currentRowChanged, this, &HelpWindow::open);
    connect(page_, &QTextBrowser::anchorClicked, this, [this](const QUrl& link) {
        if (const QString name = link.path().section('/', -1).section('.', 0, 0); !name.isEmpty())
            show_page(name);
    });
    fill({});
}

void HelpWindow::show_page(const QString& name) {
    search_->clear();
    for (std::size_t i = 0; i < pages_.size(); ++i)
        if (pages_[i].name == name || (name.isEmpty() && i == shown_))
            list_->setCurrentRow(static_cast<int>(i));
}

void HelpWindow::fill(const QString& wanted) {
    const QSignalBlocker quiet(list_);
    list_->clear();
    rows_.clear();
    const QString words = wanted.trimmed();
    for (std::size_t i = 0; i < pages_.size(); ++i) {
        if (words.isEmpty()) {
            rows_.emplace_back(i, QString());
            list_->addItem(pages_[i].title);
            continue;
        }
        QString heading = pages_[i].title;
        for (const QString& line : pages_[i].text.split('\n')) {
            if (line.startsWith('#'))
                heading = line.mid(line.indexOf(' ') + 1).remove('`');
            if (!line.contains(words, Qt::CaseInsensitive) || list_->count() >= max_found)
                continue;
            QString shown = line;
            rows_.emplace_back(i, words);
            list_->addItem(pages_[i].title + " \u203a " + heading + "\n" +
                           shown.remove('|').remove('*').remove('`').trimmed().left(90));
        }
    }
    if (list_->count() == 0)
        list_->addItem(tr("Nothing is found."));
    if (words.isEmpty())
        list_->setCurrentRow(static_cast<int>(shown_));
    if (!words.isEmpty() && !rows_.empty())
        list_->setCurrentRow(0);
    open(list_->currentRow());
}

void HelpWindow::open(int row) {
    if (row < 0 || static_cast<std::size_t>(row) >= rows_.size())
        return;
    const auto& [page, words] = rows_[static_cast<std::size_t>(row)];
    if (page != shown_ || page_->toPlainText().isEmpty()) {
        // The first one is the widget's own, which sees to it; the others are ours.
        QTextDocument* const before = page_->document()->parent() == page_ ? page_->document() : nullptr;
        page_->setDocument(document_of(pages_[page].text, page_));
        delete before;
    }
    shown_ = page;
    page_->moveCursor(QTextCursor::Start);
    if (words.isEmpty())
        return;
    int which = 0; // of the places on this page
    for (int i = row; i > 0 && rows_[static_cast<std::size_t>(i - 1)].first == page; --i)
        ++which;
    for (int i = 0; i <= which; ++i)
        page_->find(words);
    page_->ensureCursorVisible();
}

void HelpWindow::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        close();
    else if (event->matches(QKeySequence::Find))
        search_->setFocus();
    else
        QWidget::keyPressEvent(event);
}

} // namespace kasuri::app
