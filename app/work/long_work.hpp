// Work off the window's thread that the window waits for: reading a drawing, opening a job, writing the files.
#pragma once

#include <QWidget>
#include <functional>

#include "cancel.hpp"

namespace doyen {

// How far the work is, 0 to 1; may be called from the thread that works.
using Told = std::function<void(double share)>;

// Does `task` on a thread of its own, and returns when it is done. Meanwhile the window paints and takes no input; what
// lasts half a second shows `what`, how far it is, and a button that stops it. Throws what the task throws:
// Cancelled when it was stopped.
void work_off_thread(QWidget* over, const QString& what, const std::function<void(const Cancel&, const Told&)>& task);

}  // namespace doyen
