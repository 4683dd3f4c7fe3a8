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
  width_ = new LengthField(range_of("blank.width"));
  width_->setObjectName(QStringLiteral("nextWidth"));
  fold_->body()->addWidget(make_row(tr("Left to right"), width_));
  height_ = new LengthField(range_of("blank.height"));
  height_->setObjectName(QStringLiteral("nextHeight"));
  fold_->body()->addWidget(make_row(tr("Front to back"), height_));
  for (LengthField* field : {width_, height_})
    field->setToolTip(
        tr("Of the next board, where it is another: what is cut stays as far from the left front corner"));
  says_ = make_label({}, "plain");
  says_->setObjectName(QStringLiteral("nextSays"));
  fold_->body()->addWidget(says_);
  connect(made, &QPushButton::clicked, this,
          [this] { shop_.document.edit(tr("one more is made"), [](Job& job) { ++job.run.made; }); });
  connect(readings_, &ReadingsField::entered, this, [this](const std::vector<double>& mm) {
    shop_.document.edit(tr("enter thickness readings"), [&](Job& job) { take_readings(job, mm); });
  });
  const auto size = [this](LengthField* field, double Blank::*member) {
    connect(field, &LengthField::entered, this, [this, member](std::optional<double> mm) {
      shop_.document.edit(tr("say how large the next board is"), [&](Job& job) { job.blank.*member = *mm; });
    });
  };
  size(width_, &Blank::width);
  size(height_, &Blank::height);
}

void NextBoardSection::refresh() {
  const Job& job = shop_.document.job();
  readings_->show_readings(job.blank.readings, job.lengths);
  width_->show_length(job.blank.width, job.lengths);
  height_->show_length(job.blank.height, job.lengths);
  const int made = job.run.made;
  const QString words = made == 0 ? tr("none made yet") : made == 1 ? tr("one made") : tr("%1 made").arg(made);
  fold_->set_summary(words);
  says_->setText(
      tr("So far: %1. Only what is another with the next board is asked; all else stays as it was, zero and stops "
         "too. Write the files anew when something was another.")
          .arg(words));
}

}  // namespace doyen
