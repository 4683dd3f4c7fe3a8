// Words of which a face has not one character: a sentence, and nothing falls.
#include <catch2/catch.hpp>

#include "artwork/lettering/faces.hpp"
#include "workbench.hpp"

using namespace workbench;

TEST_CASE("words without one character that the face has are a stop with every treatment") {
  for (int kind = 0; kind <= static_cast<int>(Kind::Plug); ++kind) {
    Job job = board();
    Lettering l;
    l.words = "\U00010330\U00010331";  // Gothic letters, which no face here has
    l.face = {"Open Sans", "Regular"};
    Treatment t = cut(static_cast<Kind>(kind), 2);
    t.back = kind % 2 == 0;
    job.items.push_back({{"w", "w", l, {120, 80}, 0}, t});
    add(job, "box", {kBox, 100, 60}, {120, 80}, cut(Kind::Recess, 2));
    const Plan p = planned(job);
    INFO("kind " << kind);
    REQUIRE(find(p, "missing-glyph") != nullptr);
    CHECK(find(p, "missing-glyph")->grade == Grade::Stop);
  }
}

TEST_CASE("every face that is offered can be set, and planned") {
  for (const InstalledFace& face : installed_faces()) {
    Job job = board(300, 90);
    Lettering l;
    l.words = "Rue & Sage";
    l.face = face.name;
    l.cap_height = 18;
    job.items.push_back({{"w", "w", l, {150, 45}, 0}, cut(Kind::Incise, 1)});
    INFO(face.name.family << " " << face.name.style);
    CHECK_NOTHROW(planned(job));
  }
}
