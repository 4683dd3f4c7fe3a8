#include "stages/run/next_board_section.hpp"

namespace doyen {

NextBoardSection::NextBoardSection(Workshop& shop) : shop_(shop) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  fold_ = new Fold(tr("The next one"), QStringLiteral("nextOneOpen"));
  column->addWidget(fold_);
  auto* made = new QPushButton(tr("One more is made"));
  made->setObjectName(QStringLiteral("oneMore"));
  fold_->body()->addWidget(made, 0, Qt::AlignLeft);
  readings_ = new ReadingsField;
  readings_->setObjectName(QStringLiteral("nextReadings"));
  fold_->body()->addWidget(make_row(tr("Its thickness, read"), readings_));
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("nextSays"));
  fold_->body()->addWidget(says_);
  connect(made, &QPushButton::clicked, this,
          [this] { shop_.document.edit(tr("one more is made"), [](Job& job) { ++job.run.made; }); });
  connect(readings_, &ReadingsField::entered, this, [this](const std::vector<double>& mm) {
    shop_.document.edit(tr("enter thickness readings"), [&](Job& job) { take_readings(job, mm); });
  });
}

void NextBoardSection::refresh() {
  const Job& job = shop_.document.job();
  readings_->show_readings(job.blank.readings, job.lengths);
  const int made = job.run.made;
  const QString words = made == 0 ? tr("none made yet") : made == 1 ? tr("one made") : tr("%1 made").arg(made);
  fold_->set_summary(words);
  says_->setText(
      tr("So far: %1. The files are for a board as thick as this; write them anew when it is another.").arg(words));
}

}  // namespace doyen
