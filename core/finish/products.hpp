// Kinds of product that a sign is finished with, by what they do: data/finishes.json, or the user's own file of that
// name under the XDG data folder in its place. Common practice, no source: what stands on the can comes first.
#pragma once

#include <string>
#include <vector>

#include "fields/range.hpp"

namespace doyen {

struct Product {
  std::string id, name;     // sealer, paint, film, oil, varnish, resin
  bool outdoors = true;     // it lasts there
  double recoat_hours = 4;  // until the next coat, or until it may be handled
  double cure_hours = 24;   // until it may be sanded, taped or hung
  int coats = 2;
  double metres_per_litre = 10;  // m² that a litre covers once; of resin nothing
  int thinned_coats = 0;         // the first ones, half and half
  double pour = 0;               // mm that may be poured at once; 0: it is not poured
  std::string caution;           // stands beside its step
  friend bool operator==(const Product&, const Product&) = default;
};

struct ProductTable {
  std::vector<Product> products;
  [[nodiscard]] const Product& of(const std::string& id) const;  // a plain one where there is none
};

ProductTable read_products(const std::string& json, const std::string& where);  // throws Problem{BadInput}
ProductTable load_products();  // throws Problem{BadInput} when the user's own file is damaged

Product shipped_product(const std::string& id);  // as Doyen comes with it
// Keeps what this kind of product of the user's does, in the user's own file, which stands in the place of Doyen's from
// then on; its name and caution stay as they are there. A damaged file is put aside. Throws Problem.
void keep_product(const Product& product);
Range product_range(const std::string& key);  // what a figure of it may be, by its key in the file

}  // namespace doyen
