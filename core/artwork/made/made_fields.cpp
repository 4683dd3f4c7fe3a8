#include "artwork/artwork_fields.hpp"

namespace doyen {
namespace {

const Record<Derived::Bridge>& bridge_fields() {
  static const Record<Derived::Bridge> fields = [] {
    Record<Derived::Bridge> f;
    const Range far{-kFar, kFar};
    f.number(
         "fromX", [](auto& b) -> auto& { return b.from.x; }, far)
        .needed();
    f.number(
         "fromY", [](auto& b) -> auto& { return b.from.y; }, far)
        .needed();
    f.number(
         "toX", [](auto& b) -> auto& { return b.to.x; }, far)
        .needed();
    f.number(
         "toY", [](auto& b) -> auto& { return b.to.y; }, far)
        .needed();
    return f;
  }();
  return fields;
}

}  // namespace

const Record<Derived>& derived_fields() {
  static const Record<Derived> fields = [] {
    using D = Derived;
    using How = D::How;
    Record<D> f;
    f.choice("how", &D::how,
             Words<How>{{"grow", How::Grow},
                        {"join", How::Join},
                        {"takeAway", How::TakeAway},
                        {"overlap", How::Overlap},
                        {"split", How::Split},
                        {"mirror", How::Mirror},
                        {"grid", How::Grid},
                        {"round", How::Round},
                        {"along", How::Along},
                        {"link", How::Link}})
        .always();
    f.texts("from", &D::from, 500, "a list of piece ids was expected").always();
    f.number("distance", &D::distance, {-5000, 5000}).always();
    f.choice("corner", &D::corner,
             Words<Corner>{{"round", Corner::Round}, {"sharp", Corner::Sharp}, {"flat", Corner::Flat}})
        .always();
    f.number("steps", &D::steps, {1, 50}).always();
    f.number("band", &D::band, {0, 5000}).always();
    f.number("columns", &D::columns, {1, 500}).always();
    f.number("rows", &D::rows, {1, 500}).always();
    f.number("stepX", &D::step_x, {-kFar, kFar}).always();
    f.number("stepY", &D::step_y, {-kFar, kFar}).always();
    f.number("count", &D::count, {0, 2000}).always();
    f.number("radius", &D::radius, {-kFar, kFar}).always();
    f.flag("turned", &D::turned).always();
    f.number("angle", &D::angle, {-3600, 3600}).always();
    f.number("share", &D::share, {0, 1}).always();
    f.flag("firstSide", &D::first_side).always();
    const auto linked = [](const D& d) { return d.how == How::Link || !d.bridges.empty(); };
    f.number("bridge", &D::bridge, {0.1, 1000}).also_when(linked);
    f.records("bridges", &D::bridges, bridge_fields(), 2000).also_when(linked);
    return f;
  }();
  return fields;
}

}  // namespace doyen
