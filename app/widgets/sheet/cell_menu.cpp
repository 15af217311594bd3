// The caption of a cell as a menu: lens, layer, comparison, space, target, and what can be done with the cell.
#include "colour/model.hpp"
#include "model/words.hpp"
#include "widgets/parts/pop_up.hpp"
#include "widgets/parts/settings_dialog.hpp"
#include "widgets/parts/space_menu.hpp"
#include "widgets/parts/target_menu.hpp"
#include "widgets/parts/theme.hpp"
#include "widgets/sheet/cell_view.hpp"

#include "model/file_names.hpp"
#include <QFileDialog>
#include <QInputDialog>
#include <QMenu>

#include <map>

namespace kasuri::app {
namespace {
QString text_of(const std::string& text) { return QString::fromStdString(text); }
} // namespace

void CellView::open_menu() {
    pop_up(this, mapToGlobal(QPoint(0, theme::caption_height)), [this](QMenu& menu) { fill_menu(menu); });
}

void CellView::add_lenses(QMenu& menu, const Cell& cell) {
    std::map<std::string, QMenu*> groups;
    QMenu* models = nullptr;
    for (const Lens& each : lenses()) {
        QMenu* to = &menu;
        if (!each.group.empty()) {
            const bool of_model = colour::find_model(each.group) != nullptr;
            if (of_model && !models) {
                models = menu.addMenu(tr("component of a model"));
                models->setToolTipsVisible(true);
            }
            QMenu*& group = groups[each.group];
            if (!group) {
                group = of_model ? models->addMenu(text_of(each.group)) : menu.addMenu(words(each.group));
                group->setToolTipsVisible(true);
            }
            to = group;
        }
        QAction* action = to->addAction(lens_caption(each, !each.group.empty()), this,
                                        [this, lens_id = each.id] { model_.set_lens(id_, lens_id); });
        action->setCheckable(true);
        action->setChecked(cell.lens == each.id);
        action->setToolTip(words(each.doc));
    }
}

void CellView::add_peeks(QMenu& menu, const Cell& cell) {
    QMenu* peeks = menu.addMenu(tr("value of the rule"));
    for (const QString& name : model_.peeks()) {
        const std::string id = peek_lens(name.toStdString());
        QAction* action = peeks->addAction(name, this, [this, id] { model_.set_lens(id_, id); });
        action->setCheckable(true);
        action->setChecked(lens(cell.lens).peeks == name.toStdString());
    }
    if (!model_.peeks().isEmpty())
        peeks->addSeparator();
    peeks->addAction(tr("An expression\u2026"), this, &CellView::ask_peek);
    if (!lens(cell.lens).peeks.empty())
        peeks->addAction(tr("Its range\u2026"), this, [this] {
            static const Setting range[] = {{"low", "shown as black", 0, -1000, 1000},
                                            {"high", "shown as white", 1, -1000, 1000}};
            const Cell* now = model_.find(id_);
            if (now && !lens(now->lens).peeks.empty())
                edit_settings(this, text_of(lens(now->lens).peeks), range, {lens(now->lens).low, lens(now->lens).high},
                              [this](const std::vector<double>& values) {
                                  if (const Cell* shown = model_.find(id_))
                                      model_.set_lens(id_, peek_lens(lens(shown->lens).peeks, values[0], values[1]));
                              });
        });
}

void CellView::add_steps(QMenu& menu, const Cell& cell) {
    if (model_.steps().size() < 2)
        return;
    QMenu* steps = menu.addMenu(tr("what comes out of a step"));
    int number = 0;
    for (const QString& name : model_.steps()) {
        const std::string id = step_lens(++number);
        QAction* action = steps->addAction(QStringLiteral("%1  %2").arg(number).arg(name), this,
                                           [this, id] { model_.set_lens(id_, id); });
        action->setCheckable(true);
        action->setChecked(cell.lens == id);
    }
}

void CellView::ask_peek() {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    bool accepted = false;
    const QString expression = QInputDialog::getText(
        this, tr("Show an expression"),
        tr("An expression in the names of the rule, such as luminance(rgb) - luminance(out.rgb):"), QLineEdit::Normal,
        text_of(lens(cell->lens).peeks), &accepted);
    if (accepted && !expression.trimmed().isEmpty())
        model_.set_lens(id_,
                        peek_lens(expression.trimmed().toStdString(),
                                  lens(cell->lens).peeks.empty() ? 0 : lens(cell->lens).low,
                                  lens(cell->lens).peeks.empty() ? 1 : lens(cell->lens).high));
}

void CellView::add_targets(QMenu& menu) {
    add_target_actions(
        *menu.addMenu(tr("Show a target")),
        [](const targets::Target& target) { return target.shape != targets::Shape::strip; },
        [this](const targets::Target& target) { model_.set_target(id_, target); });
}

void CellView::fill_menu(QMenu& menu) {
    const Cell* cell = model_.find(id_);
    if (!cell)
        return;
    menu.setToolTipsVisible(true);
    add_lenses(menu, *cell);
    add_peeks(menu, *cell);
    add_steps(menu, *cell);
    const QStringList layers = model_.layers_of(*cell);
    if (layers.size() > 1) {
        menu.addSeparator();
        for (const QString& layer : layers) {
            QAction* action = menu.addAction(layer.isEmpty() ? tr("layer: whole") : tr("layer: %1").arg(layer), this,
                                             [this, layer] { model_.set_layer(id_, layer.toStdString()); });
            action->setCheckable(true);
            action->setChecked(layer.toStdString() == cell->layer);
        }
    }
    menu.addSeparator();
    if (!is_chart()) {
        const auto mode = [&](const QString& text, Compare to) {
            QAction* action = menu.addAction(text, this, [this, to] { set_compare(to); });
            action->setCheckable(true);
            action->setChecked(compare_ == to);
        };
        mode(tr("After"), Compare::after);
        mode(tr("Before and after, split by a line\tS"), Compare::split);
        mode(tr("Before and after, the same part twice\tT"), Compare::twice);
        menu.addSeparator();
        menu.addAction(tr("Fit\t0"), this, [this] { zoom_to(0); });
        menu.addAction(tr("One to one\t1"), this, [this] { zoom_to(1); });
    }
    menu.addAction(alone_ ? tr("Back among the cells\tF") : tr("Fill the sheet\tF"), this, &CellView::toggle_alone);
    menu.addAction(tr("Pin this place (click with Ctrl)\tP"), this, &CellView::pin_spot);
    if (!model_.pins().empty())
        menu.addAction(tr("Remove all pins"), &model_, &SheetModel::remove_pins);
    if (!is_chart())
        menu.addAction(tr("Cut along a line (drag with Shift)\tC"), this, &CellView::add_line_cut);
    if (playback_.can_play(id_)) {
        menu.addSeparator();
        FramesBar::fill_menu(*menu.addMenu(tr("Frames")), playback_, id_);
        for (const Pin& pin : model_.pins())
            if (pin.source == cell->source())
                menu.addAction(tr("Pin %1 over time").arg(pin.number), this,
                               [this, number = pin.number] { model_.add_over_time(number); });
    }
    if (const auto file = model_.file_of(*cell)) {
        menu.addSeparator();
        const std::string said = model_.said_space(*cell);
        QMenu* spaces = menu.addMenu(tr("space: %1 (%2)").arg(text_of(file->space), text_of(file->space_from)));
        QAction* as_said = spaces->addAction(tr("as the file says"), this, [this] { model_.set_space(id_, {}); });
        as_said->setCheckable(true);
        as_said->setChecked(said.empty());
        spaces->addSeparator();
        add_spaces(*spaces, said, [this](const std::string& space) { model_.set_space(id_, space); });
    }
    menu.addSeparator();
    if (cell->target && !cell->target->settings.empty())
        menu.addAction(tr("Settings of the target\u2026"), this, [this] {
            if (const Cell* now = model_.find(id_); now && now->target)
                edit_settings(this, model_.title(*now), now->target->settings, now->settings,
                              [this](const std::vector<double>& values) { model_.set_settings(id_, values); });
        });
    add_targets(menu);
    menu.addAction(tr("Show a picture\u2026"), this, [this] {
        const QString file = QFileDialog::getOpenFileName(
            this, tr("Show a picture"), {},
            tr("Pictures (%1);;All files (*)").arg(patterns({FileKind::picture, FileKind::movie})));
        if (!file.isEmpty())
            model_.set_picture(id_, bytes_of(file));
    });
    menu.addAction(tr("Duplicate this cell"), this, [this] { model_.duplicate(id_); });
    menu.addAction(tr("Remove this cell\tDel"), this, [this] { model_.remove(id_); });
}

} // namespace kasuri::app
