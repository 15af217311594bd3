#include "widgets/frame/preferences.hpp"

#include "colour/space.hpp"
#include "model/bench.hpp"
#include "widgets/files/files.hpp"
#include "widgets/frame/language.hpp"
#include "widgets/library/library_panel.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/room_menu.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/writing/editor_settings.hpp"
#include "widgets/writing/rule_editor.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QCoreApplication>
#include <QFileDialog>
#include <QFileInfo>
#include <QGridLayout>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>

#include <thread>

namespace kasuri::app {
namespace {

constexpr int field_width = 240, doc_width = 300;

struct Choice {
    QString title;
    QString value;
};

/// A choice by name: `now` says which is in force, `take` puts another into force.
PreferenceControl choice(QWidget* parent, const std::vector<Choice>& choices, std::function<QString()> now,
                         std::function<void(const QString&)> take, const QString& usual) {
    auto* box = new QComboBox(parent);
    for (const Choice& each : choices)
        box->addItem(each.title, each.value);
    QObject::connect(box, &QComboBox::activated, parent,
                     [box, take](int index) { take(box->itemData(index).toString()); });
    return {box, [box, now] { box->setCurrentIndex(box->findData(now())); }, [take, usual] { take(usual); }};
}

struct Range {
    double low, high, step;
    bool whole;
};

PreferenceControl number(QWidget* parent, const Range& range, std::function<double()> now,
                         std::function<void(double)> take, double usual) {
    auto* field = new NumberField(parent);
    field->set_range(range.low, range.high, range.step, range.whole);
    const auto refresh = [field, now] { field->set_value(now()); };
    QObject::connect(field, &NumberField::value_edited, parent, [take, refresh](double value) {
        take(value);
        refresh();
    });
    QObject::connect(field, &NumberField::reset_wanted, parent, [take, refresh, usual] {
        take(usual);
        refresh();
    });
    return {field, refresh, [take, usual] { take(usual); }};
}

PreferenceControl tick(QWidget* parent, const QString& words, std::function<bool()> now, std::function<void(bool)> take,
                       bool usual) {
    auto* box = new QCheckBox(words, parent);
    QObject::connect(box, &QCheckBox::clicked, parent, take);
    return {box, [box, now] { box->setChecked(now()); }, [take, usual] { take(usual); }};
}

QPushButton* button(const QString& text, QWidget* parent, std::function<void()> what) {
    auto* made = new QPushButton(text, parent);
    made->setAutoDefault(false);
    QObject::connect(made, &QPushButton::clicked, parent, what);
    return made;
}

PreferenceControl room(QWidget* parent, const SettingsOf&) {
    std::vector<Choice> choices;
    for (const theme::Room& each : theme::rooms())
        choices.push_back({QCoreApplication::translate("Rooms", each.title), QString::fromLatin1(each.name)});
    return choice(
        parent, choices, [] { return theme::room(); }, [](const QString& name) { choose_room(name); },
        QString::fromLatin1(theme::rooms()[0].name));
}

PreferenceControl language(QWidget* parent, const SettingsOf&) {
    std::vector<Choice> choices{{QCoreApplication::translate("Settings", "the system's"), QString()}};
    for (const Language& each : languages())
        choices.push_back({each.title, each.name});
    return choice(
        parent, choices, [] { return chosen_language(); }, [](const QString& name) { choose_language(name); },
        QString());
}

PreferenceControl surround(QWidget* parent, const SettingsOf& of) {
    SheetModel& sheet = of.bench.sheet();
    return number(
        parent, {0, 100, 1, false}, [&sheet] { return sheet.screen().surround; },
        [&sheet](double lightness) {
            Screen screen = sheet.screen();
            screen.surround = lightness;
            sheet.set_screen(screen);
        },
        usual_surround);
}

PreferenceControl screen(QWidget* parent, const SettingsOf& of) {
    SheetModel& sheet = of.bench.sheet();
    std::vector<Choice> choices;
    const auto add = [&](std::string_view name) {
        const colour::Space* space = colour::find_space(name);
        if (const QString title = QString::fromUtf8(name.data(), static_cast<qsizetype>(name.size()));
            space && !is_linear(*space))
            choices.push_back({title, title});
    };
    for (const colour::Space& space : colour::spaces())
        add(space.name);
    for (const std::string& name : colour::added_spaces())
        add(name);
    return choice(
        parent, choices, [&sheet] { return QString::fromStdString(sheet.screen().space); },
        [&sheet](const QString& name) {
            Screen to = sheet.screen();
            to.space = name.toStdString();
            sheet.set_screen(to);
        },
        QString::fromStdString(Screen().space));
}

PreferenceControl limits(QWidget* parent, const SettingsOf& of) {
    SheetModel& sheet = of.bench.sheet();
    return choice(
        parent,
        {{QCoreApplication::translate("Settings", "hard"), "hard"},
         {QCoreApplication::translate("Settings", "soft"), "soft"}},
        [&sheet] { return sheet.screen().limits == Limits::soft ? QStringLiteral("soft") : QStringLiteral("hard"); },
        [&sheet](const QString& name) {
            Screen to = sheet.screen();
            to.limits = name == "soft" ? Limits::soft : Limits::hard;
            sheet.set_screen(to);
        },
        "hard");
}

PreferenceControl config(QWidget* parent, const SettingsOf& of) {
    auto* line = new QWidget(parent);
    auto* column = new QVBoxLayout(line);
    column->setContentsMargins(0, 0, 0, 0);
    auto* name = new QLabel(line);
    name->setObjectName("config_name");
    auto* row = new QHBoxLayout;
    Bench& bench = of.bench;
    const auto refresh = [name] {
        const QString kept = QSettings().value("config").toString(), file = QFileInfo(kept).fileName();
        name->setText(kept.isEmpty() ? QCoreApplication::translate("Settings", "none, or that of $OCIO")
                                     : name->fontMetrics().elidedText(file, Qt::ElideMiddle, field_width));
        name->setToolTip(kept);
    };
    row->addWidget(button(QCoreApplication::translate("Settings", "Choose\u2026"), line,
                          [&files = of.files] { files.ask_config(); }));
    auto* forget = button(QCoreApplication::translate("Settings", "Forget"), line, [refresh] {
        QSettings().remove("config");
        refresh();
    });
    forget->setToolTip(
        QCoreApplication::translate("Settings", "From the next start on there is none, or that of $OCIO"));
    row->addWidget(forget);
    row->addStretch(1);
    column->addWidget(name);
    column->addLayout(row);
    QObject::connect(&bench, &Bench::spaces_changed, line, refresh);
    return {line, refresh};
}

PreferenceControl config_values(QWidget* parent, const SettingsOf& of) {
    ConfigUse& config = of.bench.config();
    auto* field = new QLineEdit(parent);
    field->setMinimumWidth(field_width);
    field->setPlaceholderText(QCoreApplication::translate("Settings", "NAME=VALUE, NAME=VALUE"));
    const auto refresh = [field, &config] { field->setText(config.values()); };
    QObject::connect(field, &QLineEdit::editingFinished, parent, [field, &config, &bench = of.bench, refresh] {
        if (config.set_values(field->text()))
            refresh();
        else
            bench.refuse(
                QCoreApplication::translate("Settings", "%1: write NAME=VALUE, one after the other with commas")
                    .arg(field->text()));
    });
    QObject::connect(&config, &ConfigUse::changed, field, refresh);
    return {field, refresh, [&config] { config.set_values({}); }};
}

PreferenceControl text_size(QWidget* parent, const SettingsOf& of) {
    RuleEditor& editor = of.editor;
    const PreferenceControl made = number(
        parent, {least_text_size, max_text_size, 1, true}, [&editor] { return app::text_size(editor); },
        [&editor](double size) { set_text_size(editor, size); }, usual_text_size);
    QObject::connect(&editor, &QsciScintillaBase::SCN_ZOOM, parent, made.refresh);
    return made;
}

PreferenceControl wrap(QWidget* parent, const SettingsOf& of) {
    RuleEditor& editor = of.editor;
    return tick(
        parent, QCoreApplication::translate("Settings", "go on in the next line"), [&editor] { return wraps(editor); },
        [&editor](bool on) { set_wraps(editor, on); }, true);
}

PreferenceControl start(QWidget* parent, const SettingsOf&) {
    return choice(
        parent,
        {{QCoreApplication::translate("Settings", "the sheet as it was left"), "left"},
         {QCoreApplication::translate("Settings", "a new sheet with a chart"), "chart"}},
        [] { return QSettings().value("start", "left").toString(); },
        [](const QString& name) { QSettings().setValue("start", name); }, "left");
}

PreferenceControl recent(QWidget* parent, const SettingsOf&) {
    auto* forget = new QPushButton(parent);
    forget->setAutoDefault(false);
    const auto refresh = [forget] {
        const auto count = static_cast<int>(QSettings().value("recent").toStringList().size());
        forget->setText(QCoreApplication::translate("Settings", "Forget them (%1)").arg(count));
        forget->setEnabled(count > 0);
    };
    QObject::connect(forget, &QPushButton::clicked, forget, [refresh] {
        QSettings().remove("recent");
        refresh();
    });
    return {forget, refresh};
}

PreferenceControl jobs(QWidget* parent, const SettingsOf&) {
    const double cores = std::max(1u, std::thread::hardware_concurrency());
    return number(
        parent, {1, std::max(cores, 64.0), 1, true},
        [cores] { return QSettings().value("apply/jobs", cores).toDouble(); },
        [cores](double count) {
            count == cores ? QSettings().remove("apply/jobs") : QSettings().setValue("apply/jobs", count);
        },
        cores);
}

PreferenceControl frame_memory(QWidget* parent, const SettingsOf& of) {
    FrameStore& store = of.bench.playback().store();
    constexpr double megabyte = 1024.0 * 1024;
    return number(
        parent, {64, 65536, 64, true}, [&store] { return static_cast<double>(store.limit()) / megabyte; },
        [&store](double size) {
            store.set_limit(static_cast<std::size_t>(size * megabyte));
            QSettings().setValue("frames/memory", size);
        },
        FrameStore::usual_limit / megabyte);
}

PreferenceControl folders(QWidget* parent, const SettingsOf& of) {
    LibraryPanel& library = of.library;
    auto* all = new QWidget(parent);
    auto* column = new QVBoxLayout(all);
    column->setContentsMargins(0, 0, 0, 0);
    auto* list = new QListWidget(all);
    list->setAccessibleName(QCoreApplication::translate("Settings", "Folders of the library"));
    list->setFixedHeight(66);
    list->setFrameShape(QFrame::NoFrame);
    list->setTextElideMode(Qt::ElideMiddle);
    auto* row = new QHBoxLayout;
    auto* out = button(QCoreApplication::translate("Settings", "Leave out"), all, [&library, list] {
        if (list->currentItem())
            library.remove_folder(list->currentItem()->text());
    });
    row->addWidget(button(QCoreApplication::translate("Settings", "Add a folder\u2026"), all, [&library, all] {
        if (const QString folder = QFileDialog::getExistingDirectory(
                all, QCoreApplication::translate("Settings", "Which folder of filters?"));
            !folder.isEmpty())
            library.keep_folder(folder);
    }));
    row->addWidget(out);
    row->addStretch(1);
    column->addWidget(list);
    column->addLayout(row);
    const auto refresh = [&library, list, out] {
        list->clear();
        list->addItems(library.own_folders());
        for (int i = 0; i < list->count(); ++i)
            list->item(i)->setToolTip(list->item(i)->text());
        out->setEnabled(list->count() > 0);
    };
    QObject::connect(&library, &LibraryPanel::folders_changed, all, refresh);
    return {all, refresh};
}

constexpr PreferenceRow table[] = {
    {"room", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Room"),
     QT_TRANSLATE_NOOP("Settings", "How bright the interface is. What pictures stand on does not change with it."),
     room},
    {"language", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Language"),
     QT_TRANSLATE_NOOP("Settings", "Of the window and of what is wrong with a rule; from the next start on."),
     language},
    {"surround", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Surround, L*"),
     QT_TRANSLATE_NOOP("Settings", "Lightness of the grey around pictures and behind transparent ones; 100 is white."),
     surround},
    {"screen", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Screen"),
     QT_TRANSLATE_NOOP("Settings", "The space of the screen that pictures are shown on."), screen},
    {"limits", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Its limits"),
     QT_TRANSLATE_NOOP("Settings",
                       "Hard: channels are cut off. Soft: bright light bends towards white, what is still outside "
                       "moves towards grey."),
     limits},
    {"config", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Colour config"),
     QT_TRANSLATE_NOOP("Settings", "An OpenColorIO config whose spaces can be used beside the built-in ones."), config},
    {"config_values", QT_TRANSLATE_NOOP("Settings", "Seeing"), QT_TRANSLATE_NOOP("Settings", "Its variables"),
     QT_TRANSLATE_NOOP("Settings",
                       "Of the colour config, as SHOT=sh010, SHOW=ford. They belong to the filter or look that is open "
                       "and are kept with it."),
     config_values},
    {"text_size", QT_TRANSLATE_NOOP("Settings", "Writing"), QT_TRANSLATE_NOOP("Settings", "Size of the text"),
     QT_TRANSLATE_NOOP("Settings", "Of rules, in points. Ctrl with the wheel does the same."), text_size},
    {"wrap", QT_TRANSLATE_NOOP("Settings", "Writing"), QT_TRANSLATE_NOOP("Settings", "Long lines"),
     QT_TRANSLATE_NOOP("Settings", "Or else they can be scrolled to."), wrap},
    {"start", QT_TRANSLATE_NOOP("Settings", "Work"), QT_TRANSLATE_NOOP("Settings", "At the start"),
     QT_TRANSLATE_NOOP("Settings", "What is on the sheet when nothing was asked for."), start},
    {"jobs", QT_TRANSLATE_NOOP("Settings", "Work"), QT_TRANSLATE_NOOP("Settings", "Pictures at a time"),
     QT_TRANSLATE_NOOP(
         "Settings", "When a folder or a sequence is rendered. Each takes its own memory; usual is one for each core."),
     jobs},
    {"frame_memory", QT_TRANSLATE_NOOP("Settings", "Work"), QT_TRANSLATE_NOOP("Settings", "Frames in memory, MB"),
     QT_TRANSLATE_NOOP("Settings", "For numbered pictures that are played. Those that do not fit are read again."),
     frame_memory},
    {"recent", QT_TRANSLATE_NOOP("Settings", "Work"), QT_TRANSLATE_NOOP("Settings", "Recent files"),
     QT_TRANSLATE_NOOP("Settings", "Out of the menu; the files stay where they are."), recent},
    {"folders", QT_TRANSLATE_NOOP("Settings", "Work"), QT_TRANSLATE_NOOP("Settings", "Library"),
     QT_TRANSLATE_NOOP("Settings",
                       "Folders beside those of the system, of yourself, and of the file that is open. All that lies "
                       "below belongs to them."),
     folders},
};

} // namespace

std::span<const PreferenceRow> preference_table() { return table; }

PreferencesWindow::PreferencesWindow(const SettingsOf& of, QWidget* parent) : QDialog(parent, Qt::Tool) {
    setObjectName("preferences");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Settings"));
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(theme::margin, 10, theme::margin, theme::margin);
    grid->setHorizontalSpacing(14);
    grid->setVerticalSpacing(7);
    grid->setSizeConstraint(QLayout::SetFixedSize); // as large as its words
    int line = 0;
    QString group;
    for (const PreferenceRow& row : table) {
        if (const QString named = QCoreApplication::translate("Settings", row.group); named != group) {
            group = named;
            auto* heading = new QLabel(group, this);
            heading->setFont(theme::face(12.5, true));
            heading->setContentsMargins(0, line > 0 ? 10 : 0, 0, 2);
            grid->addWidget(heading, line++, 0, 1, 3);
        }
        const PreferenceControl control = row.make(this, of);
        control.widget->setObjectName(row.id);
        control.widget->setAccessibleName(QCoreApplication::translate("Settings", row.title));
        control.widget->setFixedWidth(field_width);
        auto* name = new QLabel(QCoreApplication::translate("Settings", row.title), this);
        name->setBuddy(control.widget);
        QLabel* doc = quiet_label(QCoreApplication::translate("Settings", row.doc), this, 11.5);
        doc->setWordWrap(true);
        doc->setFixedWidth(doc_width);
        grid->addWidget(name, line, 0, Qt::AlignTop);
        grid->addWidget(control.widget, line, 1, Qt::AlignTop);
        grid->addWidget(doc, line, 2, Qt::AlignTop);
        controls_.push_back(control);
        ++line;
    }
    auto* usual = button(tr("As they came"), this, [this] {
        for (const PreferenceControl& control : controls_)
            if (control.usual)
                control.usual();
        refresh();
    });
    usual->setObjectName("usual");
    usual->setToolTip(tr("Room, language, screen, surround, text, start, pictures at a time and memory as they are "
                         "before anybody chooses"));
    grid->addWidget(usual, line, 1, Qt::AlignLeft);
    connect(&of.bench.sheet(), &SheetModel::changed, this, &PreferencesWindow::refresh);
    connect(&theme::changes(), &theme::Changes::room_changed, this, &PreferencesWindow::refresh);
    refresh();
}

void PreferencesWindow::refresh() {
    for (const PreferenceControl& control : controls_)
        if (!control.widget->hasFocus() || !qobject_cast<NumberField*>(control.widget)) // what is being typed stays
            control.refresh();
}

} // namespace kasuri::app
