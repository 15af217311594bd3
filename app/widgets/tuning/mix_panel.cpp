#include "widgets/tuning/mix_panel.hpp"

#include "colour/space.hpp"
#include "document/filter_file.hpp"
#include "engine/lower.hpp"
#include "insight/algebra.hpp"
#include "insight/hold_sum.hpp"
#include "model/session.hpp"
#include "model/words.hpp"
#include "proof/proof.hpp"
#include "widgets/parts/heading.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/parts/theme.hpp"

#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QSettings>
#include <QToolButton>

#include <cmath>

namespace kasuri::app {
namespace {

constexpr double most = 16; ///< weights beyond are typed in the text
constexpr int several = -2; ///< parameters

insight::Affine map_of(const document::MixPlace& place) {
    insight::Affine map;
    for (std::size_t i = 0; i < 9; ++i)
        map.matrix[i / 3][i % 3] = place.values[i];
    map.offset = place.offset_values;
    return map;
}

std::array<double, 9> numbers_of(const insight::Affine& map) {
    std::array<double, 9> numbers{};
    for (std::size_t i = 0; i < 9; ++i)
        numbers[i] = map.matrix[i / 3][i % 3];
    return numbers;
}

} // namespace

MixPanel::MixPanel(Session& session, QWidget* parent)
    : QWidget(parent), session_(session), hold_(QSettings().value("mix/hold").toInt()) {
    setAccessibleName(tr("Mix table"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    heading_ = new Heading(tr("Mix"), this);
    hold_button_ = new QToolButton(heading_);
    hold_button_->setFont(theme::face(11.5));
    hold_button_->setPopupMode(QToolButton::InstantPopup);
    hold_button_->setAccessibleName(tr("What can be done with the mix"));
    auto* menu = new QMenu(hold_button_);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] {
        menu->clear();
        fill_menu(*menu);
    });
    hold_button_->setMenu(menu);
    which_ = new QToolButton(heading_);
    which_->setFont(theme::face(11.5));
    which_->setPopupMode(QToolButton::InstantPopup);
    which_->setAccessibleName(tr("Which of the matrices"));
    auto* places = new QMenu(which_);
    connect(places, &QMenu::aboutToShow, this, [this, places] {
        places->clear();
        if (const lang::Rule* rule = session_.rule()) {
            int index = 0;
            for (const document::MixPlace& place : document::mix_places(*rule)) {
                QAction* action =
                    places->addAction(QString::fromStdString(place.name), this, [this, index] { choose(index); });
                action->setCheckable(true);
                action->setChecked(index++ == chosen_);
            }
        }
    });
    which_->setMenu(places);
    which_->hide();
    heading_->add_control(which_);
    heading_->add_control(hold_button_);
    column->addWidget(heading_);
    auto* body = new QWidget(this);
    auto* rows = new QVBoxLayout(body);
    rows->setContentsMargins(0, 0, 0, 6);
    rows->setSpacing(0);
    column->addWidget(body);
    auto* grid = new QGridLayout;
    grid->setContentsMargins(theme::margin, 4, theme::margin, 0);
    grid->setHorizontalSpacing(6);
    grid->setVerticalSpacing(1);
    const QStringList heads = {"r", "g", "b", tr("offset"), tr("sum")};
    for (int i = 0; i < heads.size(); ++i) {
        QLabel* head = quiet_label(heads[i], this, 11.5);
        head->setAlignment(Qt::AlignRight);
        grid->addWidget(head, 0, i + 1);
    }
    for (int row = 0; row < 3; ++row) {
        auto* name = new QLabel(QString::fromUtf8(theme::letters[row]), this);
        name->setFont(theme::face(12.5, true));
        theme::tint(name, theme::trace[row]);
        grid->addWidget(name, row + 1, 0);
        for (int i = 0; i < 4; ++i) {
            auto* field = fields_[static_cast<std::size_t>(4 * row + i)] = new NumberField(this);
            field->set_range(-most, most, 0.01);
            field->setAccessibleName(i < 3 ? tr("%1 of %2").arg(heads[i], QString::fromUtf8(theme::letters[row]))
                                           : tr("offset of %1").arg(QString::fromUtf8(theme::letters[row])));
            connect(field, &NumberField::value_edited, this, [this, row, i](double value) { edit(row, i, value); });
            connect(field, &NumberField::reset_wanted, this, [this, row, i] { edit(row, i, row == i ? 1 : 0); });
            grid->addWidget(field, row + 1, i + 1);
        }
        sums_[static_cast<std::size_t>(row)] = quiet_label({}, this);
        sums_[static_cast<std::size_t>(row)]->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
        grid->addWidget(sums_[static_cast<std::size_t>(row)], row + 1, 5);
    }
    rows->addLayout(grid);
    auto* below = new QHBoxLayout;
    below->setContentsMargins(theme::margin, 4, theme::margin, 0);
    said_ = quiet_label({}, this, 11.5);
    said_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred); // words do not move the sheet
    write_ = new QToolButton(this);
    write_->setFont(theme::face(11.5));
    connect(write_, &QToolButton::clicked, this, &MixPanel::write_matrix);
    below->addWidget(said_, 1);
    below->addWidget(write_);
    rows->addLayout(below);
    heading_->fold(body, "mix");
    connect(&session_, &Session::rule_changed, this, &MixPanel::refresh);
    connect(&session_, &Session::values_changed, this, &MixPanel::refresh);
    connect(&session_, &Session::diagnostics_changed, this, &MixPanel::refresh);
    refresh();
}

QString MixPanel::said() const { return said_->text(); }

void MixPanel::set_hold(int hold) {
    hold_ = hold;
    QSettings().setValue("mix/hold", hold);
    refresh();
}

void MixPanel::choose(int which) {
    chosen_ = which;
    refresh();
}

void MixPanel::refresh() {
    if (!isVisible())
        return; // it is brought up to date when it is shown
    const auto holds = insight::sum_holds();
    hold_ = std::clamp(hold_, 0, static_cast<int>(holds.size()) - 1);
    hold_button_->setText(
        (hold_ == 0 ? tr("sums free") : tr("sums: %1").arg(words(holds[static_cast<std::size_t>(hold_)].name))) +
        QString::fromUtf8(" \u25be"));
    const lang::Rule* rule = session_.rule();
    const std::vector<document::MixPlace> places =
        rule && session_.compiles() ? places_of(*rule) : std::vector<document::MixPlace>();
    if (session_.compiles())
        chosen_ = std::clamp(chosen_, 0, std::max(0, static_cast<int>(places.size()) - 1));
    const document::MixPlace* const place = places.empty() ? nullptr : &places[static_cast<std::size_t>(chosen_)];
    which_->setVisible(places.size() > 1);
    if (place)
        which_->setText(QString::fromStdString(place->name) + QString::fromUtf8(" \u25be"));
    const std::optional<insight::Affine> whole =
        rule && session_.compiles() ? insight::shown_matrix(subject::Subject(*rule, session_.values())) : std::nullopt;
    editable_ = place != nullptr;
    shown_ = place ? std::optional(map_of(*place)) : whole;
    const bool offsets = place && place->takes_offset;
    QStringList words;
    if (!session_.compiles())
        words << tr("the rule does not compile");
    else if (!shown_)
        words << tr("the rule is not a matrix");
    if (shown_) {
        const std::string working = std::string(engine::working_space(*rule));
        const colour::Space* space = colour::find_space(working);
        if (space && is_linear(*space)) {
            const colour::Triple weights = colour::luminance_weights(*space);
            bool kept = true;
            for (std::size_t i = 0; i < 3; ++i) {
                double sum = 0, constant = 0;
                for (std::size_t out = 0; out < 3; ++out) {
                    sum += weights[out] * shown_->matrix[out][i];
                    constant += weights[out] * shown_->offset[out];
                }
                kept = kept && std::fabs(sum - weights[i]) < 1e-6 && std::fabs(constant) < 1e-6;
            }
            words << (kept ? tr("luminance kept") : tr("luminance moves"));
        }
        words << tr("determinant %1").arg(theme::number(shown_->determinant()));
        if (editable_ && whole && *whole != *shown_)
            words << tr("one of several steps");
    }
    const auto sums = shown_ ? shown_->row_sums() : std::array<double, 3>{};
    for (std::size_t row = 0; row < 3; ++row) {
        for (std::size_t i = 0; i < 4; ++i) {
            NumberField* field = fields_[4 * row + i];
            field->setEnabled(editable_ && (i < 3 || offsets));
            if (!session_.compiles())
                continue; // the last numbers stay in sight, greyed
            field->set_value(!shown_ ? 0 : i < 3 ? shown_->matrix[row][i] : shown_->offset[row]);
        }
        if (session_.compiles())
            sums_[row]->setText(shown_ ? theme::number(sums[row]) : QString());
    }
    said_->setText(words.join(QString::fromUtf8("  \u00b7  ")));
    said_->setToolTip(said_->text());
    write_->setVisible(!editable_ && session_.compiles());
    write_->setText(shown_ ? tr("write it as a matrix") : tr("add a matrix"));
    write_->setToolTip(shown_
                           ? tr("Replaces the statements by one matrix of numbers that does the same at these values")
                           : tr("Adds a matrix after the last statement"));
}

std::vector<document::MixPlace> MixPanel::places_of(const lang::Rule& rule) const {
    std::vector<document::MixPlace> places = document::mix_places(rule);
    const std::vector<double> values = values_for(rule, session_.chosen_values());
    for (document::MixPlace& place : places)
        for (std::size_t i = 0; i < 9; ++i)
            if (place.parameters[i] >= 0)
                place.values[i] = values[static_cast<std::size_t>(place.parameters[i])];
    return places;
}

std::optional<document::MixPlace> MixPanel::place_now() const {
    lang::CheckOptions options;
    options.open = document::used_beside(session_.path());
    const lang::Checked checked = lang::check(session_.text(), proof::vocabulary(), options);
    if (!checked.ok)
        return std::nullopt;
    std::vector<document::MixPlace> places = places_of(checked.rule);
    return places.empty()
        ? std::nullopt
        : std::optional(
              std::move(places[static_cast<std::size_t>(std::clamp(chosen_, 0, static_cast<int>(places.size()) - 1))]));
}

void MixPanel::put(const insight::Affine& map, const QString& name, const QString& key) {
    const auto place = place_now();
    if (!place)
        return;
    // Numbers are written in the text, parameters get other values: one step.
    const std::array<double, 9> numbers = numbers_of(map);
    const document::TextEdit edit = document::with_mix_numbers(session_.text(), *place, numbers, map.offset);
    std::vector<double> values = session_.values();
    int changed = -1;
    for (std::size_t i = 0; i < 9; ++i)
        if (const int parameter = place->parameters[i]; parameter >= 0 && numbers[i] != place->values[i]) {
            values[static_cast<std::size_t>(parameter)] = numbers[i];
            changed = changed < 0 || changed == parameter ? parameter : several;
        }
    const bool writes = edit.inserted != edit.removed;
    if (writes && changed != -1)
        session_.undo_stack().beginMacro(name);
    if (changed != -1)
        session_.set_values(values, name, changed == several ? -1 : changed);
    if (writes)
        session_.apply_edit(edit, name, key);
    if (writes && changed != -1)
        session_.undo_stack().endMacro();
}

void MixPanel::edit(int row, int column, double value) {
    const auto place = place_now();
    if (!place)
        return;
    insight::Affine map = map_of(*place);
    const auto r = static_cast<std::size_t>(row), c = static_cast<std::size_t>(column);
    if (column == 3)
        map.offset[r] = value;
    else
        map.matrix[r] = insight::sum_holds()[static_cast<std::size_t>(hold_)].changed(map.matrix[r], r, c, value);
    put(map, tr("the mix of %1").arg(QString::fromUtf8(theme::letters[row])),
        QString("mix %1 %2").arg(row).arg(column));
}

void MixPanel::swap(int a, int b) {
    if (const auto place = place_now()) {
        insight::Affine map = map_of(*place);
        std::swap(map.matrix[static_cast<std::size_t>(a)], map.matrix[static_cast<std::size_t>(b)]);
        std::swap(map.offset[static_cast<std::size_t>(a)], map.offset[static_cast<std::size_t>(b)]);
        put(map, tr("channels swapped"));
    }
}

void MixPanel::rotate() {
    if (const auto place = place_now()) {
        const insight::Affine was = map_of(*place);
        insight::Affine map = was;
        for (std::size_t i = 0; i < 3; ++i) {
            map.matrix[i] = was.matrix[(i + 1) % 3];
            map.offset[i] = was.offset[(i + 1) % 3];
        }
        put(map, tr("channels rotated"));
    }
}

void MixPanel::invert() {
    if (const auto place = place_now())
        if (const auto inverse = map_of(*place).inverse())
            put(*inverse, tr("the mix inverted"));
}

void MixPanel::reset_row(int row) {
    if (const auto place = place_now()) {
        insight::Affine map = map_of(*place);
        const auto r = static_cast<std::size_t>(row);
        map.matrix[r] = insight::Affine{}.matrix[r];
        map.offset[r] = 0;
        put(map, tr("the mix of %1 reset").arg(QString::fromUtf8(theme::letters[row])));
    }
}

void MixPanel::write_matrix() {
    const lang::Rule* rule = session_.rule();
    if (!rule || !session_.compiles() || editable_)
        return;
    document::TextEdit edit;
    const std::string& text = session_.text();
    const insight::Affine map = shown_.value_or(insight::Affine{});
    if (shown_ && !rule->steps.empty()) {
        const Span all{rule->steps.front().span.begin, rule->steps.back().span.end};
        edit.at = all.begin;
        edit.removed = std::string(text_of(text, all));
        edit.inserted = document::mix_statement(numbers_of(map), map.offset, "rgb");
    } else {
        edit = appended(map);
    }
    session_.apply_edit(edit, tr("a matrix"));
}

document::TextEdit MixPanel::appended(const insight::Affine& map) const {
    const lang::Rule& rule = *session_.rule();
    const std::string& text = session_.text();
    document::TextEdit edit;
    const std::size_t from =
        rule.steps.empty() ? text.size() : std::min(text.find('\n', rule.steps.back().span.end), text.size());
    edit.at = static_cast<std::uint32_t>(from);
    edit.inserted = (from > 0 && text[from - 1] != '\n' ? "\n" : "") +
        document::mix_statement(numbers_of(map), map.offset, rule.steps.empty() ? "rgb" : "out.rgb") +
        (from == text.size() ? "\n" : "");
    return edit;
}

void MixPanel::write_map(const insight::Affine& map, const QString& name) {
    if (!session_.rule() || !session_.compiles())
        return;
    if (place_now())
        put(map, name);
    else
        session_.apply_edit(appended(map), name);
}

void MixPanel::fill_menu(QMenu& menu) {
    const auto holds = insight::sum_holds();
    for (std::size_t i = 0; i < holds.size(); ++i) {
        QAction* action = menu.addAction(i == 0 ? tr("sums free") : tr("sums: %1").arg(words(holds[i].name)), this,
                                         [this, i] { set_hold(static_cast<int>(i)); });
        action->setToolTip(words(holds[i].doc));
        action->setCheckable(true);
        action->setChecked(static_cast<int>(i) == hold_);
    }
    menu.setToolTipsVisible(true);
    menu.addSeparator();
    const auto act = [&](const QString& text, auto what) { menu.addAction(text, this, what)->setEnabled(editable_); };
    act(tr("Swap r and g"), [this] { swap(0, 1); });
    act(tr("Swap g and b"), [this] { swap(1, 2); });
    act(tr("Swap r and b"), [this] { swap(0, 2); });
    act(tr("Rotate: r from g, g from b, b from r"), [this] { rotate(); });
    act(tr("Inverse"), [this] { invert(); });
    for (int row = 0; row < 3; ++row)
        act(tr("Reset %1").arg(QString::fromUtf8(theme::letters[row])), [this, row] { reset_row(row); });
    act(tr("Reset all"), [this] { put(insight::Affine{}, tr("the mix reset")); });
}

} // namespace kasuri::app
