// The window as a lesson sees it.
#include "shell/lesson.hpp"
#include "shell/main_window.hpp"

namespace doyen {

LessonSeen MainWindow::seen_by_lesson() const {
  const bool known = shop_.judged && shop_.judged->job == document_.job();
  return {document_.job(), static_cast<Stage>(tickets_->currentIndex()),
          section_,        known ? shop_.judged : nullptr,
          written_,        document_.opened()};
}

void MainWindow::begin_lesson() {
  if (new_board()) lesson_->begin(seen_by_lesson());
}

void MainWindow::lesson_looks() {
  if (lesson_->goes_on()) lesson_->look_at(seen_by_lesson());
}

}  // namespace doyen
