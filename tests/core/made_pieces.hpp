// Jobs made of pieces alone, and what a piece of one looks like.
#pragma once

#include "job/job.hpp"

inline doyen::Job job_of(std::vector<doyen::Piece> pieces) {
  doyen::Job job;
  for (doyen::Piece& p : pieces) job.items.push_back({std::move(p), {}});
  return job;
}
inline doyen::Outlines made(const doyen::Job& job, const char* id) {
  return outlines_of(job.find(id)->piece, job.source());
}
inline void quiet(const char*, ...) {}  // for GEOS
