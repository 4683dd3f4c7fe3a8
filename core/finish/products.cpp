#include "finish/products.hpp"

#include "fields/record.hpp"
#include "json_reading.hpp"
#include "storage/aside.hpp"
#include "storage/data_folder.hpp"
#include "wording/say.hpp"

namespace doyen {
namespace {

const Record<Product>& product_fields() {
  static const Record<Product> fields = [] {
    using P = Product;
    Record<P> f;
    f.text("id", &P::id, 60).needed();
    f.text("name", &P::name, 200).needed();
    f.flag("outdoors", &P::outdoors).always();
    f.number("recoatHours", &P::recoat_hours, {0, 2000}).needed();
    f.number("cureHours", &P::cure_hours, {0, 5000}).needed();
    f.number("coats", &P::coats, {1, 20}).always();
    f.number("metresPerLitre", &P::metres_per_litre, {0, 200}).always();
    f.number("thinnedCoats", &P::thinned_coats, {0, 20});
    f.number("pour", &P::pour, {0, 200});
    f.text("caution", &P::caution, 600);
    return f;
  }();
  return fields;
}

}  // namespace

const Product& ProductTable::of(const std::string& id) const {
  static const Product kPlain;
  for (const Product& product : products) {
    if (product.id == id) return product;
  }
  return kPlain;
}

ProductTable read_products(const std::string& json, const std::string& where) {
  const Json document = parse_json(json, where);
  ProductTable table;
  std::size_t i = 0;
  for (const Json& entry : JsonView(document, where).array("products", 100))
    table.products.push_back(product_fields().read(JsonView(entry, where + ".products[" + std::to_string(i++) + "]")));
  return table;
}

ProductTable load_products() {
  const std::string own = user_file("finishes.json");
  ProductTable table =
      file_stands(own) ? read_products(read_file(own), own) : read_data("finishes.json", read_products);
  for (Product& product : table.products) {
    product.name = say(product.name);
    if (!product.caution.empty()) product.caution = say(product.caution);
  }
  return table;
}

}  // namespace doyen
