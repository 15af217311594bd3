#include "ir/range.hpp"
#include "ir/range_table.hpp"
#include "support/random_rule.hpp"
#include "support/support.hpp"

#include <mpfi.h>

using namespace kasuri;
using namespace kasuri::ir;
using kasuri::test::good_rule;

namespace {

constexpr double nowhere = std::numeric_limits<double>::infinity();

/// What the GNU MPFI library says of an operation, its ends rounded outward to doubles.
class Mpfi {
public:
    explicit Mpfi(const Range* x, int arity) {
        mpfi_init2(made_, 120);
        for (int k = 0; k < 3; ++k) {
            mpfi_init2(x_[k], 120);
            if (k < arity)
                mpfi_interv_d(x_[k], x[k].low, x[k].high);
        }
    }
    Mpfi(const Mpfi&) = delete;
    ~Mpfi() {
        mpfi_clear(made_);
        for (auto& x : x_)
            mpfi_clear(x);
    }
    Range range() const {
        mpfr_t end;
        mpfr_init2(end, 120);
        mpfi_get_left(end, made_);
        const double low = mpfr_get_d(end, MPFR_RNDN);
        mpfi_get_right(end, made_);
        const double high = mpfr_get_d(end, MPFR_RNDN);
        mpfr_clear(end);
        return Range::between(low, high);
    }

    mpfi_t made_;
    mpfi_t x_[3];
};

struct Known {
    Op op;
    void (*of)(Mpfi&);
    double low, high; ///< of operands
};
const Known known[] = {
    {Op::neg, [](Mpfi& m) { mpfi_neg(m.made_, m.x_[0]); }, -9, 9},
    {Op::abs, [](Mpfi& m) { mpfi_abs(m.made_, m.x_[0]); }, -9, 9},
    {Op::sqrt, [](Mpfi& m) { mpfi_sqrt(m.made_, m.x_[0]); }, 0, 9},
    {Op::exp2, [](Mpfi& m) { mpfi_exp2(m.made_, m.x_[0]); }, -9, 9},
    {Op::log2, [](Mpfi& m) { mpfi_log2(m.made_, m.x_[0]); }, 0.01, 9},
    {Op::sin, [](Mpfi& m) { mpfi_sin(m.made_, m.x_[0]); }, -9, 9},
    {Op::cos, [](Mpfi& m) { mpfi_cos(m.made_, m.x_[0]); }, -9, 9},
    {Op::add, [](Mpfi& m) { mpfi_add(m.made_, m.x_[0], m.x_[1]); }, -9, 9},
    {Op::sub, [](Mpfi& m) { mpfi_sub(m.made_, m.x_[0], m.x_[1]); }, -9, 9},
    {Op::mul, [](Mpfi& m) { mpfi_mul(m.made_, m.x_[0], m.x_[1]); }, -9, 9},
    {Op::div, [](Mpfi& m) { mpfi_div(m.made_, m.x_[0], m.x_[1]); }, -9, 9},
    {Op::atan2, [](Mpfi& m) { mpfi_atan2(m.made_, m.x_[0], m.x_[1]); }, -9, 9},
    {Op::pow,
     [](Mpfi& m) {
         mpfi_log2(m.made_, m.x_[0]);
         mpfi_mul(m.made_, m.made_, m.x_[1]);
         mpfi_exp2(m.made_, m.made_);
     },
     0.01, 9},
};

class Numbers {
public:
    double between(double low, double high) { return std::uniform_real_distribution<>(low, high)(random_); }
    Range range(double low, double high) {
        const double a = between(low, high), b = random_() % 8 == 0 ? a : between(low, high);
        return Range::between(std::min(a, b), std::max(a, b));
    }
    std::mt19937 random_{3};
};

/// Its ends rounded to floats.
Range in_floats(const Range& x) {
    return Range::between(static_cast<double>(static_cast<float>(x.low)),
                          static_cast<double>(static_cast<float>(x.high)));
}

/// Whether a number may be that of a range, NaN and infinities included.
bool may_be(const Range& range, double x) { return std::isnan(x) ? range.nan : range.holds(x); }

Range one(Graph& graph, NodeId of, const Range& r, const Range& g = Range::of(0), const Rounding& rounding = exact) {
    Box box;
    box.inputs = {r, g, Range::of(0), Range::of(1)};
    return Ranges(graph, std::span(&of, 1), rounding, box).over(box)[0];
}

} // namespace

TEST_CASE("ranges of operations are those of the MPFI library and no wider than the digits of a double",
          "[ir][range]") {
    Numbers numbers;
    for (const Known& row : known) {
        const int arity = ir::row(row.op).arity;
        INFO(ir::row(row.op).name);
        for (int i = 0; i < 2000; ++i) {
            Range x[3];
            for (Range& each : x)
                each = numbers.range(row.low, row.high);
            const Range got = range_of(row.op, {x, exact, true, false});
            Mpfi reference(x, arity);
            row.of(reference);
            const Range right = reference.range();
            INFO(x[0].low << " " << x[0].high << ", " << x[1].low << " " << x[1].high << ": " << got.low << " "
                          << got.high << " for " << right.low << " " << right.high);
            CHECK(got.nan == (row.op == Op::div && x[1].holds(0)));
            REQUIRE((got.low <= right.low && got.high >= right.high));
            if (right.is_finite()) {
                const double room = 1e-14 * std::max(1.0, right.largest());
                const bool on_the_cut = row.op == Op::atan2 && x[1].low <= 0 && x[0].holds(0); // all angles, there
                CHECK((on_the_cut || (got.low >= right.low - room && got.high <= right.high + room)));
            }
        }
    }
}

TEST_CASE("no number that an operation gives is outside of its range", "[ir][range]") {
    Numbers numbers;
    const double telling[] = {-nowhere, -1e30, -2, -1, -0.5, 0, 1e-30, 0.5, 1, 2, 3, 359, 720, 1e30, nowhere};
    const auto some = [&] { return telling[numbers.random_() % std::size(telling)]; };
    for (const OpRow& row : op_table()) {
        if (row.op >= Op::external || row.arity == 0 || row.op == Op::select)
            continue;
        INFO(row.name);
        for (int i = 0; i < 3000; ++i) {
            const bool wild = i % 2 == 0;
            Range x[3];
            for (Range& each : x) {
                const double a = wild ? some() : numbers.between(-4, 4), b = wild ? some() : numbers.between(-4, 4);
                each = {std::min(a, b), std::max(a, b), i % 16 == 0};
            }
            for (const Rounding* rounding : {&exact, &single}) {
                const Range range = range_of(row.op, {x, *rounding, false, false});
                for (int k = 0; k < 6; ++k) {
                    double at[3];
                    for (int c = 0; c < 3; ++c) {
                        const Range& in = x[c];
                        const bool whole =
                            std::isfinite(in.low) && std::isfinite(in.high) && in.high < 1e9 && in.low > -1e9;
                        at[c] = in.nan && k == 5                   ? std::nan("")
                            : numbers.random_() % 3 == 0 || !whole ? (numbers.random_() % 2 ? in.low : in.high)
                                                                   : numbers.between(in.low, in.high);
                    }
                    const double made = folded(row.op, at);
                    INFO(at[0] << " " << at[1] << " " << at[2] << ": " << made << " in " << range.low << " "
                               << range.high << " " << range.nan);
                    const bool by_nothing = row.op == Op::div && at[1] == 0 && rounding == &exact;
                    REQUIRE((may_be(range, made) || (by_nothing && range.nan)));
                }
            }
        }
    }
}

TEST_CASE("a number that meets itself: what is known of it, and what is not", "[ir][range]") {
    Graph g(false); // without rewriting
    const NodeId r = g.input(Input::r);
    const Range square = one(g, g.mul(r, r), Range::between(-1, 2));
    CHECK((square.low == 0 && square.high == Approx(4)));
    CHECK(one(g, g.sub(r, r), Range::between(-1, 2)).largest() == 0);
    // Moore, Kearfott and Cloud, ch. 5 (from memory): x (1 - x) over 0..1 is 0..1/4, its natural extension 0..1, and
    // twice the parts halve what it is too wide.
    const NodeId hump = g.mul(r, g.sub(g.constant(1), r));
    CHECK(one(g, hump, Range::between(0, 1)).high == Approx(1));
    double last = 1;
    for (const int parts : {2, 4, 8, 16, 32}) {
        double high = 0;
        for (int i = 0; i < parts; ++i)
            high = std::max(high, one(g, hump, Range::between(1.0 * i / parts, (i + 1.0) / parts)).high);
        CHECK(high >= 0.25);
        CHECK(high - 0.25 < 0.62 * (last - 0.25));
        last = high;
    }
}

TEST_CASE("in the branch of a choice its condition counts", "[ir][range]") {
    Graph g;
    const NodeId r = g.input(Input::r);
    // The sRGB curve (IEC 61966-2-1): its power is of numbers above 0 only, since the choice sees to that.
    const NodeId power = g.make(Op::pow, g.div(g.add(r, g.constant(0.055)), g.constant(1.055)), g.constant(2.4));
    const NodeId light = g.select(g.less_equal(r, g.constant(0.04045)), g.div(r, g.constant(12.92)), power);
    CHECK(one(g, power, Range::between(-1, 2)).nan);
    const Range range = one(g, light, Range::between(-1, 2));
    CHECK(range.is_finite());
    CHECK(range.low == Approx(-1 / 12.92));
    CHECK(range.high == Approx(std::pow(2.055 / 1.055, 2.4)));
    CHECK(one(g, light, Range::between(-1, 2), Range::of(0), single).is_finite());
    // and, or, not; and what cannot be is no branch.
    const NodeId root = g.make(Op::sqrt, r);
    const NodeId both = g.make(Op::logical_and, g.less(g.constant(0), r), g.less(g.input(Input::g), g.constant(9)));
    CHECK(one(g, g.select(both, root, g.constant(0)), Range::between(-1, 4), Range::between(-9, 9)).is_finite());
    const NodeId either = g.make(Op::logical_or, g.less(r, g.constant(0)), g.less(g.constant(3), r));
    CHECK(one(g, g.select(either, g.constant(0), root), Range::between(-1, 4)).high == Approx(std::sqrt(3)));
    CHECK(one(g, g.select(g.make(Op::logical_not, g.less(r, g.constant(0))), root, r), Range::between(-1, 4)).low ==
          Approx(-1));
    // Above 0 is not 0: a share of what is above it is a number.
    const NodeId share = g.clamp01(g.div(g.sub(r, g.min(r, g.input(Input::g))), r));
    CHECK(one(g, g.select(g.less(g.constant(0), r), share, g.constant(0)), Range::between(-1, 16),
              Range::between(-1, 16), single)
              .is_finite());
    CHECK_FALSE(one(g, g.select(g.less_equal(g.constant(0), r), share, g.constant(0)), Range::between(-1, 16),
                    Range::between(-1, 16), single)
                    .is_finite());
}

TEST_CASE("what the tiles make of random rules is in the range that single precision has", "[ir][range]") {
    std::mt19937 random(11);
    Numbers numbers;
    int narrow = 0;
    for (int i = 0; i < 150; ++i) {
        const std::string text = kasuri::test::RandomRule<std::mt19937>(random).text();
        const lang::Rule rule = good_rule(text);
        const subject::Subject subject{lang::Rule(rule)};
        Graph graph;
        const std::vector<NodeId> outputs = subject.lower(graph);
        Box box;
        box.inputs.assign(input_count, Range::between(0, 1));
        for (std::size_t c = 0; c < 3; ++c)
            box.inputs[c] = in_floats(numbers.range(-1, 2));
        box.inputs[3] = Range::of(1);
        box.uniforms.assign(first_parameter_slot, Range::between(1, 64));
        for (const double value : subject.values())
            box.uniforms.push_back(Range::of(value));
        const std::vector<Range> ranges = Ranges(graph, outputs, single, box).over(box);
        image::Samples planes[3];
        for (int k = 0; k < 64; ++k)
            for (std::size_t c = 0; c < 3; ++c) {
                const Range& in = box.inputs[c];
                planes[c].push_back(static_cast<float>(k == 0       ? in.low
                                                           : k == 1 ? in.high
                                                                    : numbers.between(in.low, in.high)));
            }
        image::Picture picture;
        picture.width = 64;
        picture.height = 1;
        for (std::size_t c = 0; c < 3; ++c)
            picture.planes[c] = image::make_plane(std::move(planes[c]));
        const auto made = engine::evaluate(*subject.program(), picture, subject.values());
        REQUIRE(made);
        INFO(text);
        for (std::size_t k = 0; k < 64; ++k)
            for (std::size_t c = 0; c < 3; ++c) {
                const double x = static_cast<double>(made->at(k)[c]);
                INFO(x << " in " << ranges[c].low << " " << ranges[c].high << " " << ranges[c].nan);
                REQUIRE(may_be(ranges[c], x));
            }
        for (std::size_t c = 0; c < 3; ++c)
            narrow += ranges[c].is_finite() ? 1 : 0;
    }
    CHECK(narrow > 225); // half of them: a range that says nothing is always right
}
