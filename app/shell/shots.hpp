// Pictures of the window for the documents: `doyen --shot STAGE FILE.png`, the same on any machine.
#pragma once

#include <QString>
#include <QStringList>

namespace doyen {

class MainWindow;

// Waits for plan, fine picture and section; false after the time is up.
bool wait_until_settled(MainWindow& window, int milliseconds = 30'000);
// And until the judge has spoken and the remedies have been tried.
bool wait_until_looked_at(MainWindow& window, int milliseconds = 60'000);

// STAGE: blank, artwork, cuts, proof, run, cut-out, rack or welcome. Returns false with a sentence in `problem`.
bool take_shot(MainWindow& window, const QString& stage, const QString& file, QString* problem);
QStringList shot_names();

}  // namespace doyen
