#pragma once
#include <cstdint>
#include <map>
#include <string>
#include <vector>

namespace kasuri::insight {

/// A sum of multiples of products of atoms. An atom is a number that is not known further; each product names its atoms
/// in rising order, as often as they stand in it.
class Polynomial {
public:
    using Atom = std::uint32_t;
    using Product = std::vector<Atom>;
    using Terms = std::map<Product, double>;

    Polynomial() = default;
    explicit Polynomial(double constant) { add({}, constant); }
    static Polynomial of(Atom atom) {
        Polynomial made;
        made.add({atom}, 1);
        return made;
    }

    const Terms& terms() const { return terms_; }
    bool is_constant() const { return terms_.empty() || (terms_.size() == 1 && terms_.begin()->first.empty()); }
    double constant() const { return terms_.empty() ? 0 : terms_.begin()->second; }
    /// All factors are 0, but for rounding of numbers as large as `scale`.
    bool is_zero(double scale = 1) const;
    double largest() const;

    void add(const Product& product, double factor);
    Polynomial plus(const Polynomial& other, double by = 1) const;
    Polynomial times(const Polynomial& other) const;
    Polynomial times(double factor) const;
    /// With `value` wherever `atom` stands.
    Polynomial with(Atom atom, const Polynomial& value) const;
    /// Equal for equal sums, but for rounding of their numbers.
    std::string key() const;

private:
    Terms terms_;
};

} // namespace kasuri::insight
