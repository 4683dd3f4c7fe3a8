#include "finish/products.hpp"

#include "fields/record.hpp"
#include "json_reading.hpp"
#include "problem.hpp"
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

namespace {

std::string own_products() { return user_file("finishes.json"); }

// Its words as the file has them.
ProductTable products_as_kept() {
  const std::string own = own_products();
  return file_stands(own) ? read_products(read_file(own), own) : read_data("finishes.json", read_products);
}

}  // namespace

Product shipped_product(const std::string& id) { return read_data("finishes.json", read_products).of(id); }

Range product_range(const std::string& key) {
  std::vector<KnownKey> keys;
  product_fields().add_known("", keys);
  for (const KnownKey& known : keys) {
    if (known.path == key && known.range) return *known.range;
  }
  throw bad_input(say("“{0}” is no figure of a product.", key));
}

void keep_product(const Product& product) {
  const std::string own = own_products();
  const auto text_of = [](const std::string& text, const std::string&) { return text; };
  std::string text = read_data("finishes.json", text_of);
  try {
    const std::string kept = file_stands(own) ? read_file(own) : text;
    (void)read_products(kept, own);
    text = kept;
  } catch (const Problem&) {
    // Damaged: Doyen's own, and that one is put aside.
  }
  // All else that stands there stays: other products, and what Doyen does not know.
  Json document = parse_json(text, own);
  std::vector<KnownKey> keys;
  product_fields().add_known("", keys);
  for (Json& each : document["products"]) {
    if (each["id"] != product.id) continue;
    Json figures = product_fields().write(product);
    for (const KnownKey& known : keys) {
      if (known.path == "id" || known.path == "name" || known.path == "caution") continue;
      each.erase(known.path);
      if (figures.contains(known.path)) each[known.path] = figures[known.path];
    }
  }
  keep_own_file(own, json_text(document, 1) + "\n", say("The products"), read_products);
}

ProductTable load_products() {
  ProductTable table = products_as_kept();
  for (Product& product : table.products) {
    product.name = say(product.name);
    if (!product.caution.empty()) product.caution = say(product.caution);
  }
  return table;
}

}  // namespace doyen
