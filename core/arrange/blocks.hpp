// What is arranged, measured: a line of words or a motif at a cap height (or height) of 1. Not for use outside
// arrange/.
#pragma once

#include "arrange/arrangement.hpp"

namespace doyen::arranging {

struct Block {
  std::vector<std::string> ids;  // one lettering, or the motif's pieces
  bool words = false;
  ArrangeWish::Role role = ArrangeWish::Role::Main;
  double radius = 0;   // cap heights: words on an arch; below zero in a bowl; 0 straight
  double spacing = 0;  // per cent of the cap height added between letters
  bool left = false;   // aligned left
  // About its own origin, at size 1:
  std::vector<Box> boxes;     // of letters; of motifs the whole
  std::vector<Point> points;  // of its outlines, nowhere farther apart than a tenth
  Box box;
  double thinnest = 0, gap = 0;  // of words: strokes and kept wood, cap heights; 0 where none was found
};

// How high a line's capitals are for one of 1 of the main line.
double ratio_of(ArrangeWish::Role role);

// Throws Problem{BadInput} when words cannot be set.
Block words_block(const Job& job, const std::string& id, ArrangeWish::Role role, double radius, double spacing,
                  bool left);
Block motif_block(const Job& job, const std::vector<std::string>& ids);

// The piece of that block in the job: so large and so placed. `size`: mm, its cap height, or the motif's height.
void place(Job& job, const Block& block, double size, Point at);

}  // namespace doyen::arranging
