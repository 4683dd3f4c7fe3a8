// Pieces carried from one place to another: within a job, or to a job in another window.
#pragma once

#include <map>

#include "job/job.hpp"

namespace doyen {

// These pieces with how they look, and what they are made from, as text. Empty when there is none of these ids.
std::string clip_of(const Job& job, const std::vector<std::string>& ids);

// Other ids for the pieces that this one is made from or hangs on; what is not among `now` stays.
void rename_pieces(Item& item, const std::map<std::string, std::string>& now);

// What is said of pieces beside them, for a job that has them under these ids now: their colours, and what was accepted
// of them, with its reasons.
void carry_choices(Job& to, const Job& from, const std::map<std::string, std::string>& now);

// Puts them into the job, moved by `shift` (mm); returns the ids of those that were carried on purpose. A source that
// the job has, just as it was, is used; others come along and stay sources. Ids and names are made unique. Throws
// Problem{BadInput} when the text is no such pieces.
std::vector<std::string> put_clip(Job& job, const std::string& clip, Point shift);

}  // namespace doyen
