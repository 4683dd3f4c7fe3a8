#include "work/behind.hpp"

#include <QCoreApplication>
#include <QPointer>
#include <QThreadPool>

namespace doyen {

void Behind::stop() {
  cancel_.request();
  ++newest_;
}

void Behind::start(std::function<void(const Cancel&, const Tell&)> work, std::function<void(bool)> done) {
  stop();
  cancel_ = Cancel();
  QThreadPool::globalInstance()->start([self = QPointer<Behind>(this), mine = newest_, cancel = cancel_,
                                        work = std::move(work), done = std::move(done)] {
    const Tell tell = [&](std::function<void()> what) {
      QMetaObject::invokeMethod(
          qApp,
          [self, mine, what = std::move(what)] {
            if (self && self->newest_ == mine) what();
          },
          Qt::QueuedConnection);
    };
    bool well = true;
    try {
      const Cancel::Scope stops(cancel);
      work(cancel, tell);
    } catch (const Cancelled&) {
      return;  // something else is asked by now, or nobody looks any more
    } catch (const std::exception&) {
      well = false;  // what cannot be worked out is not shown: the plan says why
    }
    if (done) tell([done, well] { done(well); });
  });
}

}  // namespace doyen
