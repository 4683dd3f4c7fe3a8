// Files that belong together are replaced together: after any failure, or a kill at any moment, the folder holds the
// old set whole or the new one.
#pragma once

#include <string>
#include <vector>

namespace doyen {

// A set's file: its name inside the set's folder (with at most one folder before it) and its bytes.
struct SetFile {
  std::string name;
  std::string bytes;
};

// Writes all of `files` beside what stands in `folder`, then puts them in place and takes the files named in `gone`
// away, as one step. The folder and its sub-folders are made when they are missing. Throws Problem{CannotWrite} naming
// the file and the system's reason; then the folder is as it was.
void replace_file_set(const std::string& folder, const std::vector<SetFile>& files,
                      const std::vector<std::string>& gone = {});

// What a kill left in the middle of replacing is taken back: the old set stands again. Replacing does this first.
void mend_file_set(const std::string& folder);

}  // namespace doyen
